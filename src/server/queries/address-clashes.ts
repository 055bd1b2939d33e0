import type { SiteView } from './site-view.ts';
import { type Actor, SITE, permit } from '../permit.ts';
import type { Instant } from '@/core/time/interval.ts';

/** Somebody who could not have an address: from some instant on, or has it numbered. */
export interface AddressClash {
  entry: string;
  name: string;
  /** When it comes to that, or came; ms UTC. */
  at: Instant;
  /** What it was to have. */
  base: string | null;
  /** What it has in its place; null where it has none. */
  path: string | null;
  /** What came of it, and what to do; '' where it was numbered. */
  words: string;
  fix: string;
}

/** Clashes over all of time, those ahead and the newest first. */
export interface AddressClashes {
  refused: AddressClash[];
  refusedTotal: number;
  numbered: AddressClash[];
  numberedTotal: number;
}

const SHOWN = 200;

/** Addresses that could not be had, at any instant, and those that were numbered. */
export function addressClashes(view: SiteView, actor: Actor): AddressClashes {
  permit(actor, 'read-unpublished', SITE);
  const all = (sql: string): AddressClash[] =>
    view.connection.driver.prepare<unknown[], AddressClash>(`${sql} LIMIT ${SHOWN}`).all();
  const count = (sql: string): number =>
    view.connection.driver
      .prepare<unknown[], number>(`SELECT count(*) FROM (${sql})`)
      .pluck()
      .get()!;
  const named = `JOIN entry AS e ON e.id = x.entry AND e.deleted IS NULL
    JOIN revision AS r ON r.entry = e.id AND r.number = e.newest`;
  const refused = `SELECT x.entry, r.name, x.at, x.base, x.message AS words, x.fix,
      (SELECT a.path FROM address AS a WHERE a.entry = x.entry AND a.role = 'current'
        AND a.starts <= x.at AND (a.ends IS NULL OR a.ends > x.at)) AS path
    FROM refusal AS x ${named} ORDER BY x.at DESC, x.entry`;
  const numbered = `SELECT x.entry, r.name, x.starts AS at, x.base, x.path, '' AS words, '' AS fix
    FROM address AS x ${named} WHERE x.role = 'current' AND x.path <> x.base
    ORDER BY x.starts DESC, x.path`;
  return {
    ...{ refused: all(refused), refusedTotal: count(refused) },
    ...{ numbered: all(numbered), numberedTotal: count(numbered) },
  };
}
