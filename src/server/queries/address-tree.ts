import type { Looking } from './clock.ts';
import { designSeen, readerSeeing } from './drafts.ts';
import type { SiteView } from './site-view.ts';
import { type Actor, SITE, permit } from '../permit.ts';
import { listingPaths } from '@/core/site/pages.ts';
import { compareCodePoints } from '@/core/text.ts';
import { Validity } from '@/core/time/interval.ts';
import { asOf } from '../store/as-of.ts';
import { tablesRead } from '../store/language-tables.ts';

/** What stands at a place in the tree of paths, and below it. */
export interface AddressNode {
  path: string;
  /** Its last segment. */
  segment: string;
  /** Whether a page stands there itself. */
  isPage: boolean;
  /** How many pages stand below it. */
  below: number;
}

/** The places just below one, the first of them by their segments. */
export interface AddressBranch {
  nodes: AddressNode[];
  /** How many there are. */
  total: number;
}

const SHOWN = 500;

/** The places just below a path, `''` for those at the top, with the pages of entries and lists. */
export function addressTree(
  view: SiteView,
  actor: Actor,
  { at, seeing }: Pick<Looking, 'at' | 'seeing'>,
  under: string,
): AddressBranch {
  permit(actor, 'read-unpublished', SITE);
  const found = designSeen(view, { at, seeing });
  if (!found) return { nodes: [], total: 0 };
  const reader = readerSeeing(view, { actor, at, seeing }, found);
  const validity = new Validity(at);
  const languages = found.site.languages.slice(1);
  const further = languages.flatMap((site) => listingPaths(site, reader.in(site), validity));
  const lists = [...listingPaths(found.site, reader, validity), ...further];
  const nodes = new Map<string, AddressNode>();
  const note = (segment: string, isPage: boolean, below: number): void => {
    const known = nodes.get(segment) ?? { path: `${under}/${segment}`, segment, isPage, below: 0 };
    const all = { isPage: known.isPage || isPage, below: known.below + below };
    nodes.set(segment, { ...known, ...all });
  };
  const noteAll = (paths: readonly string[]): void => {
    for (const path of paths) {
      if (!path.startsWith(`${under}/`) || path === '/') continue;
      const [segment, ...more] = path.slice(under.length + 1).split('/') as [string, ...string[]];
      note(segment, more.length === 0, more.length === 0 ? 0 : 1);
    }
  };
  noteAll(lists.map(({ path }) => path));
  const isAsIs = reader === found.reader;
  const ids = languages.map(({ design }) => design.edition!.id);
  for (const language of isAsIs ? [undefined, ...ids] : ids)
    for (const { segment, own, count } of storedBelow(view, under, at, language))
      note(segment, own === 1, count - own);
  if (!isAsIs) noteAll(reader.livePages(null, Infinity, validity).map(({ path }) => path));
  const all = [...nodes.values()].sort((a, b) => compareCodePoints(a.segment, b.segment));
  return { nodes: all.slice(0, SHOWN), total: all.length };
}

function storedBelow(
  view: SiteView,
  under: string,
  at: number,
  language: string | undefined,
): { segment: string; own: number; count: number }[] {
  const { address } = tablesRead(view.connection, language);
  const sql = `SELECT substr(rest, 1, instr(rest || '/', '/') - 1) AS segment,
      max(instr(rest, '/') = 0) AS own, count(*) AS count
    FROM (SELECT substr(path, length(@under) + 2) AS rest FROM ${address}
      WHERE role = 'current' AND ${asOf('', '@at')} AND path > @under || '/' AND path < @under || '0')
    GROUP BY 1`;
  return view.connection.driver
    .prepare<unknown[], { segment: string; own: number; count: number }>(sql)
    .all({ under, at });
}
