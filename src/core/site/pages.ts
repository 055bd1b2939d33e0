import { compareCodePoints } from '../text.ts';
import { Validity, type Instant } from '../time/interval.ts';
import { pagePath } from '../address/path.ts';
import { rootOf } from '../design/language-spec.ts';
import type { FanValue } from '../listing/fan-out.ts';
import type { ListingPlan } from '../listing/plan.ts';
import type { CompiledSite } from './compile.ts';
import { fanValues } from './fan-values.ts';
import { entryMeta, frontMeta, listingMeta } from './meta.ts';
import { PageScope } from './page-scope.ts';
import { totalOf } from './pinned.ts';
import { templatesOf } from './templates-of.ts';
import type { LivePage, SiteReader } from './reader.ts';
import type { CompiledSeo } from '../metadata/rules.ts';
import type { Presets } from '../design/presets.ts';
import type { SitemapPage } from '../metadata/sitemap.ts';

/** A page that answers 200 with HTML. */
export interface PageLine {
  path: string;
  kind: 'entry' | 'listing' | 'front';
  /** The page's `title` element. */
  title: string;
  type: string | null;
  entry: string | null;
  listing: string | null;
  /** What it is for, by name, where a listing has a page for each value. */
  value: string | null;
  /** Page number, for listings. */
  page: number | null;
  automatic: boolean;
}

const BATCH = 500;

/** Every page of the site as of an instant, sorted by path. */
export function allPages(site: CompiledSite, reader: SiteReader, at: Instant): PageLine[] {
  const validity = new Validity(at);
  const pages = [...entryPages(site, reader, validity), ...listingPages(site, reader, validity)];
  if (!pages.some((p) => p.path === rootOf(site.design))) pages.push(automaticFront(site));
  return pages.sort((a, b) => compareCodePoints(a.path, b.path));
}

/** What stands at "/" while nothing is chosen for it, or what is chosen is not live. */
export function automaticFront(site: CompiledSite): PageLine {
  return {
    path: rootOf(site.design),
    kind: 'front',
    title: frontMeta(site, null).title,
    type: null,
    entry: null,
    ...{ listing: null, value: null, page: null },
    automatic: true,
  };
}

/** The pages of entries as of an instant, in the order of their paths. */
function entryPages(site: CompiledSite, reader: SiteReader, validity: Validity): PageLine[] {
  return inBatches(reader, validity).flatMap((batch) => pageLines(site, reader, validity, batch));
}

function inBatches(reader: SiteReader, validity: Validity): LivePage[][] {
  const batches: LivePage[][] = [];
  let after: string | null = null;
  for (;;) {
    const batch = reader.livePages(after, BATCH, validity);
    batches.push(batch);
    if (batch.length < BATCH) return batches;
    after = batch.at(-1)!.path;
  }
}

/** Some pages of entries, with their titles. */
export function pageLines(
  site: CompiledSite,
  reader: SiteReader,
  validity: Validity,
  pages: readonly LivePage[],
): PageLine[] {
  const scope = new PageScope(site, reader, validity);
  scope.entries(pages.map((p) => p.entry));
  return pages.flatMap(({ path, entry: id }): PageLine[] => {
    const entry = scope.entry(id);
    if (!entry) return [];
    const { title } = entryMeta(site, new PageScope(site, reader, validity).show(entry), entry);
    return [
      {
        path,
        kind: path === rootOf(site.design) ? 'front' : 'entry',
        title,
        type: entry.type.key,
        entry: id,
        ...{ listing: null, value: null, page: null },
        automatic: templatesOf(site, entry).template.automatic,
      },
    ];
  });
}

/**
 * Every page that search engines may list, by path, with the instant of its last change where
 * known.
 */
export function indexedPages(
  site: CompiledSite,
  reader: SiteReader,
  validity: Validity,
): SitemapPage[] {
  const may = (seo: CompiledSeo | undefined, own: Presets = {}): boolean =>
    seo !== undefined && (own.index ?? seo.index) && (own.sitemap ?? seo.sitemap);
  const entries = inBatches(reader, validity)
    .flat()
    .filter(
      ({ type, presets, isFallback }) =>
        !isFallback && may(site.seo.types.get(site.types.get(type)?.key ?? ''), presets),
    );
  const listings = listingPages(site, reader, validity).filter(({ listing }) =>
    may(site.seo.listings.get(listing!)),
  );
  const pages: SitemapPage[] = [
    ...entries.map(({ path, updated }) => ({ path, modified: updated })),
    ...listings.map(({ path }) => ({ path, modified: null })),
  ];
  const root = rootOf(site.design);
  const automatic = site.frontListing === null && !reader.holders(root, validity).current;
  if (automatic) pages.push({ path: root, modified: null });
  return pages.sort((a, b) => compareCodePoints(a.path, b.path));
}

/** The pages of listings as of an instant. */
export function listingPages(
  site: CompiledSite,
  reader: SiteReader,
  validity: Validity,
): PageLine[] {
  const paths = listingPaths(site, reader, validity);
  return paths.map((path) => listingLine(site, reader, validity, path));
}

/** What is told of a page of a listing. */
export function listingLine(
  site: CompiledSite,
  reader: SiteReader,
  validity: Validity,
  { key, number, count, base, path, value }: ListingPath,
): PageLine {
  const shown = {
    key,
    entries: [],
    total: 0,
    query: '',
    number,
    count,
    address: base,
    value,
    empty: '',
    card: () => '',
    needs: [],
  };
  const scope = new PageScope(site, reader, validity).showListing(shown);
  return {
    path,
    kind: path === rootOf(site.design) ? 'front' : 'listing',
    title: listingMeta(site, scope, shown, base).title,
    type: site.listings.get(key)!.type.key,
    entry: null,
    listing: key,
    value: value?.name ?? null,
    page: number,
    automatic: false,
  };
}

/** A page of a listing: its number, of how many, where page 1 stands, and where it does. */
export interface ListingPath {
  key: string;
  number: number;
  count: number;
  base: string;
  path: string;
  /** What it is for, where the listing has a page for each value. */
  value: FanValue | null;
}

/** Where the pages of listings stand as of an instant. */
export function listingPaths(
  site: CompiledSite,
  reader: SiteReader,
  validity: Validity,
): ListingPath[] {
  const { language } = site.design.site;
  return [...site.listings.values()].flatMap((plan) => {
    const { key, address } = plan.listing;
    const base = key === site.frontListing ? rootOf(site.design) : address;
    if (base === undefined) return [];
    const total = totalOf(reader, plan, validity);
    const own = numbered(plan, base, plan.each?.hasIndex ? 1 : total, null);
    if (!plan.each) return own;
    const values = fanValues({ plan, reader, validity, language }).filter(
      // An entry that stands there is what is shown.
      ({ path }) => reader.holders(path, validity).current?.role !== 'current',
    );
    return [...own, ...values.flatMap((value) => numbered(plan, value.path, value.count, value))];
  });
}

/** The pages of so many entries, from where the first stands. */
function numbered(
  { listing: { key, pageSize } }: ListingPlan,
  base: string,
  total: number,
  value: FanValue | null,
): ListingPath[] {
  const count = Math.max(1, Math.ceil(total / pageSize));
  return Array.from({ length: count }, (_, i) => ({
    ...{ key, number: i + 1, count, base, value },
    path: pagePath(base, i + 1),
  }));
}
