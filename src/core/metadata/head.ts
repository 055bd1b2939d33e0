import { escapeHtml } from '../text.ts';

/** What a page tells search engines and share cards. Texts are plain; addresses are absolute. */
export interface PageMeta {
  title: string;
  description: string | null;
  canonical: string | null;
  index: boolean;
  follow: boolean;
  language: string;
  siteName: string;
  shareType: 'website' | 'article' | 'profile';
  picture: { url: string; alt: string; width: number; height: number } | null;
  /** Feeds of what the page lists; left out where there are none. */
  feeds?: { type: string; href: string }[];
  /** The page in each language that it is in, itself included; left out where that is one. */
  alternates?: { language: string; href: string }[];
}

/** The elements of a page's head that metadata makes (WHATWG HTML; ogp.me). */
export function headHtml(meta: PageMeta): string {
  let out = `<title>${escapeHtml(meta.title)}</title>`;
  if (meta.description !== null) out += tag('name', 'description', meta.description);
  if (meta.canonical !== null) out += `<link rel="canonical" href="${escapeHtml(meta.canonical)}">`;
  for (const { type, href } of meta.feeds ?? [])
    out += `<link rel="alternate" type="${type}" title="${escapeHtml(meta.title)}" href="${escapeHtml(href)}">`;
  for (const { language, href } of meta.alternates ?? [])
    out += `<link rel="alternate" hreflang="${escapeHtml(language)}" href="${escapeHtml(href)}">`;
  if (!meta.index || !meta.follow) out += tag('name', 'robots', robots(meta));
  out += tag('property', 'og:title', meta.title);
  if (meta.description !== null) out += tag('property', 'og:description', meta.description);
  out +=
    tag('property', 'og:type', meta.shareType) +
    tag('property', 'og:site_name', meta.siteName) +
    tag('property', 'og:locale', meta.language.replace('-', '_'));
  if (meta.canonical !== null) out += tag('property', 'og:url', meta.canonical);
  if (meta.picture) {
    const { url, alt, width, height } = meta.picture;
    out +=
      tag('property', 'og:image', url) +
      tag('property', 'og:image:width', String(width)) +
      tag('property', 'og:image:height', String(height));
    if (alt !== '') out += tag('property', 'og:image:alt', alt);
  }
  return out;
}

/** The robots directives: `noindex`, `nofollow`, both, or `all`. */
export function robots({ index, follow }: Pick<PageMeta, 'index' | 'follow'>): string {
  return [index ? '' : 'noindex', follow ? '' : 'nofollow'].filter(Boolean).join(', ') || 'all';
}

function tag(kind: 'name' | 'property', name: string, content: string): string {
  return `<meta ${kind}="${name}" content="${escapeHtml(content)}">`;
}
