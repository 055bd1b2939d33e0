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
  return text.replace(/\s+/gu, ' ').trim();
}

const ENTITIES: Record<string, string> = {
  '&': '&amp;',
  '<': '&lt;',
  '>': '&gt;',
  '"': '&quot;',
  "'": '&#39;',
};

/** Escapes for HTML text and quoted attributes (WHATWG HTML, 13.3). */
export function escapeHtml(text: string): string {
  return /[&<>"']/.test(text) ? text.replace(/[&<>"']/g, (c) => ENTITIES[c]!) : text;
}

/** Cuts after a whole word so that the text plus "…" is at most `n` code points; short texts stay whole. */
export function limitText(text: string, n: number): string {
  const points = [...text];
  if (points.length <= n) return text;
  if (n < 1) return '';
  const cut = points.slice(0, n - 1).join('');
  if (/^\s/u.test(points[n - 1]!)) return `${cut.trimEnd()}…`;
  const word = cut.search(/\s\S*$/u);
  return `${(word > 0 ? cut.slice(0, word) : cut).trimEnd()}…`;
}

/** The member of `names` nearest to `name` by edit distance, where near enough to be meant; else undefined. */
export function nearest(name: string, names: Iterable<string>): string | undefined {
  const limit = Math.max(1, Math.floor(name.length / 3));
  let best: { name: string; distance: number } | undefined;
  for (const candidate of names) {
    const distance = editDistance(name.toLowerCase(), candidate.toLowerCase());
    if (distance <= limit && (!best || distance < best.distance))
      best = { name: candidate, distance };
  }
  return best?.name;
}

/** Edit distance where a swap of neighbours counts one (optimal string alignment). */
export function editDistance(a: string, b: string): number {
  const rows = Array.from({ length: a.length + 1 }, (_, i) => [
    i,
    ...Array<number>(b.length).fill(0),
  ]);
  for (let j = 0; j <= b.length; j++) rows[0]![j] = j;
  for (let i = 1; i <= a.length; i++) {
    for (let j = 1; j <= b.length; j++) {
      const same = a[i - 1] === b[j - 1] ? 0 : 1;
      let least = Math.min(rows[i - 1]![j]! + 1, rows[i]![j - 1]! + 1, rows[i - 1]![j - 1]! + same);
      if (i > 1 && j > 1 && a[i - 1] === b[j - 2] && a[i - 2] === b[j - 1])
        least = Math.min(least, rows[i - 2]![j - 2]! + 1);
      rows[i]![j] = least;
    }
  }
  return rows[a.length]![b.length]!;
}
