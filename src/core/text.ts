/** Compares by Unicode code points, as SQLite compares UTF-8 bytes: negative, zero or positive. */
export function compareCodePoints(a: string, b: string): number {
  const length = Math.min(a.length, b.length);
  for (let i = 0; i < length; i++) {
    const x = a.charCodeAt(i);
    const y = b.charCodeAt(i);
    if (x !== y) return fixUp(x) - fixUp(y);
  }
  return a.length - b.length;
}

// UTF-16 puts surrogates (astral characters) below U+E000; code point order puts them above.
function fixUp(unit: number): number {
  if (unit < 0xd800) return unit;
  return unit >= 0xe000 ? unit - 0x800 : unit + 0x2000;
}

/** Whether there is more than white space. */
export function hasText(text: string): boolean {
  const first = text.charCodeAt(0); // NaN where the text is empty
  return (first > 0x20 && first < 0x80) || /\S/.test(text);
}

/** White space runs become one space; ends trimmed. */
export function foldSpace(text: string): string {
  return /^\s|\s$|\s\s|[^\S ]/u.test(text) ? text.replace(/\s+/gu, ' ').trim() : text;
}

/** Text as searches compare it: accents and case do not count. The one place that decides so. */
export function searchKey(text: string): string {
  return foldSpace(text.normalize('NFD').replace(/\p{M}/gu, '').toLowerCase());
}

/** By UTF-16 code unit. */
const ENTITIES: readonly (string | undefined)[] = Object.assign([], {
  [0x26]: '&amp;',
  [0x3c]: '&lt;',
  [0x3e]: '&gt;',
  [0x22]: '&quot;',
  [0x27]: '&#39;',
});
const LAST_ENTITY = 0x3e;

/** Escapes for HTML text and quoted attributes (WHATWG HTML, 13.3). */
export function escapeHtml(text: string): string {
  const first = text.search(/[&<>"']/);
  if (first < 0) return text; // most words
  let out = '';
  let from = 0;
  for (let i = first; i < text.length; i++) {
    const unit = text.charCodeAt(i);
    const entity = unit > LAST_ENTITY ? undefined : ENTITIES[unit];
    if (entity === undefined) continue;
    out += text.slice(from, i) + entity;
    from = i + 1;
  }
  return out + text.slice(from);
}

/** Longest text value, in UTF-16 code units. */
export const MAX_TEXT = 2 * 1024 * 1024;

/**
 * Cuts after a whole word so that the text plus "…" is at most `n` code points; short texts stay
 * whole. Commas, semicolons, colons and dashes before the "…" go.
 */
export function limitText(text: string, n: number): string {
  if (text.length <= n) return text;
  const points = [...text];
  if (points.length <= n) return text;
  if (n < 1) return '';
  const cut = points.slice(0, n - 1).join('');
  const word = /^\s/u.test(points[n - 1]!) ? -1 : cut.search(/\s\S*$/u);
  return `${(word > 0 ? cut.slice(0, word) : cut).replace(/[\s,;:\p{Pd}]+$/u, '')}…`;
}

const IN_WORD = /[\p{L}\p{M}\p{N}]/u;

/** Whether a text has a word, or words one after the other: not within others. */
export function hasWord(text: string, word: string): boolean {
  if (word === '') return false;
  for (let at = text.indexOf(word); at >= 0; at = text.indexOf(word, at + 1)) {
    const before = [...text.slice(Math.max(0, at - 2), at)].at(-1) ?? '';
    const after = String.fromCodePoint(text.codePointAt(at + word.length) ?? 32);
    if (!IN_WORD.test(before) && !IN_WORD.test(after)) return true;
  }
  return false;
}
