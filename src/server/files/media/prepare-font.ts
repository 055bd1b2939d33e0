import { readFile, stat } from 'node:fs/promises';
import wawoff2 from 'wawoff2';
import { type Issue, type Result, ok, refused } from '@/core/issue.ts';
import { type Font, fontSpec } from '@/core/style/fonts.ts';
import { fontFacts } from './font-tables.ts';
import { type PreparedFile, sha256 } from './prepare.ts';

/** A font as it is kept, with what it says of itself. */
export type PreparedFont = PreparedFile & { font: Omit<Font, 'file'> };

const MOST_BYTES = 4 * 1024 * 1024;
const MOST_MB = MOST_BYTES / 1024 ** 2;

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
  const font = await factsOf(bytes, name);
  if (!font)
    return refused(wrong(name, 'The font cannot be read.', 'Convert it again, or choose another.'));
  return ok({
    ...{ path: source, hash: sha256(bytes), mime: 'font/woff2', bytes: bytes.length },
    ...{ width: 0, height: 0, font },
  });
}

async function factsOf(bytes: Buffer, file: string): Promise<Omit<Font, 'file'> | null> {
  try {
    const { family, ...facts } = fontFacts(Uint8Array.from(await wawoff2.decompress(bytes)));
    return { ...facts, name: nameOf(family, file) };
  } catch {
    return null; // whatever a reader of fonts throws at what is none
  }
}

/** The family a font calls itself; where that cannot be used, what its file is called. */
function nameOf(family: string, file: string): string {
  const called = file.slice(file.lastIndexOf('/') + 1).replace(/\.woff2$/i, '');
  const usable = (name: string): string =>
    name
      .replace(/[^A-Za-z0-9 -]+/g, ' ')
      .trim()
      .slice(0, 60);
  return (
    [family, called].map(usable).find((name) => fontSpec.shape.name.safeParse(name).success) ??
    'Own font'
  );
}

function wrong(path: string, message: string, fix: string): Issue {
  return { code: 'unreadable-font', path, line: 1, message, fix };
}
