import { compareCodePoints } from '../text.ts';
import { Validity, type Instant } from '../time/interval.ts';
import { pagePath } from '../address/path.ts';
import type { CompiledSite } from './compile.ts';
import { entryMeta, frontMeta, listingMeta } from './meta.ts';
import { PageScope } from './page-scope.ts';
import type { SiteReader } from './reader.ts';

/** A page that answers 200 with HTML. */
export interface PageLine {
  path: string;
  kind: 'entry' | 'listing' | 'front';
  /** The page's `title` element. */
  title: string;
  type: string | null;
  entry: string | null;
  listing: string | null;
  /** Page number, for listings. */
  page: number | null;
  automatic: boolean;
  indexed: boolean;
  modified: Instant | null;
}

const BATCH = 500;

/** Every page of the site as of an instant, sorted by path. */
export function allPages(site: CompiledSite, reader: SiteReader, at: Instant, validity = new Validity(at)): PageLine[] {
  const pages = [...entryPages(site, reader, validity), ...listingPages(site, reader, validity)];
  if (!pages.some((p) => p.path === '/')) {
    const meta = frontMeta(site);
    pages.push({ path: '/', kind: 'front', title: meta.title, type: null, entry: null, listing: null, page: null, automatic: true, indexed: true, modified: null });
  }
  return pages.sort((a, b) => compareCodePoints(a.path, b.path));
}

function entryPages(site: CompiledSite, reader: SiteReader, validity: Validity): PageLine[] {
  const lines: PageLine[] = [];
  let after: string | null = null;
  for (;;) {
    const batch = reader.livePages(after, BATCH, validity);
    const scope = new PageScope(site, reader, validity);
    scope.entries(batch.map((p) => p.entry));
    for (const { path, entry: id } of batch) {
      const entry = scope.entry(id);
      if (!entry) continue;
      const seo = site.seo.types.get(entry.type.key)!;
      const meta = entryMeta(site, new PageScope(site, reader, validity).show(entry), entry);
      lines.push({
        path,
        kind: path === '/' ? 'front' : 'entry',
        title: meta.title,
        type: entry.type.key,
        entry: id,
        listing: null,
        page: null,
        automatic: site.templates.pages.get(entry.type.key)!.automatic,
        indexed: meta.index && seo.sitemap,
        modified: entry.updated,
      });
    }
    if (batch.length < BATCH) return lines;
    after = batch.at(-1)!.path;
  }
}

function listingPages(site: CompiledSite, reader: SiteReader, validity: Validity): PageLine[] {
  const front = site.design.site.front;
  return [...site.listings.values()].flatMap((plan) => {
    const { key, address, pageSize } = plan.listing;
    const isFront = front !== undefined && 'listing' in front && front.listing === key;
    const base = isFront ? '/' : address;
    if (base === undefined) return [];
    const { total } = reader.listing(plan, validity, 0, 1);
    const count = Math.max(1, Math.ceil(total / pageSize));
    const seo = site.seo.listings.get(key)!;
    return Array.from({ length: count }, (_, i): PageLine => {
      const shown = { key, entries: [], total, number: i + 1, count, address: base, empty: '', card: () => '', needs: [] };
      const scope = new PageScope(site, reader, validity).showListing(shown);
      const { title } = listingMeta(site, scope, shown, base);
      const path = pagePath(base, i + 1);
      return { path, kind: path === '/' ? 'front' : 'listing', title, type: plan.type.key, entry: null, listing: key, page: i + 1, automatic: false, indexed: seo.index && seo.sitemap, modified: null };
    });
  });
}
