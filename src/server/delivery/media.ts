import { mkdir, readFile, rename, writeFile } from 'node:fs/promises';
import { join } from 'node:path';
import type { IncomingMessage, ServerResponse } from 'node:http';
import { LRUCache } from 'lru-cache';
import sharp from 'sharp';
import { PICTURE_WIDTHS } from '@/core/site/page-scope.ts';
import type { SiteView } from '../queries/site-view.ts';
import { CLOSED_POLICY, plain } from './answer.ts';
import { isUnchanged } from './conditional.ts';
import { partOf } from './range.ts';
import { StyleSheets } from './style-sheets.ts';

/** Named by their content, so that they never change. */
const FOREVER = 'public, max-age=31536000, immutable';
/** Named by people, so that they may: asked again each time, by their ETag. */
const ASK = 'public, max-age=0, must-revalidate';
const COMMON = {
  'x-content-type-options': 'nosniff',
  'access-control-allow-origin': '*',
  'content-security-policy': CLOSED_POLICY,
};

interface Found {
  body: Buffer;
  type: string;
  etag: string;
  cache: string;
}

const KEPT_BYTES = 32 * 1024 * 1024;

/** Pictures at a width, style sheets and fonts. */
export class MediaDelivery {
  private readonly making = new Map<string, Promise<Buffer>>();
  private readonly sheets: StyleSheets;
  private readonly fonts = new LRUCache<string, Buffer>({
    maxSize: KEPT_BYTES,
    sizeCalculation: (body) => body.length + 1,
  });

  constructor(
    private readonly view: SiteView,
    private readonly folder: string,
  ) {
    this.sheets = new StyleSheets(view.connection);
  }

  /** Answers a path below `/media` or `/style`; false where nothing is there. */
  async answer(path: string, request: IncomingMessage, response: ServerResponse): Promise<boolean> {
    const found = await this.find(path).catch(gone);
    if (!found) return false;
    const headers = { ...COMMON, etag: found.etag, 'cache-control': found.cache };
    if (isUnchanged(request.headers, found.etag, undefined)) response.writeHead(304, headers).end();
    else send(found, headers, request, response);
    return true;
  }

  private async find(path: string): Promise<Found | null> {
    const etag = `"${path.split('/').slice(2).join('-')}"`;
    const css = /^\/style\/([0-9a-f]{16})\.css$/.exec(path)?.[1];
    if (css !== undefined) {
      const sheet = this.sheets.get(css);
      if (sheet === null) return null;
      return { body: Buffer.from(sheet), type: 'text/css; charset=utf-8', etag, cache: FOREVER };
    }
    const picture = /^\/media\/([0-9a-f]{64})\/(\d{2,4})\.webp$/.exec(path);
    if (picture) {
      const width = Number(picture[2]);
      if (!PICTURE_WIDTHS.includes(width) || !this.hashIsKnown(picture[1]!)) return null;
      const body = await this.picture(picture[1]!, width);
      return { body, type: 'image/webp', etag, cache: FOREVER };
    }
    const name = /^\/style\/([a-z0-9._-]+)$/i.exec(path)?.[1];
    return name === undefined ? null : this.font(name);
  }

  private async font(name: string): Promise<Found | null> {
    const row = this.view.connection.driver
      .prepare<unknown[], { hash: string; mime: string }>(
        'SELECT hash, mime FROM media WHERE id = ?',
      )
      .get(`style/${name}`);
    if (!row) return null;
    const { hash, mime } = row;
    const body = this.fonts.get(hash) ?? (await readFile(join(this.folder, 'media', hash)));
    this.fonts.set(hash, body);
    return { body, type: mime, etag: `"${hash.slice(0, 32)}"`, cache: ASK };
  }

  private hashIsKnown(hash: string): boolean {
    return (
      this.view.connection.driver.prepare('SELECT 1 FROM media WHERE hash = ?').get(hash) !==
      undefined
    );
  }

  /** A picture in WebP at a width, made once and kept beside the original. */
  private async picture(hash: string, width: number): Promise<Buffer> {
    const folder = join(this.folder, 'sizes', hash);
    const file = join(folder, `${width}.webp`);
    const kept = await readFile(file).catch(() => null);
    if (kept) return kept;
    let making = this.making.get(file);
    if (!making) {
      making = this.make(join(this.folder, 'media', hash), folder, file, width).finally(() =>
        this.making.delete(file),
      );
      this.making.set(file, making);
    }
    return making;
  }

  private async make(source: string, folder: string, file: string, width: number): Promise<Buffer> {
    const body = await sharp(source, { limitInputPixels: 100_000_000 })
      .rotate()
      .resize({ width, withoutEnlargement: true })
      .webp({ quality: 82 })
      .toBuffer();
    await keep(folder, file, body);
    return body;
  }
}

function send(
  { body, type, etag }: Found,
  common: Record<string, string>,
  request: IncomingMessage,
  response: ServerResponse,
): void {
  const part = request.method === 'GET' ? partOf(request.headers, body.length, etag) : null;
  const headers = { ...common, 'accept-ranges': 'bytes', 'content-type': type };
  if (part === 'unsatisfiable')
    return plain(response, 416, 'There is no such part.', {
      'content-range': `bytes */${body.length}`,
    });
  const shown = part ? body.subarray(part.first, part.last + 1) : body;
  response.writeHead(part ? 206 : 200, {
    ...headers,
    'content-length': shown.length,
    ...(part ? { 'content-range': `bytes ${part.first}-${part.last}/${body.length}` } : {}),
  });
  response.end(request.method === 'HEAD' ? undefined : shown);
}

/**
 * A file that is missing, or a picture that cannot be drawn, is not there; other faults are
 * passed on.
 */
function gone(error: unknown): null {
  const { code, message } = error as NodeJS.ErrnoException;
  if (code !== undefined && code !== 'ENOENT') throw error;
  console.error(`A file of the site cannot be shown: ${message}`);
  return null;
}

/**
 * Keeps a picture for the next time; where the disk is full, or may not be written, it is made
 * anew then.
 */
async function keep(folder: string, file: string, body: Buffer): Promise<void> {
  try {
    await mkdir(folder, { recursive: true });
    await writeFile(`${file}.new`, body);
    await rename(`${file}.new`, file);
  } catch (error) {
    console.error(`A picture could not be kept: ${(error as Error).message}`);
  }
}
