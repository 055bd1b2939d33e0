import { mkdir, readFile, rename, writeFile } from 'node:fs/promises';
import { join } from 'node:path';
import type { IncomingMessage, ServerResponse } from 'node:http';
import sharp from 'sharp';
import { PICTURE_WIDTHS } from '@/core/site/page-scope.ts';
import type { SiteView } from '../queries/site-view.ts';
import { isUnchanged } from './conditional.ts';
import { partOf } from './range.ts';

const FOREVER = 'public, max-age=31536000, immutable';
const COMMON = {
  'cache-control': FOREVER,
  'x-content-type-options': 'nosniff',
  'access-control-allow-origin': '*',
};

interface Found {
  body: Buffer;
  type: string;
  policy?: string;
}

/** Pictures at a width, style sheets and fonts; all named by their content, so they never change. */
export class MediaDelivery {
  private readonly making = new Map<string, Promise<Buffer>>();

  constructor(
    private readonly view: SiteView,
    private readonly folder: string,
  ) {}

  /** Answers a path below `/media` or `/style`; false where nothing is there. */
  async answer(path: string, request: IncomingMessage, response: ServerResponse): Promise<boolean> {
    const found = await this.find(path);
    if (!found) return false;
    const etag = `"${path.split('/').slice(2).join('-')}"`;
    if (isUnchanged(request.headers, etag, undefined))
      response.writeHead(304, { ...COMMON, etag }).end();
    else this.send(found, etag, request, response);
    return true;
  }

  private send(
    { body, type, policy }: Found,
    etag: string,
    request: IncomingMessage,
    response: ServerResponse,
  ): void {
    const part = request.method === 'GET' ? partOf(request.headers, body.length, etag) : null;
    const headers = {
      ...COMMON,
      etag,
      'accept-ranges': 'bytes',
      'content-type': type,
      ...(policy ? { 'content-security-policy': policy } : {}),
    };
    if (part === 'unsatisfiable')
      return void response.writeHead(416, { 'content-range': `bytes */${body.length}` }).end();
    const shown = part ? body.subarray(part.first, part.last + 1) : body;
    response.writeHead(part ? 206 : 200, {
      ...headers,
      'content-length': shown.length,
      ...(part ? { 'content-range': `bytes ${part.first}-${part.last}/${body.length}` } : {}),
    });
    response.end(request.method === 'HEAD' ? undefined : shown);
  }

  private async find(path: string): Promise<Found | null> {
    const css = /^\/style\/([0-9a-f]{16})\.css$/.exec(path)?.[1];
    if (css !== undefined) {
      const sheet = this.styleSheet(css);
      return sheet === null ? null : { body: Buffer.from(sheet), type: 'text/css; charset=utf-8' };
    }
    const picture = /^\/media\/([0-9a-f]{64})\/(\d{2,4})\.webp$/.exec(path);
    if (picture) {
      const width = Number(picture[2]);
      if (!PICTURE_WIDTHS.includes(width) || !this.hashIsKnown(picture[1]!)) return null;
      return {
        body: await this.picture(picture[1]!, width),
        type: 'image/webp',
        policy: "default-src 'none'; sandbox",
      };
    }
    const style = /^\/style\/([a-z0-9._-]+)$/i.exec(path)?.[1];
    const row =
      style === undefined
        ? undefined
        : (this.view.connection.driver
            .prepare('SELECT hash, mime FROM media WHERE id = ?')
            .get(`style/${style}`) as { hash: string; mime: string } | undefined);
    return row
      ? { body: await readFile(join(this.folder, 'media', row.hash)), type: row.mime }
      : null;
  }

  private styleSheet(key: string): string | null {
    const specs = this.view.connection.driver
      .prepare('SELECT starts FROM design_version ORDER BY id DESC LIMIT 20')
      .pluck()
      .all() as number[];
    for (const starts of specs) {
      const site = this.view.at(starts)?.site;
      if (site?.styleKey === key) return site.css;
    }
    return null;
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
    await mkdir(folder, { recursive: true });
    await writeFile(`${file}.new`, body);
    await rename(`${file}.new`, file);
    return body;
  }
}
