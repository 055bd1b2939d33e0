import type { Looking, Seeing } from './clock.ts';
import { designSeen, readerSeeing } from './drafts.ts';
import type { SiteView } from './site-view.ts';
import { type Actor, SITE, permit } from '../permit.ts';
import type { LivePage, SiteReader } from '@/core/site/reader.ts';
import type { CompiledSite } from '@/core/site/compile.ts';
import { type PageLine, automaticFront, listingPages, pageLines } from '@/core/site/pages.ts';
import { trace } from '@/core/site/render.ts';
import type { TraceStep } from '@/core/site/resolve.ts';
import { compareCodePoints, searchKey } from '@/core/text.ts';
import { type Instant, Validity } from '@/core/time/interval.ts';
import { asOf } from '../store/as-of.ts';

/** A path that leads elsewhere, or is gone. */
export interface FormerLine {
  path: string;
  status: number;
  location: string | null;
}

/** Every path as of an instant, as far as a screen shows them. */
export interface AddressTable {
  pages: (PageLine & { shows: string })[];
  /** How many pages there are; all of them where nothing is searched for. */
  total: number;
  former: FormerLine[];
  formerTotal: number;
}

const SHOWN = 300;

/** Pages by path, and former addresses, that have the searched words in their path or name. */
export function addressTable(
  view: SiteView,
  actor: Actor,
  { at, seeing }: Pick<Looking, 'at' | 'seeing'>,
  search: string,
): AddressTable {
  permit(actor, 'read-unpublished', SITE);
  const found = designSeen(view, { at, seeing });
  if (!found) return { pages: [], total: 0, former: [], formerTotal: 0 };
  const { site } = found;
  const validity = new Validity(at);
  const reader = readerSeeing(view, { actor, at, seeing }, found);
  const { live, total } =
    reader === found.reader ? livePages(view, at, search) : pagesSeen(reader, validity, search);
  const allLists = listingPages(site, reader, validity);
  const lists = allLists.filter((p) => fits(`${p.path} ${p.title}`, search));
  const chosen =
    reader.holders('/', validity).current !== null || allLists.some((p) => p.path === '/');
  const automatic = chosen
    ? []
    : [automaticFront(site)].filter((p) => fits(`${p.path} ${p.title}`, search));
  const pages = [...automatic, ...pageLines(site, reader, validity, live), ...lists].sort((a, b) =>
    compareCodePoints(a.path, b.path),
  );
  const former = view.formerPaths(at, search, SHOWN);
  return {
    pages: pages.slice(0, SHOWN).map((page) => ({ ...page, shows: showsOf(site, page) })),
    total: total + lists.length + automatic.length,
    former: former.lines.map(({ path, page }) => ({
      path,
      status: page.status,
      location: page.headers.location ?? null,
    })),
    formerTotal: former.total,
  };
}

/** What a page is, in words: "Variety", "Listing for Beans, page 2". */
function showsOf(site: CompiledSite, { entry, type, listing, value, page }: PageLine): string {
  if (entry !== null) return site.typesByKey.get(type ?? '')?.label ?? '';
  if (listing === null) return 'Automatic list';
  const of = value === null ? 'Listing' : `Listing for ${value}`;
  return page !== null && page > 1 ? `${of}, page ${page}` : of;
}

function fits(text: string, search: string): boolean {
  return searchKey(text).includes(searchKey(search));
}

function livePages(
  view: SiteView,
  at: Instant,
  search: string,
): { live: LivePage[]; total: number } {
  const from = `FROM address AS a JOIN entry AS e ON e.id = a.entry JOIN live_interval AS l ON l.entry = a.entry AND ${asOf('l', '@at')}
    JOIN revision AS r ON r.entry = l.entry AND r.number = l.revision
    WHERE a.role = 'current' AND ${asOf('a', '@at')}${search === '' ? '' : ' AND instr(a.path || @space || r.search, @search) > 0'}`;
  const params = { at, search: searchKey(search), space: ' ' };
  const { driver } = view.connection;
  return {
    live: driver
      .prepare<unknown[], LivePage>(
        `SELECT a.path, a.entry, e.type, l.starts AS updated ${from} ORDER BY a.path LIMIT ${SHOWN}`,
      )
      .all(params),
    total: driver.prepare<unknown[], number>(`SELECT count(*) ${from}`).pluck().get(params)!,
  };
}

/** The pages that one sees who sees more than what is published. */
function pagesSeen(
  reader: SiteReader,
  validity: Validity,
  search: string,
): { live: LivePage[]; total: number } {
  const all = reader.livePages(null, Infinity, validity);
  const wanted =
    search === ''
      ? all
      : all.filter(({ path, entry }) => fits(`${path} ${reader.nameOf(entry) ?? ''}`, search));
  return { live: wanted.slice(0, SHOWN), total: wanted.length };
}

/** Where a path leads, step by step, and the page it shows. */
export interface TriedAddress {
  path: string;
  steps: TraceStep[];
  /** By what the page is drawn, in a sentence; null where that is nothing of the design. */
  drawn: string | null;
  /** Null where somebody else answers. */
  status: number | null;
  location: string | null;
  html: string | null;
}

/**
 * What trying an address gives as of an instant, given as a path or a whole URL; null while no
 * site is loaded.
 */
export function tryAddress(
  view: SiteView,
  actor: Actor,
  given: string,
  at: Instant,
  seeing: Seeing,
): TriedAddress | null {
  permit(actor, 'read-unpublished', SITE);
  const found = designSeen(view, { at, seeing });
  if (!found) return null;
  const { path, read, elsewhere } = readAddress(given, found.site.design.site.url);
  const before: TraceStep[] =
    read === null ? [] : [{ step: 'address', matched: false, words: read }];
  const answers = elsewhere ?? builderAnswers(path);
  if (answers !== null)
    return {
      path,
      steps: [...before, { step: 'reserved', matched: true, words: answers }],
      drawn: null,
      status: null,
      location: null,
      html: null,
    };
  const reader = readerSeeing(view, { actor, at, seeing }, found);
  const traced = trace(found.site, reader, { path, at });
  return {
    path,
    steps: [...before, ...traced.steps],
    drawn: traced.drawn,
    status: traced.page.status,
    location: traced.page.headers.location ?? null,
    html: traced.page.kind === 'file' ? null : traced.page.body,
  };
}

/**
 * The path that a text asks for: of a whole URL its path; queries and fragments decide nothing
 * here.
 */
function readAddress(
  given: string,
  siteUrl: string,
): { path: string; read: string | null; elsewhere: string | null } {
  const text = given.trim();
  const url = /^[a-z][a-z0-9+.-]*:\/\//i.test(text) && URL.canParse(text) ? new URL(text) : null;
  const asked = url ? url.pathname : text.startsWith('/') ? text : `/${text}`;
  const path = asked.split(/[?#]/, 1)[0]!;
  const own = url === null || url.host === new URL(siteUrl).host;
  const cut = url !== null || path !== asked;
  return {
    path,
    read: cut ? `Read as ${path}; what stands after “?” or “#” decides nothing.` : null,
    elsewhere: own ? null : `${url.host} is not this site, which is ${new URL(siteUrl).host}.`,
  };
}

/** Who answers a path that is not the public site's; null where the site does. */
function builderAnswers(path: string): string | null {
  if (/^\/(build|api|_next)(\/|$)/.test(path))
    return 'The builder answers here, to those who are signed in.';
  return /^\/(media|style)\/./.test(path)
    ? 'Pictures, fonts and style sheets are answered here.'
    : null;
}
