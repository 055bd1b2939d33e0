import type { Column } from '@/core/listing/columns.ts';
import { type ListingPlan, countedColumns } from '@/core/listing/plan.ts';
import type { Instant } from '@/core/time/interval.ts';
import type { Connection } from '../db/connection.ts';
import { asOf } from './as-of.ts';
import { cellOf, isManyValued, memberTable } from './index-columns.ts';
import { keptTable } from './kept-counts.ts';
import type { CountSql } from './kept-total.ts';
import type { ListingSql } from './listing-sql.ts';
import { tablesIn } from './language-tables.ts';
import { statement } from './statement.ts';
import type { Subjects } from './subject-store.ts';

/** Of entries that many lead to, so many are counted for visitors; for pages of each, so many. */
const MOST_CHOSEN = 200;
const MOST_PAGES = 20_000;

/** A key as it is stored, and how many rows have it. */
type Counted = [key: string | number, count: number];

/** A list in one of its types, in SQL. */
type PartSql = Pick<ListingSql, 'from' | 'params' | 'total' | 'byKey'> & { plan: ListingPlan };

/** A further condition on the rows of a type. */
export type PartWhere = (part: ListingPlan) => CountSql;

/** How many rows a list has in all its types, of those that fulfil a further condition. */
export function rowsIn(
  connection: Connection,
  parts: readonly PartSql[],
  where?: PartWhere,
): number {
  return sumOf(
    connection,
    parts.map((part) => (where ? null : part.total()) ?? oneByOne(part, where?.(part.plan))),
  );
}

/** How many rows a list has in all its types; null where that is not kept. */
export function keptIn(connection: Connection, parts: readonly PartSql[]): number | null {
  const totals = parts.map((part) => part.total());
  return totals.every((total) => total !== null) ? sumOf(connection, totals) : null;
}

function sumOf(connection: Connection, counts: readonly CountSql[]): number {
  const read = ({ sql, params }: CountSql): number =>
    statement<number>(connection, sql)
      .pluck()
      .get(...params)!;
  return counts.reduce((sum, count) => sum + read(count), 0);
}

function oneByOne({ from, params }: PartSql, where: CountSql = { sql: '1', params: [] }): CountSql {
  return {
    sql: `SELECT count(*) ${from} AND ${where.sql}`,
    params: [...params, ...where.params],
  };
}

/** Where subjects and references are looked up. */
interface CountWorld {
  subjects: Subjects;
  at: Instant;
}

/**
 * How many rows of a list have each value of a column by which visitors narrow it, by name; as
 * `SiteReader.counts` says.
 */
export function countsTogether(
  connection: Connection,
  parts: readonly PartSql[],
  name: string,
  world: CountWorld,
): Map<string, number> {
  const counts = new Map<string, number>();
  for (const part of parts)
    for (const [key, count] of countsIn(connection, part, name, world))
      counts.set(key, (counts.get(key) ?? 0) + count);
  return counts;
}

/** How much memory counts take, about, in bytes. */
export const bytesOfCounts = (counts: ReadonlyMap<string, number>): number =>
  [...counts.keys()].reduce((sum, key) => sum + 2 * key.length + 16, 0);

function countsIn(
  connection: Connection,
  part: PartSql,
  name: string,
  { subjects, at }: CountWorld,
): [string, number][] {
  const column = countedColumns(part.plan).find((c) => c.name === name);
  if (!column || column.isAbsent) return [];
  const { target, family, field } = column;
  if (target?.of === 'subjects') return ofSubjects(connection, part, column, subjects);
  if (target?.of === 'entries') return ofEntries(connection, part, column, at);
  if (target?.of === 'people') return byKey(connection, part, column) as [string, number][];
  return byKey(connection, part, column).flatMap(([key, count]): [string, number][] => {
    if (family === 'yesno') return [[key === 1 ? 'yes' : 'no', count]];
    const option = (field?.options ?? []).find(({ id }) => id === key);
    return option ? [[option.key, count]] : [];
  });
}

/** What has a key, and which: from one column, or from the members of a field. */
function keyed({ from, plan }: PartSql, column: Column): { key: string; from: string } {
  if (!isManyValued(column)) {
    const key = cellOf('r', column);
    return { key, from: `${from} AND ${key} IS NOT NULL` };
  }
  // Each row is joined with its members after it was found.
  const rows = `(SELECT r.entry AS entry, r.starts AS starts ${from}) AS r`;
  const on = 'm.field = ? AND m.own = 1 AND m.entry = r.entry AND m.starts = r.starts';
  return { key: 'm.key', from: `FROM ${rows} CROSS JOIN ${memberTable(plan.type)} AS m ON ${on}` };
}

function paramsOf({ params }: PartSql, column: Column): unknown[] {
  return isManyValued(column) ? [...params, column.field!.id] : params;
}

/** How many rows have each key of a column: SQL that gives `key` and `count`. */
function grouped(connection: Connection, part: PartSql, column: Column): CountSql {
  const isLed = (): boolean => {
    const sql = `SELECT 1 FROM ${keptTable(part.plan.type)} WHERE field = ? LIMIT 1`;
    return statement(connection, sql).get(column.field!.id) !== undefined;
  };
  const kept = part.byKey(column);
  if (kept && (!isManyValued(column) || isLed())) return kept;
  const { key, from } = keyed(part, column);
  const sql = `SELECT ${key} AS key, count(*) AS count ${from} GROUP BY 1`;
  return { sql, params: paramsOf(part, column) };
}

function byKey(connection: Connection, part: PartSql, column: Column): Counted[] {
  const { sql, params } = grouped(connection, part, column);
  return statement<Counted>(connection, sql)
    .raw()
    .all(...params);
}

function ofEntries(
  connection: Connection,
  part: PartSql,
  column: Column,
  at: Instant,
): [string, number][] {
  const { sql, params } = grouped(connection, part, column);
  const { live } = tablesIn(part.plan.type.edition);
  const most = part.plan.each?.column === column ? MOST_PAGES : MOST_CHOSEN;
  const text = `SELECT key, count FROM (${sql})
    WHERE EXISTS (SELECT 1 FROM ${live} AS l WHERE l.entry = key AND ${asOf('l')})
    ORDER BY count DESC, key LIMIT ${most}`;
  return statement<[string, number]>(connection, text)
    .raw()
    .all(...params, at, at);
}

/** Subjects count all that lies within them, and what was merged into them. */
function ofSubjects(
  connection: Connection,
  part: PartSql,
  column: Column,
  subjects: Subjects,
): [string, number][] {
  const { set } = column.target as { set: string };
  const within = subjects.all(set).map(({ key }) => [key, subjects.keysWithin(set, key)] as const);
  const isFlat = within.every(([, keys]) => keys.length === 1);
  if (isFlat || !isManyValued(column)) {
    const counts = new Map(byKey(connection, part, column) as [string, number][]);
    const sum = (keys: readonly string[]): number =>
      keys.reduce((all, key) => all + (counts.get(key) ?? 0), 0);
    return within.flatMap(([key, keys]): [string, number][] => {
      const count = sum(keys);
      return count === 0 ? [] : [[key, count]];
    });
  }
  // One that has several below a subject counts there once.
  const pairs = within.flatMap(([key, keys]) => keys.map((own) => [own, key]));
  const { key, from } = keyed(part, column);
  const sql = `SELECT p.value ->> 1, count(DISTINCT r.entry) ${from.replace(' ON m.field', ` CROSS JOIN json_each(?) AS p ON p.value ->> 0 = ${key} AND m.field`)}
    GROUP BY 1`;
  return statement<[string, number]>(connection, sql)
    .raw()
    .all(...part.params, JSON.stringify(pairs), column.field!.id);
}
