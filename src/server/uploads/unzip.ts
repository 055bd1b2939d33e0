import { createWriteStream } from 'node:fs';
import { mkdir } from 'node:fs/promises';
import { dirname } from 'node:path';
import { Transform } from 'node:stream';
import { pipeline } from 'node:stream/promises';
import { type Entry, type ZipFile, openPromise } from 'yauzl';
import { type Issue, type Result, ok, refused } from '@/core/issue.ts';
import { placeIn } from './place.ts';

/** What an archive may come to, unpacked. */
export interface Bounds {
  files: number;
  bytes: number;
}

/** What comes out of an archive is more than may be. */
class Overflow extends Error {}

/**
 * Unpacks a ZIP archive (APPNOTE 6.3.10) into a folder; tells how many files it held. Refused, with
 * the name, where one would lie outside the folder, or where the whole comes to more than the
 * bounds: counted as it is unpacked, whatever the archive says of itself.
 */
export async function unzip(
  archive: string,
  folder: string,
  bounds: Bounds,
  tell: (step: string) => void = () => undefined,
): Promise<Result<number>> {
  try {
    const zip = await openPromise(archive, { strictFileNames: true });
    return await unpack(zip, folder, bounds, tell);
  } catch (error) {
    const most = `${bounds.bytes / 1024 ** 2} MB`;
    if (error instanceof Overflow) return refused(tooMuch(`more than ${most}, unpacked`, most));
    return refused(broken(error as Error));
  }
}

async function unpack(
  zip: ZipFile,
  folder: string,
  { files, bytes }: Bounds,
  tell: (step: string) => void,
): Promise<Result<number>> {
  let count = 0;
  const left = { bytes };
  if (zip.entryCount > files) return refused(tooMuch(`${zip.entryCount} files`, `${files} files`));
  for await (const entry of zip.eachEntry()) {
    if (entry.fileName.endsWith('/')) continue;
    const place = placeIn(folder, entry.fileName);
    if (!place.ok) return place;
    if (place.value === null) continue;
    await mkdir(dirname(place.value), { recursive: true });
    await extract(zip, entry, place.value, left);
    count += 1;
    if (count % 1000 === 0) tell(`Unpacking: ${count} of ${zip.entryCount} files`);
  }
  return ok(count);
}

async function extract(
  zip: ZipFile,
  entry: Entry,
  path: string,
  left: { bytes: number },
): Promise<void> {
  const bounded = new Transform({
    transform(chunk: Buffer, _, done) {
      left.bytes -= chunk.length;
      if (left.bytes < 0) done(new Overflow());
      else done(null, chunk);
    },
  });
  const content = await zip.openReadStreamPromise(entry);
  await pipeline(content, bounded, createWriteStream(path, { flags: 'wx' }));
}

function tooMuch(holds: string, most: string): Issue {
  return {
    code: 'too-large',
    message: `The archive holds ${holds}; a site that is loaded here holds at most ${most}.`,
    fix: 'Leave out what is not part of the site, or load it with `bontel load FOLDER`.',
  };
}

function broken({ message }: Error): Issue {
  return {
    code: 'unreadable-file',
    message: `The archive cannot be read: ${message}.`,
    fix: 'Make a .zip of the folder anew; archives with a password cannot be read.',
  };
}
