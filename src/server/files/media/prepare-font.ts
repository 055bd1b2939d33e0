import { readFile, stat } from 'node:fs/promises';
import opentype, { type Font as OpenType } from 'opentype.js';
import wawoff2 from 'wawoff2';
import { type Issue, type Result, ok, refused } from '@/core/issue.ts';
import { type Font, fontSpec } from '@/core/style/fonts.ts';
import { type PreparedFile, sha256 } from './prepare.ts';

/** What a file says of its own font. */
type FontFacts = Omit<Font, 'file'>;

/** A font as it is kept, with what it says of itself. */
export type PreparedFont = PreparedFile & { font: FontFacts };

const MOST_BYTES = 4 * 1024 * 1024;
const MOST_MB = MOST_BYTES / 1024 ** 2;
/** `fsSelection` (OpenType, OS/2): the letters lean. */
const ITALIC = 1;

/**
 * A font as it is kept, with what it says of itself; refused, with its `name`, where it is no
 * WOFF2 that can be read to its end, or above 4 MB.
 */
export async function prepareFont(source: string, name: string): Promise<Result<PreparedFont>> {
  if ((await stat(source)).size > MOST_BYTES)
    return refused(
      wrong(name, `The font is larger than ${MOST_MB} MB.`, 'Leave out letters nobody needs.'),
    );
  const bytes = await readFile(source);
  if (bytes.toString('latin1', 0, 4) !== 'wOF2')
    return refused(wrong(name, 'Fonts are in WOFF2, and this is none.', 'Convert it to WOFF2.'));
  const font = await opened(bytes);
  if (!font)
    return refused(wrong(name, 'The font cannot be read.', 'Convert it again, or choose another.'));
  return ok({
    ...{ path: source, hash: sha256(bytes), mime: 'font/woff2', bytes: bytes.length },
    ...{ width: 0, height: 0, font: factsOf(font, name) },
  });
}

async function opened(bytes: Buffer): Promise<OpenType | null> {
  try {
    const font = opentype.parse(Uint8Array.from(await wawoff2.decompress(bytes)).buffer);
    return font.numGlyphs > 0 ? font : null;
  } catch {
    return null; // whatever a reader of fonts throws at what is none
  }
}

function factsOf({ names, tables: { os2, fvar } }: OpenType, file: string): FontFacts {
  const weights = fvar?.axes.find(({ tag }) => tag === 'wght');
  const italic = ((os2?.fsSelection ?? 0) & ITALIC) !== 0;
  const least = weights?.minValue ?? os2?.usWeightClass ?? 400;
  const most = weights?.maxValue ?? least;
  return {
    name: familyOf(names, file),
    weight: least === most ? inBounds(least) : [inBounds(least), inBounds(most)],
    slant: italic ? 'italic' : 'upright',
  };
}

const inBounds = (weight: number): number => Math.min(1000, Math.max(1, Math.round(weight)));

/** The family a font calls itself; where it says none that can be used, what its file is called. */
function familyOf(names: OpenType['names'], file: string): string {
  const said = Object.values(names).flatMap((all) =>
    ['preferredFamily', 'fontFamily'].flatMap((name) => Object.values(all?.[name] ?? {})),
  );
  const called = file.slice(file.lastIndexOf('/') + 1).replace(/\.woff2$/i, '');
  const usable = (name: string | undefined): string =>
    (name ?? '')
      .replace(/[^A-Za-z0-9 -]+/g, ' ')
      .trim()
      .slice(0, 60);
  return (
    [...said, called].map(usable).find((name) => fontSpec.shape.name.safeParse(name).success) ??
    'Own font'
  );
}

function wrong(path: string, message: string, fix: string): Issue {
  return { code: 'unreadable-font', path, line: 1, message, fix };
}
