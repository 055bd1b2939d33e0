import { createHash } from 'node:crypto';
import { createReadStream } from 'node:fs';
import { readFile, stat } from 'node:fs/promises';
import { join } from 'node:path';
import { pipeline } from 'node:stream/promises';
import type { IncomingMessage, ServerResponse } from 'node:http';
import { LRUCache } from 'lru-cache';
import { formatOf } from '@/core/design/media-formats.ts';
import { PICTURE_WIDTHS, filePath, picturePath, shapeOf } from '@/core/site/pictures.ts';
import { RATIOS } from '@/core/template/context.ts';
import type { SiteView } from '../queries/site-view.ts';
import { mediumNow } from '../store/media.ts';
import { statement } from '../store/statement.ts';
import { CLOSED_POLICY, plain } from './answer.ts';
import { type Coding, compressed } from './cached-page.ts';
import { codingFor, isUnchanged } from './conditional.ts';
import { PictureSizes, madeType } from './picture-sizes.ts';
import { partOf } from './range.ts';
import { StyleSheets } from './style-sheets.ts';

/** Named by their content, so that they never change. */
const FOREVER = 'public, max-age=31536000, immutable';
/** Named by people, so that they may: asked again each time. */
const ASK = 'public, max-age=0, must-revalidate';
const COMMON = {
  'x-content-type-options': 'nosniff',
  'access-control-allow-origin': '*',
  'content-security-policy': CLOSED_POLICY,
};
/** A drawing may have styles of its own; nothing in it runs or is fetched. */
const DRAWING_POLICY = "default-src 'none'; style-src 'unsafe-inline'; img-src data:; sandbox";

/** What an address holds: bytes, a file, or where to look instead. */
type Found =
  | {
      body: Buffer;
      type: string;
      etag: string;
      cache: string;
      /** The header of a request by which it is another. */
      vary?: 'accept' | 'accept-encoding';
      coding?: Coding;
    }
  | { file: string; bytes: number; type: string; etag: string }
  | { to: string };

const KEPT_BYTES = 32 * 1024 * 1024;
const PICTURE = new RegExp(
  `^/media/([0-9a-f]{64})/([1-9]\\d{1,3})(?:-(${RATIOS.join('|').replaceAll(':', 'x')})-(0|[1-9]\\d{0,2})-(0|[1-9]\\d{0,2}))?$`,
);
const FILE = /^\/media\/([0-9a-f]{64})\/([^/]+)$/;

/** Pictures in sizes, whole files, style sheets and fonts. */
export class MediaDelivery {
  private readonly sheets: StyleSheets;
  private readonly sizes: PictureSizes;
  private readonly codedSheets = new LRUCache<string, Buffer>({ max: 60 });
  private readonly fonts = new LRUCache<string, Buffer>({
    maxSize: KEPT_BYTES,
    sizeCalculation: (body) => body.length + 1,
  });

  private scriptText: Buffer | null = null;

  constructor(
    private readonly view: SiteView,
    private readonly folder: string,
  ) {
    this.sheets = new StyleSheets(view.connection);
    this.sizes = new PictureSizes(folder);
  }

  /** Answers a path below `/media` or `/style`; false where nothing is there. */
  async answer(path: string, request: IncomingMessage, response: ServerResponse): Promise<boolean> {
    const found = await this.find(path, request).catch(gone);
    if (!found) return false;
    if ('to' in found) {
      response.writeHead(302, { ...COMMON, 'cache-control': ASK, location: found.to }).end();
      return true;
    }
    await answerFound(found, request, response);
    return true;
  }

  private async find(path: string, request: IncomingMessage): Promise<Found | null> {
    const css = /^\/style\/([0-9a-f]{16})\.css$/.exec(path)?.[1];
    if (css !== undefined) return this.sheet(css, codingFor(request.headers['accept-encoding']));
    if (path === '/style/page.js')
      return this.script(codingFor(request.headers['accept-encoding']));
    const name = /^\/style\/([a-z0-9._-]+)$/i.exec(path)?.[1];
    if (name !== undefined) return this.font(name);
    const size = PICTURE.exec(path);
    if (size) return this.size(size, request);
    const file = FILE.exec(path);
    if (file) return this.whole(file[1]!, decoded(file[2]!));
    return path.startsWith('/media/') ? this.current(decoded(path.slice(7)), request.url!) : null;
  }

  private sheet(key: string, coding: Coding): Found | null {
    const sheet = this.sheets.get(key);
    if (sheet === null) return null;
    const name = `${key}.${coding}`;
    const body = this.codedSheets.get(name) ?? compressed(Buffer.from(sheet), coding);
    this.codedSheets.set(name, body);
    const type = 'text/css; charset=utf-8';
    return { body, type, etag: `"${name}"`, cache: FOREVER, vary: 'accept-encoding', coding };
  }

  /** The script with which pages do better, as it stands beside the server. */
  private async script(coding: Coding): Promise<Found> {
    this.scriptText ??= await readFile(new URL('./page.js', import.meta.url));
    const body = compressed(this.scriptText, coding);
    const etag = `"${createHash('sha256').update(body).digest('base64url').slice(0, 22)}"`;
    const type = 'text/javascript; charset=utf-8';
    return { body, type, etag, cache: ASK, vary: 'accept-encoding', coding };
  }

  private async font(name: string): Promise<Found | null> {
    const font = mediumNow(this.view.connection, `style/${name}`);
    if (!font) return null;
    const { hash, mime } = font;
    const body = this.fonts.get(hash) ?? (await readFile(join(this.folder, 'media', hash)));
    this.fonts.set(hash, body);
    // Named by their content where they were added in the builder, by people in a folder.
    const isFixed = name.endsWith(`-${hash.slice(0, 8)}.woff2`);
    return { body, type: mime, etag: `"${hash.slice(0, 32)}"`, cache: isFixed ? FOREVER : ASK };
  }

  /** A picture at a width, in the best format that the client takes (RFC 9110 §12.5.1). */
  private async size(parts: RegExpExecArray, request: IncomingMessage): Promise<Found | null> {
    const [, hash = '', step, ratio, x, y] = parts;
    const width = Number(step);
    if (!PICTURE_WIDTHS.includes(width)) return null;
    const [focusX, focusY] = [Number(x), Number(y)];
    const sql = `SELECT mime FROM media WHERE hash = ? AND mime LIKE 'image/%'
      ${ratio === undefined ? '' : 'AND focus_x = ? AND focus_y = ?'}`;
    const known = statement<{ mime: string }>(this.view.connection, sql).get(
      ...[hash, ...(ratio === undefined ? [] : [focusX, focusY])],
    );
    if (!known) return null;
    const format = takesAvif(request.headers.accept) ? 'avif' : 'webp';
    const shape = ratio && shapeOf(ratio.replace('x', ':') as (typeof RATIOS)[number]);
    const cut = shape ? { shape, focusX, focusY } : null;
    const body = await this.sizes.get({ hash, width, cut, format });
    const etag = `"${parts[0].slice('/media/'.length).replace('/', '-')}.${format}"`;
    return { body, type: madeType(body), etag, cache: FOREVER, vary: 'accept' };
  }

  /** A whole file by its content and the last part of a name that it has or had. */
  private async whole(hash: string, name: string): Promise<Found | null> {
    const sql = 'SELECT id, mime FROM media WHERE hash = ?';
    const rows = statement<{ id: string; mime: string }>(this.view.connection, sql).all(hash);
    const known = rows.find(({ id }) => id === name || id.endsWith(`/${name}`));
    if (!known || formatOf(known.mime) === null) return null;
    const file = join(this.folder, 'media', hash);
    const { size } = await stat(file);
    return { file, bytes: size, type: known.mime, etag: `"${hash}"` };
  }

  /** Where the file that a name stands for now is; with `?width=` a picture of that width (px). */
  private current(name: string, url: string): Found | null {
    const medium = name.startsWith('style/') ? null : mediumNow(this.view.connection, name);
    if (!medium) return null;
    const width = Number(/[?&]width=(\d{1,4})(?:&|$)/.exec(url)?.[1] ?? 0);
    const isSized = width > 0 && medium.width > 0;
    return { to: isSized ? picturePath(medium, width) : filePath(medium) };
  }
}

/** Answers with bytes or a file, or the part of it that is asked for. */
async function answerFound(
  found: Exclude<Found, { to: string }>,
  request: IncomingMessage,
  response: ServerResponse,
): Promise<void> {
  const { type, etag } = found;
  const length = 'body' in found ? found.body.length : found.bytes;
  const headers = {
    ...COMMON,
    ...(type === 'image/svg+xml' ? { 'content-security-policy': DRAWING_POLICY } : {}),
    etag,
    'cache-control': 'cache' in found ? found.cache : FOREVER,
    ...('vary' in found ? { vary: found.vary } : {}),
    ...('coding' in found && found.coding !== 'identity'
      ? { 'content-encoding': found.coding }
      : {}),
  };
  if (isUnchanged(request.headers, etag, undefined))
    return void response.writeHead(304, headers).end();
  const part = request.method === 'GET' ? partOf(request.headers, length, etag) : null;
  if (part === 'unsatisfiable')
    return plain(response, 416, 'There is no such part.', { 'content-range': `bytes */${length}` });
  const { first, last } = part ?? { first: 0, last: length - 1 };
  response.writeHead(part ? 206 : 200, {
    ...headers,
    'accept-ranges': 'bytes',
    'content-type': type,
    'content-length': last - first + 1,
    ...(part ? { 'content-range': `bytes ${first}-${last}/${length}` } : {}),
  });
  if (request.method === 'HEAD') response.end();
  else if ('body' in found) response.end(found.body.subarray(first, last + 1));
  else
    await pipeline(createReadStream(found.file, { start: first, end: last }), response).catch(
      () => response.destroy(), // whoever asked went away, or the file is cut short
    );
}

/** Whether a client says that it takes AVIF; what is not said is WebP's. */
function takesAvif(accept = ''): boolean {
  return /(^|,)\s*image\/avif\s*(;(?!\s*q=0(\.0*)?\s*(,|$))|,|$)/i.test(accept);
}

/** A path with its percent codes read; as it is where they are none. */
function decoded(path: string): string {
  try {
    return decodeURIComponent(path);
  } catch {
    return path;
  }
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
