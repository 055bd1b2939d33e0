import type { ContentType } from '@/core/design/spec.ts';
import type { Instant } from '@/core/time/interval.ts';
import { asOf } from '../store/as-of.ts';
import { statement } from '../store/statement.ts';
import type { SiteView } from './site-view.ts';

/** An entry that a type is tried on. */
export interface Specimen {
  id: string;
  name: string;
  /** What makes it hard to show; null where nothing does more than with others. */
  why: string | null;
}

interface Row {
  id: string;
  name: string;
  size: number;
  live: number;
}

/** How many entries are looked through for the hardest, and how many are offered. */
const LOOKED_AT = 2000;
const OFFERED = 100;

/** Entries of a type, those that are live first, led by what is hardest to show. */
export function specimensOf(
  { connection }: SiteView,
  { id }: ContentType,
  at: Instant,
): Specimen[] {
  const sql = `SELECT e.id, r.name, length(r."values") AS size,
      EXISTS (SELECT 1 FROM live_interval AS l WHERE l.entry = e.id AND ${asOf('l', '@at')}) AS live
    FROM (SELECT * FROM entry WHERE type = @id AND deleted IS NULL
          ORDER BY created DESC, id LIMIT ${LOOKED_AT}) AS e
    JOIN revision AS r ON r.entry = e.id AND r.number = e.newest`;
  const rows = statement<Row>(connection, sql).all({ id, at });
  const hard = hardest(rows);
  const rank = new Map([...hard.keys()].map((key, i) => [key, i]));
  const rankOf = (row: Row): number => rank.get(row.id) ?? rank.size;
  rows.sort(
    (a, b) =>
      rankOf(a) - rankOf(b) ||
      b.live - a.live ||
      b.name.length - a.name.length ||
      (a.id < b.id ? -1 : 1),
  );
  return rows
    .slice(0, OFFERED)
    .map(({ id: key, name }) => ({ id: key, name, why: hard.get(key) ?? null }));
}

/** What is hardest to show, and why; nothing where there is no choice. */
function hardest(rows: readonly Row[]): Map<string, string> {
  const hard = new Map<string, string>();
  const note = (of: (row: Row) => number, why: string): void => {
    const found = [...rows].sort((a, b) => b.live - a.live || of(b) - of(a))[0];
    if (found && rows.length > 1 && !hard.has(found.id)) hard.set(found.id, why);
  };
  note(({ name }) => name.length, 'longest name');
  note(({ size }) => size, 'most filled in');
  note(({ size }) => -size, 'least filled in');
  return hard;
}
