const MARK = /\p{M}/u;

/**
 * A text's place in the alphabet, as a string whose code units compare like its UTF-8 bytes:
 * letters without accents and case, white space < punctuation < digits < letters; then accents;
 * then lower before upper. Digits are not grouped. The same in memory and in SQLite.
 */
export function sortKey(text: string): string {
  let primary = '';
  let accents = '';
  let cases = '';
  for (const c of text.normalize('NFD')) {
    if (MARK.test(c)) {
      accents += unit(c);
      continue;
    }
    const lower = c.toLowerCase();
    primary += rank(c) + unit(lower);
    accents += END_OF_LETTER;
    cases += lower === c ? '0' : '1';
  }
  return `${primary}${END_OF_LEVEL}${accents}${END_OF_LEVEL}${cases}`;
}

const END_OF_LEVEL = '\u0001';
const END_OF_LETTER = '\u0002';

function rank(c: string): string {
  if (/^\s/u.test(c)) return '\u0003';
  if (/^\p{Nd}/u.test(c)) return '\u0005';
  return /^[\p{L}\p{N}]/u.test(c) ? '\u0006' : '\u0004';
}

// Astral characters become two units of the private use area, whose order is theirs in UTF-16 and
// UTF-8 alike.
function unit(text: string): string {
  let out = '';
  for (const c of text) {
    const point = c.codePointAt(0)!;
    if (point <= 0xffff) out += point >= 0xd800 && point <= 0xdfff ? '\ufffd' : c;
    else out += String.fromCharCode(0xe000 + (point >> 12), 0x1000 + (point & 0xfff));
  }
  return out;
}
