import type { Instant } from '@/core/time/interval.ts';
import { type Actor, permit } from '../permit.ts';
import { statement } from '../store/statement.ts';
import type { SiteView } from './site-view.ts';

/** An entry that is not there any more: deleted, or purged as well. */
export interface GoneEntry {
  id: string;
  /** Null where nothing is left of it. */
  name: string | null;
  /** Label of its type; null where that is gone, too. */
  type: string | null;
  deleted: Instant;
  purged: Instant | null;
  /** The last instant at which it was there, ms UTC. */
  last: Instant;
}

/** What is lost for good with an entry. */
export interface Loss {
  name: string;
  versions: number;
  /** Stretches of time in which it was public, and since when. */
  live: number;
  since: Instant | null;
  /** The paths that it held, which answer 410 at any instant from then on. */
  paths: string[];
  pathsTotal: number;
  /** Entries whose newest versions refer to it. */
  referring: string[];
  referringTotal: number;
  /** Media that no other entry shows; they stay. */
  media: string[];
  mediaTotal: number;
}

const SHOWN = 5;

/** An entry that was deleted by an instant; null where it is there, or never was. */
export function goneEntry(view: SiteView, actor: Actor, id: string, at: Instant): GoneEntry | null {
  permit(actor, 'read-unpublished', { of: 'entry', id });
  const row = statement<Omit<GoneEntry, 'last'>>(
    view.connection,
    `SELECT e.id, e.type, e.deleted, e.purged,
       (SELECT name FROM revision WHERE entry = e.id AND number = e.newest) AS name
     FROM entry AS e WHERE e.id = ? AND e.deleted <= ?`,
  ).get(id, at);
  if (!row) return null;
  const type = view.at(at)?.site.types.get(row.type ?? '')?.label ?? null;
  return { ...row, type, last: row.deleted - 1 };
}

/** What would be lost by purging an entry; null where nothing of it is left. */
export function purgeLoss(view: SiteView, actor: Actor, id: string): Loss | null {
  permit(actor, 'read-unpublished', { of: 'entry', id });
  const { connection } = view;
  const one = <T>(sql: string): T | null | undefined =>
    statement<T>(connection, sql).pluck().get({ id });
  const name = one<string>(
    'SELECT name FROM revision WHERE entry = @id ORDER BY number DESC LIMIT 1',
  );
  if (name === undefined || name === null) return null;
  const count = (sql: string): number => one<number>(`SELECT count(*) ${sql}`)!;
  const names = (sql: string): string[] =>
    statement<string>(connection, `${sql} LIMIT ${SHOWN}`).pluck().all({ id });
  return {
    name,
    versions: count('FROM revision WHERE entry = @id'),
    live: count('FROM live_interval WHERE entry = @id'),
    since: one<Instant | null>('SELECT min(starts) FROM live_interval WHERE entry = @id') ?? null,
    paths: names(`SELECT path ${PATHS} ORDER BY path`),
    pathsTotal: count(PATHS),
    referring: names(`SELECT r.name ${REFERRING} ORDER BY r.name`),
    referringTotal: count(REFERRING),
    media: names(`SELECT id ${ONLY_HERE} ORDER BY id`),
    mediaTotal: count(ONLY_HERE),
  };
}

const PATHS = 'FROM (SELECT DISTINCT path FROM address WHERE entry = @id)';
const REFERRING = `FROM entry AS e JOIN revision AS r ON r.entry = e.id AND r.number = e.newest
  WHERE e.deleted IS NULL AND e.id <> @id AND e.id IN (SELECT g.entry FROM reference_edge AS g
    WHERE g.target = @id AND g.revision = e.newest)`;
const ONLY_HERE = `FROM (SELECT DISTINCT substr(g.target, 2) AS id FROM reference_edge AS g
  WHERE g.entry = @id AND g.target GLOB '/*' AND NOT EXISTS (SELECT 1 FROM reference_edge AS o
    WHERE o.target = g.target AND o.entry <> g.entry))`;
