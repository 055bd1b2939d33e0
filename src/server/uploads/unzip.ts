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

/** How unpacking is followed, and ended early. */
export interface Unpacking {
  tell?: (step: string) => void;
  signal?: AbortSignal;
}

/** What comes out of an archive is more than may be. */
class Overflow extends Error {}

/**
 * Unpacks a ZIP archive (APPNOTE 6.3.10) into a folder; tells how many files it held. Refused, with
 * the name, where one would lie outside the folder, or where the whole comes to more than the
 * bounds: counted as it is unpacked, whatever the archive says of itself; and where it is cancelled.
 */
export async function unzip(
  archive: string,
  folder: string,
  bounds: Bounds,
  how: Unpacking = {},
): Promise<Result<number>> {
  try {
    const zip = await openPromise(archive, { strictFileNames: true });
    return await unpack(zip, folder, bounds, how);
  } catch (error) {
    if (how.signal?.aborted) return refused(CANCELLED);
    const most = `${bounds.bytes / 1024 ** 2} MB`;
    if (error instanceof Overflow) return refused(tooMuch(`more than ${most}, unpacked`, most));
    return refused(broken(error as Error));
  }
}

async function unpack(
  zip: ZipFile,
  folder: string,
  { files, bytes }: Bounds,
  { tell, signal }: Unpacking,
): Promise<Result<number>> {
  let count = 0;
  const left = { bytes };
  if (zip.entryCount > files) return refused(tooMuch(`${zip.entryCount} files`, `${files} files`));
  for await (const entry of zip.eachEntry()) {
    if (signal?.aborted) return refused(CANCELLED);
    if (entry.fileName.endsWith('/')) continue;
    const place = placeIn(folder, entry.fileName);
    if (!place.ok) return place;
    if (place.value === null) continue;
    await mkdir(dirname(place.value), { recursive: true });
    await extract(zip, entry, place.value, { left, signal });
    count += 1;
    if (count % 1000 === 0) tell?.(`Unpacking: ${count} of ${zip.entryCount} files`);
  }
  return ok(count);
}

async function extract(
  zip: ZipFile,
  entry: Entry,
  path: string,
  { left, signal }: { left: { bytes: number }; signal: AbortSignal | undefined },
): Promise<void> {
  const bounded = new Transform({
    transform(chunk: Buffer, _, done) {
      left.bytes -= chunk.length;
      if (left.bytes < 0) done(new Overflow());
      else done(null, chunk);
    },
  });
  const content = await zip.openReadStreamPromise(entry);
  const file = createWriteStream(path, { flags: 'wx' });
  await pipeline(content, bounded, file, signal ? { signal } : {});
}

const CANCELLED: Issue = {
  code: 'cancelled',
  message: 'Unpacking was cancelled.',
  fix: 'Choose the folder again.',
};

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
