import type { Seeing } from './clock.ts';
import { designSeen, readerSeeing } from './drafts.ts';
import { type NearPath, NearPaths } from './near-paths.ts';
import { type SiteView, inLanguageOf, requestOf } from './site-view.ts';
import { type Actor, SITE, permit } from '../permit.ts';
import { trace } from '@/core/site/render.ts';
import type { TraceStep } from '@/core/site/resolve.ts';
import type { Instant } from '@/core/time/interval.ts';
import { asOf } from '../store/as-of.ts';

/** An entry that links lead from or to. */
export interface LinkedEntry {
  id: string;
  name: string;
  /** Null while it has no page. */
  path: string | null;
}

/** The live entries that lead to one, and those that it leads to; the first of them by name. */
export interface AddressLinks {
  here: LinkedEntry[];
  hereTotal: number;
  out: LinkedEntry[];
  outTotal: number;
}

/** Where a path leads, step by step, and the page it shows. */
export interface TriedAddress {
  path: string;
  /** The same with the parameters that stand behind it. */
  asked: string;
  steps: TraceStep[];
  /** By what the page is drawn, in a sentence; null where that is nothing of the design. */
  drawn: string | null;
  /** Null where somebody else answers. */
  status: number | null;
  location: string | null;
  html: string | null;
  /** Addresses that may have been meant, where nothing is. */
  near: NearPath[];
  /** Of an entry's page. */
  links: AddressLinks | null;
}

const NOT_OURS = {
  ...{ drawn: null, location: null, html: null, links: null },
  near: [] as NearPath[],
};

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
  const { asked, read, elsewhere, method } = readAddress(given, found.site.design.site.url);
  const request = requestOf(asked, at);
  const { path } = request;
  const before: TraceStep[] =
    read === null ? [] : [{ step: 'address', matched: false, words: read }];
  const answers = elsewhere ?? builderAnswers(path);
  if (answers !== null)
    return {
      ...{ ...NOT_OURS, path, asked, status: null },
      steps: [...before, { step: 'reserved', matched: true, words: answers }],
    };
  if (method !== 'GET' && method !== 'HEAD') {
    const words = `Public pages answer GET and HEAD only: ${method} is refused (405).`;
    const step: TraceStep = { step: 'method', matched: true, words };
    return { ...NOT_OURS, path, asked, status: 405, steps: [...before, step] };
  }
  const { site, reader: plain } = inLanguageOf(found, path);
  const reader = readerSeeing(view, { actor, at, seeing }, { site, reader: plain });
  const traced = trace(site, reader, request);
  return {
    ...{ path, asked },
    steps: [...before, ...traced.steps],
    drawn: traced.drawn,
    status: traced.page.status,
    location: traced.page.headers.location ?? null,
    html: traced.page.kind === 'file' || method === 'HEAD' ? null : traced.page.body,
    near: isLost(traced.page.status) ? new NearPaths(view, { site, reader }, at).to(path) : [],
    links: traced.page.entry ? linksOf(view, traced.page.entry, at) : null,
  };
}

function isLost(status: number): boolean {
  return status === 404 || status === 410;
}

const LINKS_SHOWN = 50;

function linksOf(view: SiteView, entry: string, at: Instant): AddressLinks {
  const { driver } = view.connection;
  const live = `JOIN live_interval AS l ON l.entry = g.entry AND l.revision = g.revision AND ${asOf('l', '@at')}`;
  const ways = {
    here: `SELECT DISTINCT g.entry AS id FROM reference_edge AS g ${live} WHERE g.target = @entry`,
    out: `SELECT DISTINCT g.target AS id FROM reference_edge AS g ${live} WHERE g.entry = @entry
      AND EXISTS (SELECT 1 FROM entry AS e WHERE e.id = g.target)`,
  };
  const named = (way: string): LinkedEntry[] =>
    driver
      .prepare<unknown[], LinkedEntry>(
        `SELECT w.id, r.name, (SELECT a.path FROM address AS a WHERE a.entry = w.id
            AND a.role = 'current' AND ${asOf('a', '@at')}) AS path
          FROM (${way}) AS w JOIN entry AS e ON e.id = w.id
          JOIN revision AS r ON r.entry = e.id AND r.number = e.newest
          ORDER BY r.name, w.id LIMIT ${LINKS_SHOWN}`,
      )
      .all({ at, entry });
  const total = (way: string): number =>
    driver.prepare<unknown[], number>(`SELECT count(*) FROM (${way})`).pluck().get({ at, entry })!;
  return {
    ...{ here: named(ways.here), hereTotal: total(ways.here) },
    ...{ out: named(ways.out), outTotal: total(ways.out) },
  };
}

const METHOD = /^(GET|HEAD|POST|PUT|PATCH|DELETE|OPTIONS)\s+/i;

/** The path that a text asks for, with its parameters: of a whole URL those, without a fragment. */
function readAddress(
  given: string,
  siteUrl: string,
): { asked: string; read: string | null; elsewhere: string | null; method: string } {
  const method = (METHOD.exec(given.trim())?.[1] ?? 'GET').toUpperCase();
  const text = given.trim().replace(METHOD, '');
  const url = /^[a-z][a-z0-9+.-]*:\/\//i.test(text) && URL.canParse(text) ? new URL(text) : null;
  const whole = url
    ? `${url.pathname}${url.search}${url.hash}`
    : text.startsWith('/')
      ? text
      : `/${text}`;
  const asked = whole.split('#', 1)[0]!;
  const own = url === null || url.host === new URL(siteUrl).host;
  const isCut = asked !== whole;
  const cut = isCut ? ': what stands behind “#” is not asked for' : '';
  return {
    asked,
    method,
    read: isCut || url ? `Read as ${asked}${cut}.` : null,
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
