/** Why a request's path cannot be one, or its normal form. */
export type NormalPath =
  { ok: true; path: string; changed: boolean } | { ok: false; reason: string };

/** Longest path, in bytes of UTF-8 as it stands in an address. */
export const MAX_PATH_BYTES = 1024;
/** Longest request that is looked at: a path of ours with every byte percent-encoded. */
const MAX_REQUEST = 3 * MAX_PATH_BYTES;

/** Most paths are in their normal form: no segment begins with a dot. */
const NORMAL = /^(?:\/[a-z0-9_~-][a-z0-9._~-]*)+$/;

/**
 * The normal form of a request's path (RFC 3986 §6.2): percent-decoded, small letters, no empty
 * or dot segments, no slash at the end. Null bytes, bad encodings and overlong paths are refused.
 */
export function normalisePath(raw: string): NormalPath {
  if (raw.length > MAX_REQUEST)
    return { ok: false, reason: `The path is longer than ${MAX_REQUEST} characters.` };
  if (NORMAL.test(raw)) return { ok: true, path: raw, changed: false };
  if (!raw.startsWith('/')) return { ok: false, reason: 'A path starts with "/".' };
  let decoded: string;
  try {
    decoded = decodeURIComponent(raw);
  } catch {
    return { ok: false, reason: 'The path has a percent code that is not UTF-8.' };
  }
  if (/[\u0000-\u001f\u007f\\]/.test(decoded))
    return { ok: false, reason: 'The path has a control character or a backslash.' };
  const segments = decoded
    .normalize('NFC')
    .toLowerCase()
    .split('/')
    .filter((s) => s !== '');
  if (segments.some((s) => s === '.' || s === '..'))
    return { ok: false, reason: 'The path has a dot segment.' };
  const path = `/${segments.join('/')}`;
  return { ok: true, path, changed: path !== raw };
}

const RESERVED_FIRST = new Set([
  'build',
  'api',
  '_next',
  'media',
  'style',
  '.well-known',
  'robots.txt',
  'sitemap.xml',
  'favicon.ico',
]);

/** Whether the site keeps a path for itself: whole first segments, and sitemap parts. */
export function isReserved(path: string): boolean {
  const first = path.slice(1).split('/', 1)[0]!;
  return RESERVED_FIRST.has(first) || /^sitemap-\d+\.xml$/.test(first);
}

/** Whether a path lies below one of some others. */
export function isBelowAny(roots: readonly string[], path: string): boolean {
  return roots.some((root) => path.startsWith(`${root}/`));
}

/** The listing address and number of `<listing>/page-<n>`; null for any other path. */
export function splitPageNumber(path: string): { address: string; number: number } | null {
  const m = /^(.*)\/page-(\d{1,9})$/.exec(path);
  return m ? { address: m[1] === '' ? '/' : m[1]!, number: Number(m[2]) } : null;
}

/** The address of a listing's page; page 1 has no number in it. */
export function pagePath(address: string, number: number): string {
  if (number === 1) return address;
  return `${address === '/' ? '' : address}/page-${number}`;
}

/** The formats of feeds, by how their paths end. */
export type FeedFormat = 'atom' | 'json';

/** The listing address and format of `<listing>/feed.atom`; null for any other path. */
export function splitFeed(path: string): { address: string; format: FeedFormat } | null {
  const m = /^(.*)\/feed\.(atom|json)$/.exec(path);
  return m ? { address: m[1] === '' ? '/' : m[1]!, format: m[2] as FeedFormat } : null;
}

/** Where a feed of a listing, or of one value of it, stands. */
export function feedPath(address: string, format: FeedFormat): string {
  return `${address === '/' ? '' : address}/feed.${format}`;
}

/** What is wrong with an address set by hand, in words; null where nothing is. */
export function checkByHand(path: string): string | null {
  if (!path.startsWith('/')) return 'An address starts with "/".';
  const normal = normalisePath(path);
  if (!normal.ok) return normal.reason;
  if (path.length > MAX_PATH_BYTES) return `An address has at most ${MAX_PATH_BYTES} bytes.`;
  if (normal.changed || !/^[a-z0-9._~/-]+$/.test(path))
    return 'An address is made of small letters, digits, "-", ".", "_", "~" and single slashes, without one at its end.';
  if (splitFeed(path)) return 'Feeds of listings stand at such addresses.';
  return path === '/' ? 'What "/" shows is chosen in the site’s settings.' : null;
}
