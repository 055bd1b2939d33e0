import { createReadStream } from 'node:fs';
import type { Readable } from 'node:stream';
import ZipStream from 'zip-stream';
import type { SavedFile } from './saved-file.ts';

/** The instant that every file of an archive bears, so that equal sites give equal archives. */
const WRITTEN = new Date('2026-01-01T00:00:00Z');

/**
 * The files of a saved site as a ZIP archive, made while it is read: what is not read yet is not
 * made. Where a file fails, the stream does.
 */
export function zipOf(files: Iterable<SavedFile>): Readable {
  const zip = new ZipStream({ level: 6 });
  fill(zip, files).then(
    () => zip.finish(),
    (error: unknown) => zip.destroy(error as Error),
  );
  return zip;
}

async function fill(zip: ZipStream, files: Iterable<SavedFile>): Promise<void> {
  for (const { path, content } of files)
    await new Promise<void>((resolve, reject) => {
      const isText = typeof content === 'string';
      const source = isText ? Buffer.from(content) : createReadStream(content.copyOf);
      // Pictures and fonts are packed already.
      const data = { name: path, date: WRITTEN, store: !isText };
      zip.entry(source, data, (error) => (error ? reject(error) : resolve()));
    });
}
