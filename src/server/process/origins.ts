import type { IncomingMessage } from 'node:http';
import { hasKey } from './key-holder.ts';
import type { Denial } from './limits.ts';

/** Hosts (with ports) that this server answers for. */
export function allowedHosts(
  port: number,
  siteUrl: string | null,
  more: string | undefined,
): Set<string> {
  const own = ['127.0.0.1', 'localhost', '[::1]'].map((h) => `${h}:${port}`);
  const site = siteUrl === null ? [] : [new URL(siteUrl).host];
  return new Set(
    [
      ...own,
      ...site,
      ...(more ?? '')
        .split(',')
        .map((h) => h.trim())
        .filter(Boolean),
    ].map((h) => h.toLowerCase()),
  );
}

/** Unknown hosts get 421 (RFC 9110 §7.4), writes from elsewhere 403. */
export function denyOrigin(request: IncomingMessage, hosts: Set<string>): Denial | null {
  const host = request.headers.host?.toLowerCase();
  if (host === undefined) return { status: 400, message: 'A request names its host.' };
  if (!hosts.has(host))
    return {
      status: 421,
      message: 'This server does not answer for that host. BONTEL_HOSTS can add it.',
    };
  if (request.method === 'GET' || request.method === 'HEAD' || hasKey(request)) return null;
  const origin = request.headers.origin;
  const own =
    origin !== undefined && URL.canParse(origin) && new URL(origin).host.toLowerCase() === host;
  return own
    ? null
    : { status: 403, message: 'Changes are taken from this site’s own pages only.' };
}

/**
 * Drops what a client may have forged before the builder sees it, and puts in the address it
 * really came from.
 */
export function scrub(request: IncomingMessage): void {
  for (const name of Object.keys(request.headers))
    if (name === 'forwarded' || name.startsWith('x-forwarded-') || name.startsWith('x-middleware-'))
      delete request.headers[name];
  request.headers['x-bontel-ip'] = request.socket.remoteAddress ?? '';
}
