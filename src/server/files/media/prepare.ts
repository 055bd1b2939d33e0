import { createHash, randomUUID } from 'node:crypto';
import { createReadStream } from 'node:fs';
import { open, readFile, stat, writeFile } from 'node:fs/promises';
import { join } from 'node:path';
import { pipeline } from 'node:stream/promises';
import sharp, { type Metadata, type Sharp } from 'sharp';
import { type FormatName, MEDIA_FORMATS } from '@/core/design/media-formats.ts';
import { type Issue, type Result, ok, refused } from '@/core/issue.ts';
import { safeSvg } from './svg.ts';

/** A file as it is kept: told by its content, upright, without the place where it was taken. */
export interface PreparedFile {
  /** Where it lies: the file given, or one beside it that was made from it. */
  path: string;
  /** SHA-256, hex. */
  hash: string;
  mime: string;
  bytes: number;
  /** Size in px, upright; 0 of what is no picture. */
  width: number;
  height: number;
}

/** The most that a file of the media may have, in bytes, and a picture in px, all frames together. */
export const MOST_BYTES = 50 * 1024 * 1024;
const MOST_SVG_BYTES = 4 * 1024 * 1024;
const MOST_PIXELS = 100_000_000;
const DRAWN_WITHIN_S = 30;

const BY_SHARP: Record<string, FormatName> = {
  jpeg: 'jpeg',
  png: 'png',
  webp: 'webp',
  gif: 'gif',
  heif: 'avif',
};

/**
 * Looks at what a file holds, whatever it is called, and makes it fit to be kept: pictures upright
 * and without what cameras note (EXIF, XMP, IPTC), drawings without what runs. `scratch` is a
 * folder for what is made anew. Refused, with its `name`, where it is none of our formats,
 * does not show to its end, or is too large.
 */
export async function prepareFile(
  source: string,
  scratch: string,
  name: string,
): Promise<Result<PreparedFile>> {
  const wrong = (message: string, fix: string): Result<never> =>
    refused(unreadable(name, message, fix));
  if ((await stat(source)).size > MOST_BYTES)
    return wrong('The file is larger than 50 MB.', 'Make it smaller.');
  const head = await readPart(source, 1024);
  if (head.length === 0) return wrong('The file is empty.', 'Choose another.');
  try {
    if (head.toString('latin1', 0, 5) === '%PDF-') return await document(source, wrong);
    return looksLikeXml(head)
      ? await drawing(source, scratch, wrong)
      : await picture(source, scratch, wrong);
  } catch (error) {
    const { code } = error as NodeJS.ErrnoException;
    if (code !== undefined) throw error; // of the disk, not of the picture
    const tooLarge = /pixel limit/i.test((error as Error).message);
    return tooLarge
      ? wrong('The picture has more than 100 million px.', 'Make it smaller.')
      : wrong(
          'The file is not a picture that can be read.',
          'Replace it; its name ending says nothing, its content does.',
        );
  }
}

type Wrong = (message: string, fix: string) => Result<never>;

/** A picture of the formats that are made of px. */
async function picture(
  source: string,
  scratch: string,
  wrong: Wrong,
): Promise<Result<PreparedFile>> {
  const found = await sharp(source, { limitInputPixels: MOST_PIXELS }).metadata();
  const format = BY_SHARP[found.format ?? ''];
  const { width, height } = found.autoOrient;
  if (!format || (format === 'avif' && found.compression !== 'av1') || !width || !height)
    return wrong(
      `Files are JPEG, PNG, WebP, GIF, AVIF, SVG or PDF; this is ${found.format ?? 'none'}.`,
      'Convert it.',
    );
  const frames = found.pages ?? 1;
  if (width * height * frames > MOST_PIXELS)
    return wrong('The picture has more than 100 million px in all its frames.', 'Make it smaller.');
  const read = sharp(source, {
    limitInputPixels: MOST_PIXELS,
    failOn: 'truncated',
    animated: frames > 1,
  }).timeout({ seconds: DRAWN_WITHIN_S });
  // A picture that ends early shows it only when it is drawn.
  await read.clone().resize(16).toBuffer();
  if (!saysMore(found)) return ok(await kept(source, format, { width, height }));
  const path = inScratch(scratch);
  const upright = (frames > 1 ? read : read.autoOrient()).keepIccProfile();
  await writeFile(path, await encoded(upright, format).toBuffer());
  return ok(await kept(path, format, { width, height }));
}

/** Whether a picture carries more than its px: how it was held, where and when it was taken. */
function saysMore({ exif, xmp, iptc, orientation, comments }: Metadata): boolean {
  return Boolean(exif ?? xmp ?? iptc ?? comments) || (orientation ?? 1) > 1;
}

/** Encoded again in its own format, so well that nobody sees it. */
function encoded(image: Sharp, format: FormatName): Sharp {
  switch (format) {
    case 'jpeg':
      return image.jpeg({ quality: 95, chromaSubsampling: '4:4:4' });
    case 'png':
      return image.png();
    case 'webp':
      return image.webp({ quality: 95 });
    case 'avif':
      return image.avif({ quality: 80, effort: 2 });
    default:
      return image.gif();
  }
}

/** A document in PDF (ISO 32000), which says at its end that it ends. */
async function document(source: string, wrong: Wrong): Promise<Result<PreparedFile>> {
  const end = await readPart(source, -2048);
  if (!end.includes('%%EOF')) return wrong('The PDF ends early.', 'Send it again, whole.');
  return ok(await kept(source, 'pdf', { width: 0, height: 0 }));
}

async function drawing(
  source: string,
  scratch: string,
  wrong: Wrong,
): Promise<Result<PreparedFile>> {
  if ((await stat(source)).size > MOST_SVG_BYTES)
    return wrong('The drawing is larger than 4 MB.', 'Save it as PNG or WebP.');
  const given = await readFile(source);
  const svg = safeSvg(given.toString('utf8'));
  if (svg === null)
    return wrong(
      'The file is a text of markup, and no drawing in SVG.',
      'Choose a picture, or save the drawing as SVG.',
    );
  const bytes = Buffer.from(svg);
  const drawn = sharp(bytes, { limitInputPixels: MOST_PIXELS }).timeout({
    seconds: DRAWN_WITHIN_S,
  });
  const { width, height } = await drawn.clone().metadata();
  await drawn.resize(16).toBuffer();
  const path = bytes.equals(given) ? source : inScratch(scratch);
  if (path !== source) await writeFile(path, bytes);
  return ok(await kept(path, 'svg', { width: width ?? 0, height: height ?? 0 }));
}

/** Where something new goes. */
function inScratch(scratch: string): string {
  return join(scratch, randomUUID());
}

/** SHA-256 of what is small, hex. */
export function sha256(bytes: Buffer): string {
  return createHash('sha256').update(bytes).digest('hex');
}

async function kept(
  path: string,
  format: FormatName,
  size: { width: number; height: number },
): Promise<PreparedFile> {
  const hash = createHash('sha256');
  await pipeline(createReadStream(path), hash);
  const { size: bytes } = await stat(path);
  return { path, hash: hash.digest('hex'), mime: MEDIA_FORMATS[format].mime, bytes, ...size };
}

/** So many bytes from the beginning of a file; from its end where negative. */
async function readPart(path: string, length: number): Promise<Buffer> {
  const file = await open(path);
  try {
    const { size } = await file.stat();
    const wanted = Math.min(size, Math.abs(length));
    const from = length < 0 ? size - wanted : 0;
    const { buffer, bytesRead } = await file.read(Buffer.alloc(wanted), 0, wanted, from);
    return buffer.subarray(0, bytesRead);
  } finally {
    await file.close();
  }
}

/** Whether a file begins as markup does, after a byte-order mark and white space. */
function looksLikeXml(head: Buffer): boolean {
  return /^\ufeff?\s*</.test(head.toString('utf8'));
}

function unreadable(path: string, message: string, fix: string): Issue {
  return { code: 'unreadable-picture', path, line: 1, message, fix };
}
