import { rootOf } from '../design/language-spec.ts';
import { siteAtPath } from '../site/languages.ts';
import { listingPaths } from '../site/pages.ts';
import type { CompiledSite } from '../site/compile.ts';
import { type RenderedPage, render } from '../site/render.ts';
import { resolvePath } from '../site/resolve.ts';
import type { SiteReader } from '../site/reader.ts';
import { PartsRead } from './parts-read.ts';
import { withFirstEntries, withWholeLists } from './list-readers.ts';
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
  /** Whether it is a page of a listing. */
  isList?: true;
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
  const lists = [before, after].map((version) => listPaths(version, at)) as ListPaths;
  const entries = Math.max(before.reader.livePageCount(new Validity(at)), more.length);
  const of = entries + Math.max(...lists.map(({ size }) => size));
  for (const listing of listingsOf(before, after, at)) yield { looked: 0, of, listing };
  const same = more.length === 0 ? sameReads(before, after) : () => false;
  const [was, is] = [before, after].map(({ site, reader }) => ({
    site,
    reader: withWholeLists(reader),
  })) as [Version, Version];
  let looked = 0;
  for (const candidate of candidatesOf(before, after, { at, more, lists })) {
    looked += 1;
    const page = same(candidate) ? null : compared(was, is, candidate, at);
    yield { looked, of: Math.max(of, looked), ...(page ? { page } : {}) };
  }
}

/** Whether a page stands where it stood, and reads the same of both designs. */
function sameReads(before: Version, after: Version): (candidate: Candidate) => boolean {
  const [was, is] = [before, after].map(({ site }) =>
    site.languages.map(({ design }) => new PartsRead(design)),
  );
  // A page leads to the same in other languages.
  const isSame = (reads: Candidate['reads']): boolean =>
    was!.length === is!.length && was!.every((parts, i) => reads(parts) === reads(is![i]!));
  return ({ from, to, reads }) => from === to && isSame(reads);
}

function* candidatesOf(
  before: Version,
  after: Version,
  { at, more, lists }: { at: Instant; more: readonly string[]; lists: ListPaths },
): Generator<Candidate> {
  const validity = new Validity(at);
  const standing: [Set<string>, Set<string>] = [new Set(), new Set()];
  const note = (candidate: Candidate): Candidate => {
    const { from, to } = candidate;
    [from, to].forEach((path, i) => path !== null && standing[i]!.add(path));
    return candidate;
  };
  for (const { id, from, type } of entriesOf(before, more, validity)) {
    const to = after.reader.currentPath(id, validity);
    if (from === null && to === null) continue;
    const reads = (parts: PartsRead): string =>
      parts.ofEntries(type ?? after.reader.typeOf(id) ?? '');
    yield note({ from, to, reads });
  }
  for (const name of new Set(lists.flatMap((l) => [...l.keys()])))
    yield note({
      from: lists[0]!.get(name) ?? null,
      to: lists[1]!.get(name) ?? null,
      isList: true,
      reads: (parts) => parts.ofListing(name.split(' ')[0]!),
    });
  // What stands where no entry and no listing does: redirects by hand, and the front by itself.
  const fixed = [before, after].map(({ site }) => new Set(fixedIn(site)));
  for (const path of new Set(fixed.flatMap((paths) => [...paths])))
    yield {
      from: standing[0].has(path) || !fixed[0]!.has(path) ? null : path,
      to: standing[1].has(path) || !fixed[1]!.has(path) ? null : path,
      reads: (parts) => parts.ofRest(),
    };
}

/** Paths that stand for themselves in the language of a site. */
function fixedIn(site: CompiledSite): string[] {
  const own = site.languages.find(({ design }) => !design.edition) ?? site;
  const redirects = [...site.redirects.keys()].filter((path) => siteAtPath(own, path) === site);
  return [rootOf(site.design), ...redirects];
}

/**
 * The pages of a language that a site comes to be in, or ceases to be, one by one: all of them
 * appear, or vanish.
 */
export function* wholeLanguage(
  version: Version,
  change: 'appears' | 'vanishes',
  at: Instant,
): Generator<Found> {
  const validity = new Validity(at);
  const lists = listPaths(version, at);
  const of = version.reader.livePageCount(validity) + lists.size + 1;
  const paths = new Set<string>();
  for (const { from } of entriesOf(version, [], validity)) if (from !== null) paths.add(from);
  for (const path of [...lists.values(), ...fixedIn(version.site)]) paths.add(path);
  let looked = 0;
  for (const path of paths) {
    looked += 1;
    const found = pageAt(version, path, at);
    const ways: [string | null, string | null] = change === 'appears' ? [null, path] : [path, null];
    const pages = change === 'appears' ? ([null, found] as const) : ([found, null] as const);
    const show = (): PageShown => shown(change, ways, [...pages]);
    const page = found ? { page: { change, from: ways[0], to: ways[1], show } } : {};
    yield { looked, of: Math.max(of, looked), ...page };
  }
}

const BATCH = 500;

/** An entry, where its page stands, and its type where that is known by then. */
interface EntryAt {
  id: string;
  from: string | null;
  type?: string;
}

/** The entries that have a live page, then those that may have one only afterwards. */
function* entriesOf(
  { reader }: Version,
  more: readonly string[],
  validity: Validity,
): Generator<EntryAt> {
  const rest = new Set(more);
  for (let after: string | null = null; ;) {
    const batch = reader.livePages(after, BATCH, validity);
    for (const { entry, path, type } of batch) {
      rest.delete(entry);
      yield { id: entry, from: path, type };
    }
    if (batch.length < BATCH) break;
    after = batch.at(-1)!.path;
  }
  for (const id of rest) yield { id, from: null };
}

/** Where the pages of listings stand before and after, by listing id, value and number. */
type ListPaths = [Map<string, string>, Map<string, string>];

function listPaths({ site, reader }: Version, at: Instant): Map<string, string> {
  const ids = new Map([...site.listings.values()].map(({ listing }) => [listing.key, listing.id]));
  return new Map(
    listingPaths(site, reader, new Validity(at)).map(({ key, number, path, value }) => [
      `${ids.get(key)} ${value?.key ?? ''} ${number}`,
      path,
    ]),
  );
}

function compared(
  before: Version,
  after: Version,
  { from, to, isList }: Candidate,
  at: Instant,
): Found['page'] | null {
  // Where a page moves, or its first card differs, it is made where somebody looks.
  const change = from !== null && to !== null && soonSeen(before, after, { from, to, isList }, at);
  if (change) {
    const show = (): PageShown =>
      shown(change, [from, to], [pageAt(before, from, at), pageAt(after, to, at)]);
    return { change, from, to, show };
  }
  const was = from === null ? null : pageAt(before, from, at);
  const is = to === null ? null : pageAt(after, to, at);
  const becomes = changeOf(was, is);
  const page = becomes && shown(becomes, [from, to], [was, is]);
  return page && { change: page.change, from: page.from, to: page.to, show: () => page };
}

/** What certainly becomes of a page that stands before and after, without making it whole. */
function soonSeen(
  before: Version,
  after: Version,
  { from, to, isList }: { from: string; to: string; isList: true | undefined },
  at: Instant,
): 'moves' | 'differs' | null {
  if (from !== to) return isThere(before, from, at) && isThere(after, to, at) ? 'moves' : null;
  if (!isList) return null;
  const [was, is] = [before, after].map(({ site, reader }) =>
    pageAt({ site, reader: withFirstEntries(reader) }, from, at),
  );
  return changeOf(was!, is!) === 'differs' ? 'differs' : null;
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
