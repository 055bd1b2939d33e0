import anyAscii from 'any-ascii';

const EVERYWHERE: Record<string, string> = {
  ß: 'ss',
  ẞ: 'ss',
  æ: 'ae',
  œ: 'oe',
  ø: 'o',
  þ: 'th',
  ð: 'd',
  ł: 'l',
  đ: 'd',
};
const BY_LANGUAGE: Record<string, Record<string, string>> = { de: { ä: 'ae', ö: 'oe', ü: 'ue' } };

/** Reduces text to `[a-z0-9-]`: no hyphen at either end, none doubled; '' where nothing is left. */
export function slugText(text: string, language: string): string {
  return trimHyphens(slugRun(text, language));
}

/** As `slugText`, but hyphens at the ends stay: for a value that stands inside a segment. */
export function slugRun(text: string, language: string): string {
  if (/^[\u0000-\u007f]*$/.test(text)) return hyphened(text);
  const own = BY_LANGUAGE[language.split('-')[0]!.toLowerCase()] ?? {};
  let out = '';
  for (const c of text.normalize('NFC')) out += transliterate(c, own);
  return hyphened(out);
}

const hyphened = (text: string): string => text.toLowerCase().replace(/[^a-z0-9]+/g, '-');

/** Without hyphens at either end, and runs of them as one. */
export function trimHyphens(segment: string): string {
  return segment.replace(/-{2,}/g, '-').replace(/^-+|-+$/g, '');
}

function transliterate(c: string, own: Record<string, string>): string {
  if (c <= '\u007f') return c;
  const lower = c.toLowerCase();
  const known = own[lower] ?? EVERYWHERE[lower];
  if (known !== undefined) return known;
  const base = c.normalize('NFD').replace(/[\u0300-\u036f]/g, '');
  if (/^[\u0000-\u007f]*$/.test(base)) return base;
  return /^[\p{L}\p{N}\p{M}]/u.test(base) ? anyAscii(base.normalize('NFC')) : '-';
}
