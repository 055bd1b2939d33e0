import type { IncomingHttpHeaders } from 'node:http';

/** The part of a body that a client wants: first and last byte; or that there is no such part. */
export type Part = { first: number; last: number } | 'unsatisfiable';

/**
 * The one range asked for (RFC 9110 §14.2); null for the whole: none asked, several, malformed,
 * or of another version.
 */
export function partOf(headers: IncomingHttpHeaders, length: number, etag: string): Part | null {
  const ifRange = headers['if-range'];
  if (ifRange !== undefined && ifRange !== etag) return null;
  const range = /^bytes=(\d*)-(\d*)$/.exec(headers.range?.trim() ?? '');
  if (!range || (range[1] === '' && range[2] === '')) return null;
  const [from, to] = [range[1]!, range[2]!];
  const first = from === '' ? Math.max(0, length - Number(to)) : Number(from);
  const last = from === '' || to === '' ? length - 1 : Math.min(length - 1, Number(to));
  if (from !== '' && to !== '' && Number(to) < Number(from)) return null;
  return first >= length || last < first ? 'unsatisfiable' : { first, last };
}
