import type { IncomingHttpHeaders } from 'node:http';
import type { Coding } from './cached-page.ts';

/** Whether a client's copy is still good (RFC 9110 §13.2.2): If-None-Match wins over dates. */
export function isUnchanged(
  headers: IncomingHttpHeaders,
  etag: string,
  lastModified: string | undefined,
): boolean {
  const match = headers['if-none-match'];
  if (match !== undefined)
    return (
      match.trim() === '*' ||
      match.split(',').some((tag) => tag.trim().replace(/^W\//, '') === etag)
    );
  const since = headers['if-modified-since'];
  if (since === undefined || lastModified === undefined) return false;
  const instant = Date.parse(since);
  return !Number.isNaN(instant) && Date.parse(lastModified) <= instant;
}

/** The best coding a client takes (RFC 9110 §12.5.3), of those we have. */
export function codingFor(accept: string | undefined): Coding {
  if (accept === undefined || accept === '') return 'identity';
  const weights = new Map(
    accept
      .toLowerCase()
      .split(',')
      .map((part) => weightOf(part)),
  );
  const weight = (coding: string): number => weights.get(coding) ?? weights.get('*') ?? 0;
  const [br, gzip] = [weight('br'), weight('gzip')];
  if (br > 0 && br >= gzip) return 'br';
  return gzip > 0 ? 'gzip' : 'identity';
}

function weightOf(part: string): [string, number] {
  const [name = '', ...parameters] = part.trim().split(';');
  const q = parameters.map((p) => /^\s*q=([0-9.]+)\s*$/.exec(p)?.[1]).find((v) => v !== undefined);
  return [name.trim(), q === undefined ? 1 : Number(q) || 0];
}
