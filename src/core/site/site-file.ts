import type { Validity } from '../time/interval.ts';
import { SITEMAP_LIMIT, robotsTxt, sitemapIndexXml, sitemapXml } from '../metadata/sitemap.ts';
import type { CompiledSite } from './compile.ts';
import { feedFile } from './feed-file.ts';
import { indexedPages } from './pages.ts';
import type { SiteReader } from './reader.ts';

/** Whether a path can be that of robots.txt, a sitemap or a part of one. */
export function isSiteFile(path: string): boolean {
  return path === '/robots.txt' || SITEMAP.test(path);
}

const SITEMAP = /^\/sitemap(?:-([1-9]\d{0,3}))?\.xml$/;

/** robots.txt, a sitemap or a feed; null where there is no such thing. */
export function siteFile(
  site: CompiledSite,
  reader: SiteReader,
  path: string,
  validity: Validity,
): { contentType: string; body: string } | null {
  const feed = feedFile(site, reader, path, validity);
  if (feed) return feed;
  const { url } = site.design.site;
  if (path === '/robots.txt')
    return { contentType: 'text/plain; charset=utf-8', body: robotsTxt(url) };
  const part = SITEMAP.exec(path)?.[1];
  const all = site.languages.map((one) => ({
    site: one,
    reader: one === site ? reader : reader.in(one),
  }));
  const count = all.reduce((sum, one) => sum + one.reader.livePageCount(validity), 0);
  const most = Math.ceil(count / SITEMAP_LIMIT) + 1;
  if (part !== undefined && Number(part) > most) return null; // told without gathering all pages
  const pages = all.flatMap((one) => indexedPages(one.site, one.reader, validity));
  const parts = Math.ceil(pages.length / SITEMAP_LIMIT);
  const xml = { contentType: 'application/xml; charset=utf-8' };
  if (part === undefined && parts > 1) return { ...xml, body: sitemapIndexXml(url, parts) };
  if (part !== undefined && (parts <= 1 || Number(part) < 1 || Number(part) > parts)) return null;
  const start = part === undefined ? 0 : (Number(part) - 1) * SITEMAP_LIMIT;
  return { ...xml, body: sitemapXml(url, pages.slice(start, start + SITEMAP_LIMIT)) };
}
