import type { IncomingMessage } from 'node:http';
import { hasKey } from './key-holder.ts';

/** What keeps a request from being looked at further. */
export interface Denial {
  status: 400 | 403 | 405 | 411 | 413 | 421;
  message: string;
  headers?: Record<string, string>;
}

/** Largest body of somebody who is signed in, and of anybody else, in bytes. */
const MAX_BODY = 1024 * 1024;
const MAX_BODY_OF_STRANGERS = 4096;
/** Largest body with pieces of files, in bytes. */
const MAX_PIECES = 9 * 1024 * 1024;

/** Largest text that a program sends, in bytes. */
const MAX_TEXT_BODY = 2 * 1024 * 1024;

const METHODS: readonly { under: RegExp; methods: readonly string[] }[] = [
  { under: /^\/api(\/|$)/, methods: ['GET', 'HEAD', 'POST', 'DELETE'] },
  { under: /./, methods: ['GET', 'HEAD'] },
];

/** What of the builder may be asked, and how large it may be, before anything is read. */
export function denyBuilder(request: IncomingMessage): Denial | null {
  const path = (request.url ?? '/').split('?', 1)[0]!;
  const { methods } = METHODS.find(({ under }) => under.test(path))!;
  if (!methods.includes(request.method ?? ''))
    return {
      status: 405,
      message: 'The builder has no such method here.',
      headers: { allow: methods.join(', ') },
    };
  if (!isDecodable(request.url ?? '/'))
    return { status: 400, message: 'This address has a percent code that is not UTF-8.' };
  return denyBody(request, path);
}

function denyBody({ headers }: IncomingMessage, path: string): Denial | null {
  if (headers['transfer-encoding'] !== undefined)
    return { status: 411, message: 'A request says how long it is (Content-Length).' };
  const length = Number(headers['content-length'] ?? 0);
  const isKnown =
    /(^|;\s*)bontel\.session_token=/.test(headers.cookie ?? '') || hasKey({ headers });
  const most = isKnown ? mostOf(path) : MAX_BODY_OF_STRANGERS;
  return length <= most
    ? null
    : { status: 413, message: `A request holds at most ${most} bytes, and this has ${length}.` };
}

/** Largest body at a path, of somebody who is signed in, in bytes. */
function mostOf(path: string): number {
  if (path.startsWith('/api/session')) return MAX_BODY_OF_STRANGERS;
  if (path === '/api/rich-text') return MAX_TEXT_BODY;
  return /^\/api\/(upload|media)\/[^/]+$/.test(path) ? MAX_PIECES : MAX_BODY;
}

/** Whether every percent code of an address is UTF-8; the framework answers others with a fault. */
function isDecodable(url: string): boolean {
  try {
    decodeURIComponent(url);
    return true;
  } catch {
    return false;
  }
}
