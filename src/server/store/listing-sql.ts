import { type CalendarDay, calendarDay } from '@/core/time/zone.ts';
import { CHANCE, type Column, MATCH, PLACE } from '@/core/listing/columns.ts';
import { type Filter, type ListingPlan, type SortKey, namedBy } from '@/core/listing/plan.ts';
import { resolveFilter } from '@/core/listing/resolve.ts';
import { cellOf, indexTable, isNeverBlank, sortOf } from './index-columns.ts';
import { leadingMember, literal } from './listing-index.ts';
import { asOf } from './as-of.ts';
import { FilterSql } from './filter-sql.ts';
import { type CountSql, keptByKey, keptOpen, keptTotal } from './kept-total.ts';
import { type ReadAt, isLeading, ofMember, ofTypes, orderedSource } from './listing-source.ts';

/** A listing in one of its types as of an instant in SQL: which rows, and their order. */
export interface ListingSql {
  /** `FROM … WHERE …`, shared by the page and the count. */
  from: string;
  /**
   * As `from`, read by the index that is in the list's order, where SQLite would take another: by a
   * reference it finds entries sooner, and then has to sort them.
   */
  inOrder?: string;
  /** In order. */
  params: unknown[];
  /** How many there are, where that is kept; else they are counted one by one. */
  total: () => CountSql | null;
  /** As `from`, of all open rows, with those that do not hold; null where that is not kept. */
  open: () => { from: CountSql; outside: CountSql[] } | null;
  /** As `total`, of those with each key of a column. */
  byKey: (column: Column) => CountSql | null;
  /** What it is ordered by: columns, or whether they are blank. */
  order: { sql: string; descending: boolean }[];
}

/** The SQL form of a listing, for one type. */
export function listingSql(plan: ListingPlan, how: ReadAt): ListingSql {
  const { at, settled, world, table, tableOf } = how;
  const isOpen = at >= settled;
  const named = namedBy(plan.filter);
  const led = table === null && !named && !plan.search ? leadingMember(plan) : null;
  const leading = led && isLeading(led, isOpen, world) ? led : null;
  const params: unknown[] = [];
  const source = leading
    ? ofMember(plan, leading, { isOpen, world, params })
    : ofTypes(plan, how, { named, params });
  const bounds = params.push(at, at) - 2;
  const given = leading?.condition ?? named ?? undefined;
  const of = { row: 'r', type: plan.type };
  const writer = new FilterSql(of, at, params, { given, isOpen, tableOf });
  const filter = writer.write(resolveFilter(plan.filter, at, plan.zone, world), false);
  // Words are those of open rows alone.
  const open = isOpen && !(plan.search && how.hasAllBeside) ? 'r.open = 1 AND ' : '';
  // "+" keeps the index over bounds out of it: nearly every row has started, so it would find
  // nearly all.
  const rest = `${open}+${asOf('r')} AND ${filter}`;
  const isPlain = table === null && !named && !leading && !plan.search;
  const ordered = isPlain && isOpen ? orderedSource(plan) : null;
  return {
    from: `FROM ${source}${rest}`,
    ...(ordered === null ? {} : { inOrder: `FROM ${ordered}${rest}` }),
    params,
    total: () => (named ? null : keptTotal(plan, how, leading)),
    open: () => {
      const kept = named ? null : keptOpen(plan, how, leading);
      const sql = `FROM ${ordered ?? source}${open}${filter}`;
      return kept && { ...kept, from: { sql, params: params.toSpliced(bounds, 2) } };
    },
    byKey: (column) => (named ? null : keptByKey(plan, how, column)),
    order: orderOf(plan, how),
  };
}

/** How a list's rows are told apart by which of some filters they fail, in one type. */
export interface MissesSql {
  /** `FROM … WHERE …`, all that are live. */
  from: string;
  params: unknown[];
  /** Of each filter: whether a row passes it, 0 or 1. */
  tests: { sql: string; params: unknown[] }[];
}

/** What is asked of each live row of a type by some filters, one by one. */
export function missesSql(
  { type, zone }: ListingPlan,
  filters: readonly Filter[],
  { at, settled, world, table, tableOf }: ReadAt,
): MissesSql {
  const isOpen = at >= settled;
  const tests = filters.map((filter) => {
    const params: unknown[] = [];
    const how = { given: undefined, isOpen, tableOf };
    const writer = new FilterSql({ row: 'r', type }, at, params, how);
    return { sql: writer.write(resolveFilter(filter, at, zone, world), true), params };
  });
  const open = isOpen ? 'r.open = 1 AND ' : '';
  return {
    from: `FROM ${table ?? indexTable(type)} AS r WHERE ${open}+${asOf('r')}`,
    params: [at, at],
    tests,
  };
}

/** What a sort key compares in SQL, as of a day. */
export function orderColumn(
  { search, zone }: ListingPlan,
  { column, from }: SortKey,
  today: CalendarDay,
): string {
  if (column === PLACE) return 'j.key';
  // A plain number would stand for a column in an order.
  if (column === MATCH) return search?.naming ? 'f.away' : '(0 + 1)';
  if (column === CHANCE) return `chance(r.entry, ${literal(today)})`;
  if (from === undefined) return sortOf('r', column);
  const value = cellOf('r', column);
  return `days_from(${value}, ${literal(today)}, ${literal(zone)})`;
}

/** What rows are ordered by in SQL, from the first on or from the last. */
export function orderSql(terms: ListingSql['order'], isBackwards: boolean): string {
  return terms
    .map(({ sql, descending }) => `${sql}${descending === isBackwards ? '' : ' DESC'}`)
    .join(', ');
}

/** Every type of a listing is ordered by as many. */
function orderOf(plan: ListingPlan, { at, found }: ReadAt): ListingSql['order'] {
  const today = calendarDay(at, plan.zone);
  // Among those that are called so, and among the others, all match alike.
  const isAlike = found === 'called' || found === 'others';
  const keys = plan.sort.flatMap((key) => {
    const { column, descending, blanks } = key;
    if (column === MATCH && isAlike) return [];
    const sql = orderColumn(plan, key, today);
    const own = { sql, descending };
    return isNeverBlank(column)
      ? [own]
      : [{ sql: `(${sql} IS NULL)`, descending: blanks === 'first' }, own];
  });
  const last = ['r.created', 'r.entry'].map((sql) => ({ sql, descending: false }));
  return [...keys, ...last];
}
