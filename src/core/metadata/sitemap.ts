import { escapeHtml } from '../text.ts';
import type { Instant } from '../time/interval.ts';

/** A page for search engines to visit; `modified` in ms UTC. */
export interface SitemapPage {
  path: string;
  modified: Instant | null;
}

/** The most pages one sitemap may name (sitemaps.org). */
export const SITEMAP_LIMIT = 50_000;

/** A sitemap (sitemaps.org protocol 0.9). */
export function sitemapXml(siteUrl: string, pages: readonly SitemapPage[]): string {
  const urls = pages.map(({ path, modified }) => {
    const last = modified === null ? '' : `<lastmod>${new Date(modified).toISOString()}</lastmod>`;
    return `<url><loc>${escapeHtml(siteUrl + path)}</loc>${last}</url>`;
  });
  return `<?xml version="1.0" encoding="UTF-8"?>\n<urlset xmlns="http://www.sitemaps.org/schemas/sitemap/0.9">\n${urls.join('\n')}\n</urlset>\n`;
}

/** The index over several sitemaps. */
export function sitemapIndexXml(siteUrl: string, count: number): string {
  const maps = Array.from(
    { length: count },
    (_, i) => `<sitemap><loc>${escapeHtml(siteUrl)}/sitemap-${i + 1}.xml</loc></sitemap>`,
  );
  return `<?xml version="1.0" encoding="UTF-8"?>\n<sitemapindex xmlns="http://www.sitemaps.org/schemas/sitemap/0.9">\n${maps.join('\n')}\n</sitemapindex>\n`;
}

/** robots.txt (RFC 9309): everything but the builder may be visited. */
export function robotsTxt(siteUrl: string): string {
  return `User-agent: *\nDisallow: /build\nDisallow: /api\n\nSitemap: ${siteUrl}/sitemap.xml\n`;
}
