import { listingPages } from '../site/pages.ts';
import type { CompiledSite } from '../site/compile.ts';
import { type RenderedPage, render } from '../site/render.ts';
import type { SiteReader } from '../site/reader.ts';
import { PartsRead } from './parts-read.ts';
import { withWholeLists } from './whole-lists.ts';
import { type Instant, Validity } from '../time/interval.ts';

/** A site as it is, or as it would be. */
export interface Version {
  site: CompiledSite;
  reader: SiteReader;
}

/** What becomes of a page. */
export type PageChange = 'appears' | 'vanishes' | 'moves' | 'differs';

/** A page that is there before or after, or both, at other addresses or otherwise. */
export interface ChangedPage {
  change: PageChange;
  /** Where it stands before and after; null where it does not. */
  from: string | null;
  to: string | null;
  /** Titles before and after; '' where it is not there. */
  titles: [string, string];
  /** HTML before and after; null where it is not there. */
  html: [string | null, string | null];
}

/** A listing that has other entries, or the same in another order. */
export interface ChangedListing {
  label: string;
  /** How many entries it has before and after; null where there is no such listing. */
  totals: [number | null, number | null];
}

/** What is found so far of what a change does to a site. */
export interface Found {
  /** How many pages were looked at, of how many. */
  looked: number;
  of: number;
  page?: ChangedPage;
  listing?: ChangedListing;
}

/** One page before and after: an entry's, one of a listing, or what stands at a fixed path. */
interface Candidate {
  from: string | null;
  to: string | null;
  /** What such a page reads of a design. */
  reads: (parts: PartsRead) => string;
}

/**
 * Compares a site before and after a change as of an instant, page by page: what it finds is the
 * difference of two full renders. It yields after every page, so that it can be stopped. `more`
 * are entries that may have a page only afterwards; where there are none, the content is the same,
 * and pages that read the same of both designs are not made.
 */
export function* reachOf(
  before: Version,
  after: Version,
  at: Instant,
  more: readonly string[] = [],
): Generator<Found> {
  const candidates = [...candidatesOf(before, after, at, more)];
  const of = candidates.length;
  for (const listing of listingsOf(before, after, at)) yield { looked: 0, of, listing };
  const same = more.length === 0 ? sameReads(before, after) : () => false;
  const [was, is] = [before, after].map(({ site, reader }) => ({
    site,
    reader: withWholeLists(reader),
  })) as [Version, Version];
  let looked = 0;
  for (const candidate of candidates) {
    looked += 1;
    const page = same(candidate) ? null : compared(was, is, candidate, at);
    yield { looked, of, ...(page ? { page } : {}) };
  }
}

/** Whether a page stands where it stood, and reads the same of both designs. */
function sameReads(before: Version, after: Version): (candidate: Candidate) => boolean {
  const [was, is] = [before, after].map(({ site }) => new PartsRead(site.design));
  return ({ from, to, reads }) => from === to && reads(was!) === reads(is!);
}

function* candidatesOf(
  before: Version,
  after: Version,
  at: Instant,
  more: readonly string[],
): Generator<Candidate> {
  const validity = new Validity(at);
  const ids = new Set([...entriesOf(before, validity), ...more]);
  const [was, is] = [before, after].map(({ reader }) => pathsOf(reader, ids, validity));
  for (const id of ids) {
    const [from, to] = [was!.get(id) ?? null, is!.get(id) ?? null];
    if (from === null && to === null) continue;
    const type = after.reader.typeOf(id) ?? '';
    yield { from, to, reads: (parts) => parts.ofEntries(type) };
  }
  const lists = [before, after].map(({ site, reader }) => listPaths(site, reader, validity));
  for (const name of new Set(lists.flatMap((l) => [...l.keys()])))
    yield {
      from: lists[0]!.get(name) ?? null,
      to: lists[1]!.get(name) ?? null,
      reads: (parts) => parts.ofListing(name.split(' ')[0]!),
    };
  // What stands where no entry and no listing does: redirects by hand, and "/" by itself.
  const [standing, stands] = [was!, is!].map(
    (paths, i) => new Set([...paths.values(), ...lists[i]!.values()]),
  );
  const fixed = [before, after].flatMap(({ site }) => ['/', ...site.redirects.keys()]);
  for (const path of new Set(fixed))
    yield {
      from: standing!.has(path) ? null : path,
      to: stands!.has(path) ? null : path,
      reads: (parts) => parts.ofRest(),
    };
}

const BATCH = 1000;

/** Ids of the entries that have a live page. */
function* entriesOf({ reader }: Version, validity: Validity): Generator<string> {
  for (let after: string | null = null; ;) {
    const batch = reader.livePages(after, BATCH, validity);
    for (const { entry } of batch) yield entry;
    if (batch.length < BATCH) return;
    after = batch.at(-1)!.path;
  }
}

function pathsOf(
  reader: SiteReader,
  ids: ReadonlySet<string>,
  validity: Validity,
): Map<string, string> {
  const all = [...ids];
  const paths = new Map<string, string>();
  for (let i = 0; i < all.length; i += BATCH)
    for (const [id, { path }] of reader.liveEntries(all.slice(i, i + BATCH), validity))
      if (path !== null) paths.set(id, path);
  return paths;
}

function listPaths(
  site: CompiledSite,
  reader: SiteReader,
  validity: Validity,
): Map<string, string> {
  const ids = new Map([...site.listings.values()].map(({ listing }) => [listing.key, listing.id]));
  return new Map(
    listingPages(site, reader, validity).map(({ listing, page, path }) => [
      `${ids.get(listing!)} ${page}`,
      path,
    ]),
  );
}

function compared(
  before: Version,
  after: Version,
  { from, to }: Candidate,
  at: Instant,
): ChangedPage | null {
  const was = from === null ? null : pageAt(before, from, at);
  const is = to === null ? null : pageAt(after, to, at);
  const change = changeOf(was, is, from !== to);
  if (change === null) return null;
  return {
    change,
    from: was && from,
    to: is && to,
    titles: [titleOf(was), titleOf(is)],
    html: [was?.body ?? null, is?.body ?? null],
  };
}

function changeOf(
  was: RenderedPage | null,
  is: RenderedPage | null,
  moves: boolean,
): PageChange | null {
  if (!was || !is) return was ? 'vanishes' : is ? 'appears' : null;
  if (moves) return 'moves';
  const same = was.body === is.body && was.headers.location === is.headers.location;
  return same ? null : 'differs';
}

/** What stands at a path: a page, or that it leads on; null where there is nothing. */
function pageAt({ site, reader }: Version, path: string, at: Instant): RenderedPage | null {
  const page = render(site, reader, { path, at });
  const isThere = page.status === 200 || (page.status >= 300 && page.status < 400);
  return isThere ? page : null;
}

function titleOf(page: RenderedPage | null): string {
  return page?.meta?.title ?? '';
}

/** So many entries of a listing are compared; above them its first ones and their number. */
const COMPARED = 2000;

function* listingsOf(before: Version, after: Version, at: Instant): Generator<ChangedListing> {
  const [was, is] = [before, after].map((version) => membersOf(version, at));
  for (const id of new Set([...was!.keys(), ...is!.keys()])) {
    const [a, b] = [was!.get(id), is!.get(id)];
    if (a && b && a.total === b.total && a.ids === b.ids) continue;
    yield { label: (b ?? a)!.label, totals: [a?.total ?? null, b?.total ?? null] };
  }
}

function membersOf(
  { site, reader }: Version,
  at: Instant,
): Map<string, { label: string; ids: string; total: number }> {
  return new Map(
    [...site.listings.values()].map((plan) => {
      const { ids, total } = reader.listing(plan, new Validity(at), 0, COMPARED);
      return [plan.listing.id, { label: plan.listing.label, ids: ids.join('\n'), total }];
    }),
  );
}
