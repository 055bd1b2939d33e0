import { type Column, LISTED } from '@/core/listing/columns.ts';
import {
  type Condition,
  DENIED,
  type ListingPlan,
  type Search,
  conditionsOf,
} from '@/core/listing/plan.ts';
import type { Instant } from '@/core/time/interval.ts';
import { resolveFilter } from '@/core/listing/resolve.ts';
import { FilterSql } from './filter-sql.ts';
import {
  type TypeRead,
  cellOf,
  indexTable,
  isManyValued,
  memberTable,
  named,
  quoted,
  readName,
} from './index-columns.ts';
import { MEMBER, isKept, keptRows } from './kept-counts.ts';
import type { LeadingMember } from './listing-index.ts';
import { type ReadAt, keyOf } from './listing-source.ts';
import { foundTable, wordQuery, wordTable } from './word-tables.ts';

/** A number in SQL, with its parameters in order. */
export interface CountSql {
  sql: string;
  params: unknown[];
}

/** How many open rows there are, and `FROM … WHERE …` of those of them that do not hold. */
export interface OpenSql {
  all: CountSql;
  outside: CountSql[];
}

/**
 * How many rows a list has in one of its types, from what is kept of its open rows, less those of
 * them that have not begun or have ended; null where nothing is kept of what it asks.
 */
export function keptTotal(
  plan: ListingPlan,
  how: ReadAt,
  leading: LeadingMember | null,
): CountSql | null {
  const { at, settled, table, found = 'all' } = how;
  if (at < settled || table !== null || found !== 'all') return null;
  if (plan.search) return foundTotal(plan, plan.search, at);
  const open = keptOpen(plan, how, leading);
  if (open === null) return null;
  const { all, outside } = open;
  const less = outside.map(({ sql }) => ` - (SELECT count(*) ${sql})`);
  return {
    sql: `SELECT (${all.sql})${less.join('')}`,
    params: [all, ...outside].flatMap(({ params }) => params),
  };
}

/** The open rows of a list in one of its types; null where nothing is kept of what it asks. */
export function keptOpen(
  plan: ListingPlan,
  how: ReadAt,
  leading: LeadingMember | null,
): OpenSql | null {
  const { at, settled, table } = how;
  const asked = at < settled || table !== null || plan.search ? null : keptBy(plan, leading);
  if (asked === null) return null;
  const each = asksOf(plan, how);
  const outside = outsideOf(plan.type).map((rows) => ({
    sql: `FROM ${rows} AND ${each.sql}`,
    params: [at, ...each.params],
  }));
  return { all: allOpen(plan, how, { asked, leading }), outside };
}

/** Open rows of a type that have not begun by an instant, and those that have ended by it. */
function outsideOf(type: TypeRead, join = ''): string[] {
  return [
    ['starts', 'r.starts > ?'],
    ['closing', 'r.ends <= ?'],
  ].map(([index, bound]) => {
    const by = quoted(`${index}.${named(readName(type))}`);
    return `${indexTable(type)} AS r INDEXED BY ${by}${join} WHERE r.open = 1 AND ${bound}`;
  });
}

/** How many open rows a list has, by the keys of one field at most. */
function allOpen(
  plan: ListingPlan,
  how: ReadAt,
  { asked, leading }: { asked: { column: Column | null }; leading: LeadingMember | null },
): CountSql {
  const kept = keptRows(plan.type, asked.column);
  const rows = asksOf(plan, how, leading?.condition);
  const member = leading
    ? { sql: `r.${MEMBER} = ? AND `, params: [keyOf(leading, how.world)] }
    : null;
  return {
    sql: `SELECT coalesce(sum(r.n), 0) FROM ${kept.sql} WHERE ${member?.sql ?? ''}${rows.sql}`,
    params: [kept.param, ...(member?.params ?? []), ...rows.params],
  };
}

/** What a list asks of a row of its type besides what holds already. */
function asksOf(plan: ListingPlan, { at, world, tableOf }: ReadAt, given?: Condition): CountSql {
  const params: unknown[] = [];
  const of = { row: 'r', type: plan.type };
  const writer = new FilterSql(of, at, params, { given, isOpen: true, tableOf });
  return { sql: writer.write(resolveFilter(plan.filter, at, plan.zone, world), false), params };
}

/**
 * How many rows of a list that asks nothing have each key of a column, from what is kept: `key` and
 * `count`, of those alone that some have. Null where nothing is kept of it. Of many-valued subjects
 * it is so only while none is merged into another, for those stand under both keys.
 */
export function keptByKey(plan: ListingPlan, how: ReadAt, column: Column): CountSql | null {
  const { at, settled, table } = how;
  const isPlain = !plan.search && keptBy(plan, null)?.column === null;
  if (at < settled || table !== null || !isPlain) return null;
  const isMany = isManyValued(column);
  // What entries say of lists is kept for members only where lists are read by both.
  if (isMany ? conditionsOf(plan.filter).length > 0 : !isKept(column)) return null;
  const kept = keptRows(plan.type, column);
  const asks = asksOf(plan, how);
  const of = 'm.field = ? AND m.own = 1 AND m.entry = r.entry AND m.starts = r.starts';
  const members = ` CROSS JOIN ${memberTable(plan.type)} AS m ON ${of}`;
  const single = cellOf('r', column);
  const outside = outsideOf(plan.type, isMany ? members : '').map(
    (rows) => `UNION ALL SELECT ${isMany ? 'm.key' : single}, -1 FROM ${rows} AND ${asks.sql}`,
  );
  const each = [...(isMany ? [kept.param] : []), at, ...asks.params];
  return {
    sql: `SELECT key, sum(n) AS count FROM (
      SELECT ${isMany ? `r.${MEMBER}` : single} AS key, r.n AS n FROM ${kept.sql} WHERE ${asks.sql}
      ${outside.join(' ')}) WHERE key IS NOT NULL GROUP BY 1 HAVING sum(n) > 0`,
    params: [kept.param, ...asks.params, ...each, ...each],
  };
}

/** What is found by words alone, which are those of open rows. */
function foundTotal(
  { type, filter }: ListingPlan,
  { text, fields }: Search,
  at: Instant,
): CountSql | null {
  if (conditionsOf(filter).length > 0) return null;
  const [found, words] = [foundTable(type), wordTable(type)];
  const join = ` CROSS JOIN ${words} AS w ON w.entry = r.entry AND w.starts = r.starts`;
  const outside = outsideOf(type, join).map((rows) => `SELECT w.id FROM ${rows}`);
  return {
    // "+" has what is found read once, not looked up for each of those.
    sql: `SELECT count(*) - count(CASE WHEN +rowid IN (${outside.join(' UNION ALL ')}) THEN 1 END)
      FROM ${found} WHERE ${found} MATCH ?`,
    params: [at, at, wordQuery(text, fields)],
  };
}

/** The one column by which what is kept has all that a list asks; null where it has not. */
function keptBy(
  { filter }: ListingPlan,
  leading: LeadingMember | null,
): { column: Column | null } | null {
  const asked = filter.kind === 'all' ? filter.filters : [filter];
  const conditions = asked.filter((f): f is Condition => f.kind === 'condition');
  const others = conditions.filter(({ column }) => column !== LISTED);
  if (conditions.length < asked.length || others.length > 1) return null;
  const [other] = others;
  if (!other) return { column: null };
  // Rows without a key are not kept apart.
  const isByKey = leading !== null || (isKept(other.column) && !DENIED[other.op]);
  return isByKey ? { column: other.column } : null;
}
