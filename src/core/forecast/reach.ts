import { listingPages } from '../site/pages.ts';
import type { CompiledSite } from '../site/compile.ts';
import { type RenderedPage, render } from '../site/render.ts';
import { resolvePath } from '../site/resolve.ts';
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
}

/** A changed page as it looks. */
export interface PageShown extends ChangedPage {
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
  page?: ChangedPage & { show: () => PageShown };
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
  const of = countOf(before, after, at);
  for (const listing of listingsOf(before, after, at)) yield { looked: 0, of, listing };
  const same = more.length === 0 ? sameReads(before, after) : () => false;
  const [was, is] = [before, after].map(({ site, reader }) => ({
    site,
    reader: withWholeLists(reader),
  })) as [Version, Version];
  let looked = 0;
  for (const candidate of candidatesOf(before, after, at, more)) {
    looked += 1;
    const page = same(candidate) ? null : compared(was, is, candidate, at);
    yield { looked, of: Math.max(of, looked), ...(page ? { page } : {}) };
  }
}

/** Whether a page stands where it stood, and reads the same of both designs. */
function sameReads(before: Version, after: Version): (candidate: Candidate) => boolean {
  const [was, is] = [before, after].map(({ site }) => new PartsRead(site.design));
  return ({ from, to, reads }) => from === to && reads(was!) === reads(is!);
}

/** About how many pages there are to be looked at. */
function countOf(before: Version, after: Version, at: Instant): number {
  const counts = [before, after].map(({ site, reader }) => {
    const validity = new Validity(at);
    return reader.livePageCount(validity) + listPaths(site, reader, validity).size;
  });
  return Math.max(...counts);
}

function* candidatesOf(
  before: Version,
  after: Version,
  at: Instant,
  more: readonly string[],
): Generator<Candidate> {
  const validity = new Validity(at);
  const standing: [Set<string>, Set<string>] = [new Set(), new Set()];
  const note = (candidate: Candidate): Candidate => {
    const { from, to } = candidate;
    [from, to].forEach((path, i) => path !== null && standing[i]!.add(path));
    return candidate;
  };
  for (const ids of batchesOf(before, more, validity)) {
    const [was, is] = [before, after].map(({ reader }) => reader.liveEntries(ids, validity));
    for (const id of ids) {
      const [from, to] = [was!.get(id)?.path ?? null, is!.get(id)?.path ?? null];
      if (from === null && to === null) continue;
      const type = after.reader.typeOf(id) ?? '';
      yield note({ from, to, reads: (parts) => parts.ofEntries(type) });
    }
  }
  const lists = [before, after].map(({ site, reader }) => listPaths(site, reader, validity));
  for (const name of new Set(lists.flatMap((l) => [...l.keys()])))
    yield note({
      from: lists[0]!.get(name) ?? null,
      to: lists[1]!.get(name) ?? null,
      reads: (parts) => parts.ofListing(name.split(' ')[0]!),
    });
  // What stands where no entry and no listing does: redirects by hand, and "/" by itself.
  const fixed = [before, after].flatMap(({ site }) => ['/', ...site.redirects.keys()]);
  for (const path of new Set(fixed))
    yield {
      from: standing[0].has(path) ? null : path,
      to: standing[1].has(path) ? null : path,
      reads: (parts) => parts.ofRest(),
    };
}

const BATCH = 500;

/** Ids of the entries that have a live page, then of those that may have one only afterwards. */
function* batchesOf(
  { reader }: Version,
  more: readonly string[],
  validity: Validity,
): Generator<string[]> {
  const rest = new Set(more);
  for (let after: string | null = null; ;) {
    const batch = reader.livePages(after, BATCH, validity);
    for (const { entry } of batch) rest.delete(entry);
    yield batch.map(({ entry }) => entry);
    if (batch.length < BATCH) break;
    after = batch.at(-1)!.path;
  }
  const all = [...rest];
  for (let i = 0; i < all.length; i += BATCH) yield all.slice(i, i + BATCH);
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
): Found['page'] | null {
  const moves = from !== null && to !== null && from !== to;
  // Where a page moves it is enough that it is there: it is made where somebody looks.
  if (moves && isThere(before, from, at) && isThere(after, to, at)) {
    const show = (): PageShown =>
      shown('moves', [from, to], [pageAt(before, from, at), pageAt(after, to, at)]);
    return { change: 'moves', from, to, show };
  }
  const was = from === null ? null : pageAt(before, from, at);
  const is = to === null ? null : pageAt(after, to, at);
  const change = changeOf(was, is);
  const page = change && shown(change, [from, to], [was, is]);
  return page && { change: page.change, from: page.from, to: page.to, show: () => page };
}

function shown(
  change: PageChange,
  [from, to]: [string | null, string | null],
  [was, is]: [RenderedPage | null, RenderedPage | null],
): PageShown {
  return {
    change,
    from: was && from,
    to: is && to,
    titles: [titleOf(was), titleOf(is)],
    html: [was?.body ?? null, is?.body ?? null],
  };
}

function changeOf(was: RenderedPage | null, is: RenderedPage | null): PageChange | null {
  if (!was || !is) return was ? 'vanishes' : is ? 'appears' : null;
  const same = was.body === is.body && was.headers.location === is.headers.location;
  return same ? null : 'differs';
}

/** Whether something stands at a path: a page, or that it leads on. */
function isThere({ site, reader }: Version, path: string, at: Instant): boolean {
  const { kind } = resolvePath(site, reader, path, new Validity(at));
  return kind !== 'missing' && kind !== 'gone' && kind !== 'bad';
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
