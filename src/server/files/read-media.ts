import { createHash } from 'node:crypto';
import { readFileSync, statSync } from 'node:fs';
import { join } from 'node:path';
import sharp from 'sharp';
import { z } from 'zod';
import type { Issue } from '@/core/issue.ts';
import type { Media } from '@/core/design/values.ts';
import { readAs } from './read-as.ts';

/** A file of the site, with where it lies on disk. */
export interface ReadMedia extends Media {
  bytes: number;
  source: string;
}

const MAX_BYTES = 50 * 1024 * 1024;
const MAX_FONT_BYTES = 4 * 1024 * 1024;
const FORMATS: Record<string, string> = {
  jpeg: 'image/jpeg',
  png: 'image/png',
  webp: 'image/webp',
  gif: 'image/gif',
  heif: 'image/avif',
};
const altFile = z.record(z.string(), z.string()).nullable();

/** Reads the pictures of `media/` (checked by content) and the files of `style/`. */
export async function readMediaFiles(
  folder: string,
  files: string[],
): Promise<{ media: ReadMedia[]; issues: Issue[] }> {
  const media: ReadMedia[] = [];
  const { alts, issues } = readAlts(folder, files);
  for (const file of files.filter((f) => f.startsWith('media/') && f !== 'media/alt.yaml')) {
    const id = file.slice('media/'.length);
    const read = await picture(folder, file, id, alts[id] ?? '');
    if ('code' in read) issues.push(read);
    else media.push(read);
  }
  for (const file of files.filter((f) => f.startsWith('style/'))) {
    const read = styleFile(folder, file);
    if ('code' in read) issues.push(read);
    else media.push(read);
  }
  for (const name of Object.keys(alts)) {
    if (!files.includes(`media/${name}`))
      issues.push({
        code: 'unknown-file',
        path: 'media/alt.yaml',
        line: 1,
        message: `There is no picture "${name}".`,
        fix: 'Add it below media/, or take the line out.',
      });
  }
  return { media, issues };
}

function readAlts(
  folder: string,
  files: string[],
): { alts: Record<string, string>; issues: Issue[] } {
  if (!files.includes('media/alt.yaml')) return { alts: {}, issues: [] };
  const { value, issues } = readAs(folder, 'media/alt.yaml', altFile);
  return { alts: value ?? {}, issues };
}

async function picture(
  folder: string,
  file: string,
  id: string,
  alt: string,
): Promise<ReadMedia | Issue> {
  const source = join(folder, file);
  const wrong = (message: string, fix: string): Issue => ({
    code: 'unreadable-picture',
    path: file,
    line: 1,
    message,
    fix,
  });
  if (statSync(source).size > MAX_BYTES)
    return wrong('The picture is larger than 50 MB.', 'Make it smaller.');
  const bytes = readFileSync(source);
  try {
    const picture = sharp(bytes, { limitInputPixels: 100_000_000, failOn: 'truncated' });
    const { format, autoOrient } = await picture.metadata();
    const { width, height } = autoOrient;
    const mime = FORMATS[format ?? ''];
    if (!mime || !width || !height)
      return wrong(
        `Pictures are JPEG, PNG, WebP, GIF or AVIF; this is ${format ?? 'none'}.`,
        'Convert it.',
      );
    await picture.resize(16).toBuffer(); // a picture that ends early shows it only when it is drawn
    return { id, alt, width, height, mime, hash: sha256(bytes), bytes: bytes.length, source };
  } catch {
    return wrong(
      'The file is not a picture that can be read.',
      'Replace it; its name ending says nothing, its content does.',
    );
  }
}

function styleFile(folder: string, file: string): ReadMedia | Issue {
  const source = join(folder, file);
  const wrong = (message: string, fix: string): Issue => ({
    code: 'unknown-file',
    path: file,
    line: 1,
    message,
    fix,
  });
  if (statSync(source).size > MAX_FONT_BYTES)
    return wrong('The font is larger than 4 MB.', 'Leave out the letters that are not needed.');
  const bytes = readFileSync(source);
  const isFont = bytes.subarray(0, 4).toString('latin1') === 'wOF2';
  if (!isFont)
    return wrong(
      'The folder style/ holds fonts in WOFF2, and this is none.',
      'Convert the font, or put pictures in media/.',
    );
  return {
    id: file,
    alt: '',
    width: 0,
    height: 0,
    mime: 'font/woff2',
    hash: sha256(bytes),
    bytes: bytes.length,
    source,
  };
}

function sha256(bytes: Buffer): string {
  return createHash('sha256').update(bytes).digest('hex');
}
