import { createHash } from 'node:crypto';
import { readFileSync } from 'node:fs';
import { createRequire } from 'node:module';
import subsetFont from 'subset-font';

/** What pages are written with: Latin-1, dashes, quotes, the ellipsis and arrows. */
const RANGES = [
  [0x20, 0x7e],
  [0xa0, 0xff],
  [0x2010, 0x2026],
  [0x2190, 0x2193],
] as const;
const LETTERS = RANGES.flatMap(([from, to]) =>
  Array.from({ length: to - from + 1 }, (_, i) => String.fromCodePoint(from + i)),
).join('');

/** The site's fonts, by what its style sheet calls them, as WOFF2 with those letters alone. */
export async function fonts(): Promise<Record<string, { name: string; content: Buffer }>> {
  const file = createRequire(import.meta.url).resolve;
  const made = (path: string, wght: number | { min: number; max: number }): Promise<Buffer> =>
    subsetFont(
      readFileSync(file(`@fontsource-variable/${path}-latin-wght-normal.woff2`)),
      LETTERS,
      {
        targetFormat: 'woff2',
        variationAxes: { wght },
      },
    );
  const named = (name: string, content: Buffer): { name: string; content: Buffer } => {
    const hash = createHash('sha256').update(content).digest('hex').slice(0, 8);
    return { name: `${name}-${hash}.woff2`, content };
  };
  return {
    'newsreader.woff2': named('newsreader', await made('newsreader/files/newsreader', 500)),
    'instrument-sans.woff2': named(
      'instrument-sans',
      await made('instrument-sans/files/instrument-sans', { min: 400, max: 700 }),
    ),
  };
}
