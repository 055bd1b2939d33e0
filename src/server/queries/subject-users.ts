import type { Instant } from '@/core/time/interval.ts';
import { asOf } from '../store/as-of.ts';
import { statement } from '../store/statement.ts';
import { subjectTarget } from '../store/subject-edges.ts';
import { SubjectStore } from '../store/subject-store.ts';
import type { SiteView } from './site-view.ts';

/** The entries that have a subject, in what was saved of them last. */
export interface SubjectUsers {
  total: number;
  /** The first of them, by name. */
  entries: { id: string; name: string; live: boolean }[];
}

const SHOWN = 50;

/** Who has a subject of a set, by its id, what was merged into it included. */
export function usersOf(
  { connection }: SiteView,
  set: string,
  key: string,
  at: Instant,
): SubjectUsers {
  const now = new SubjectStore(connection).history(set).at(at);
  const own = now.keysWithin(key).filter((k) => now.get(k)?.key === key);
  const targets = JSON.stringify(own.map((k) => subjectTarget(set, k)));
  const from = `FROM reference_edge AS g
    JOIN entry AS e ON e.id = g.entry AND e.newest = g.revision AND e.deleted IS NULL
    JOIN revision AS r ON r.entry = e.id AND r.number = e.newest
    WHERE g.target IN (SELECT value FROM json_each(@targets))`;
  const rows = statement<{ id: string; name: string; live: number }>(
    connection,
    `SELECT DISTINCT e.id, r.name,
       EXISTS (SELECT 1 FROM live_interval AS l WHERE l.entry = e.id AND ${asOf('l', '@at')}) AS live
     ${from} ORDER BY r.search, e.id LIMIT ${SHOWN}`,
  ).all({ targets, at });
  const total = statement<number>(connection, `SELECT count(DISTINCT e.id) ${from}`)
    .pluck()
    .get({ targets })!;
  return { total, entries: rows.map(({ live, ...row }) => ({ ...row, live: live === 1 })) };
}
