import { mkdir, readFile, readdir, rename, rm, stat, utimes, writeFile } from 'node:fs/promises';
import { dirname, join } from 'node:path';
import { LRUCache } from 'lru-cache';
import pLimit from 'p-limit';
import sharp, { type Sharp } from 'sharp';

/** A picture as it is wanted, from a file that is kept. */
export interface WantedSize {
  hash: string;
  /** Width in px at most. */
  width: number;
  /** Width by height, and where what matters lies, in per cent; null where it is not cut. */
  cut: { shape: number; focusX: number; focusY: number } | null;
  format: 'webp' | 'avif';
}

/** The media type of a picture that was made: one that moves is WebP, whatever was wanted. */
export function madeType(body: Buffer): 'image/webp' | 'image/avif' {
  return body.toString('latin1', 0, 4) === 'RIFF' ? 'image/webp' : 'image/avif';
}

/** So much of what was made is kept; what was asked for longest ago goes first. */
const KEPT_BYTES = 512 * 1024 * 1024;
const MOST_PIXELS = 100_000_000;
const MADE_WITHIN_S = 60;

/**
 * Pictures in other sizes and formats, made once, two at a time, by threads of the picture library.
 * They are kept in a folder that is bounded and can be thrown away at any time.
 */
export class PictureSizes {
  private readonly folder: string;
  private readonly atOnce = pLimit(2);
  private readonly making = new Map<string, Promise<Buffer>>();
  private readonly kept: LRUCache<string, number>;
  private readonly foundKept: Promise<void>;

  constructor(
    private readonly data: string,
    bytes = KEPT_BYTES,
  ) {
    this.folder = join(data, 'sizes');
    this.kept = new LRUCache<string, number>({
      maxSize: bytes,
      sizeCalculation: (size) => Math.max(1, size),
      dispose: (_, name, why) => {
        if (why === 'evict') void rm(join(this.folder, name), { force: true });
      },
    });
    this.foundKept = this.findKept().catch((error: unknown) => console.error(error));
  }

  /** The picture as it is wanted. @throws where the file is not there, or cannot be drawn */
  async get(wanted: WantedSize): Promise<Buffer> {
    const name = nameOf(wanted);
    const file = join(this.folder, name);
    const found = await readFile(file).catch(() => null);
    if (found) {
      this.kept.set(name, found.length);
      void utimes(file, new Date(), new Date()).catch(() => undefined);
      return found;
    }
    let making = this.making.get(name);
    if (!making) {
      making = this.atOnce(() => this.make(wanted, name)).finally(() => this.making.delete(name));
      this.making.set(name, making);
    }
    return making;
  }

  private async make(wanted: WantedSize, name: string): Promise<Buffer> {
    const body = await drawn(join(this.data, 'media', wanted.hash), wanted);
    await this.foundKept; // what is made now is newer than all that was there
    const isKept = body.length <= this.kept.maxSize && (await keep(join(this.folder, name), body));
    if (isKept) this.kept.set(name, body.length);
    return body;
  }

  /** What earlier processes have kept, what was used last counting as newest. */
  private async findKept(): Promise<void> {
    const names = await readdir(this.folder, { recursive: true }).catch(() => []);
    const found = await Promise.all(
      names.map(async (name) => ({ name, is: await stat(join(this.folder, name)) })),
    );
    const files = found.filter(({ is }) => is.isFile());
    files.sort((a, b) => a.is.mtimeMs - b.is.mtimeMs);
    for (const { name, is } of files) if (!this.kept.has(name)) this.kept.set(name, is.size);
  }
}

function nameOf({ hash, width, cut, format }: WantedSize): string {
  const shape = cut ? `-${cut.shape.toFixed(4)}-${cut.focusX}-${cut.focusY}` : '';
  return join(hash, `${width}${shape}.${format}`);
}

/** Draws a picture upright, cut where wanted, no larger than it is; drawings as large as wanted. */
async function drawn(source: string, { width, cut, format }: WantedSize): Promise<Buffer> {
  const options = { limitInputPixels: MOST_PIXELS };
  const { autoOrient, pages = 1, format: is } = await sharp(source, options).metadata();
  const isDrawing = is === 'svg';
  const widest = Math.min(autoOrient.width, cut ? autoOrient.height * cut.shape : Infinity);
  const density = Math.ceil((72 * width) / Math.max(1, widest));
  const animated = pages > 1;
  const image = sharp(source, {
    ...options,
    animated,
    ...(isDrawing ? { density: Math.min(2400, Math.max(72, density)) } : {}),
  }).timeout({ seconds: MADE_WITHIN_S });
  if (!animated) image.autoOrient();
  if (cut) await cutTo(image, cut);
  image.resize({ width, withoutEnlargement: !isDrawing });
  // In AVIF a moving picture would stand still.
  if (format === 'webp' || animated) return image.webp({ quality: 82 }).toBuffer();
  return image.avif({ quality: 55, effort: 2 }).toBuffer();
}

/** Cuts a picture to a shape, so that what matters lies as near its middle as it can. */
async function cutTo(
  image: Sharp,
  { shape, focusX, focusY }: NonNullable<WantedSize['cut']>,
): Promise<void> {
  const { autoOrient, pageHeight } = await image.metadata();
  const size = { width: autoOrient.width, height: pageHeight ?? autoOrient.height };
  const width = Math.max(1, Math.min(size.width, Math.round(size.height * shape)));
  const height = Math.max(1, Math.min(size.height, Math.round(size.width / shape)));
  const from = (whole: number, part: number, focus: number): number =>
    Math.max(0, Math.min(whole - part, Math.round((whole * focus) / 100 - part / 2)));
  image.extract({
    left: from(size.width, width, focusX),
    top: from(size.height, height, focusY),
    width,
    height,
  });
}

/**
 * Keeps what was made for the next time; where the disk is full, or may not be written, it is
 * made anew then. Says whether it is kept.
 */
async function keep(file: string, body: Buffer): Promise<boolean> {
  try {
    await mkdir(dirname(file), { recursive: true });
    await writeFile(`${file}.new`, body);
    await rename(`${file}.new`, file);
    return true;
  } catch (error) {
    console.error(`A picture could not be kept: ${(error as Error).message}`);
    return false;
  }
}
