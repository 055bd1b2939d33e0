import type { Instant } from '@/core/time/interval.ts';
import { type CalendarDay, calendarDay } from '@/core/time/zone.ts';
import type { ContentType } from '@/core/design/spec.ts';
import { CHANCE, MATCH, PLACE } from '@/core/listing/columns.ts';
import {
  type Condition,
  type Filter,
  type ListingPlan,
  type SortKey,
  namedBy,
} from '@/core/listing/plan.ts';
import {
  type LedThrough,
  type ResolvedFilter,
  type Test,
  resolveFilter,
} from '@/core/listing/resolve.ts';
import {
  cellOf,
  indexTable,
  isManyValued,
  memberTable,
  isNeverBlank,
  sortOf,
} from './index-columns.ts';
import { leadingMember, literal } from './listing-index.ts';
import { asOf } from './as-of.ts';
import { tablesIn } from './language-tables.ts';
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
  params.push(at, at);
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

/** That an entry is live, in the language that a type is read in. */
function isLive(target: string, { edition }: ContentType): string {
  const { live } = tablesIn(edition);
  return `EXISTS (SELECT 1 FROM ${live} AS l WHERE l.entry = ${target} AND ${asOf('l')})`;
}

/** How a text passes; what it is compared with is a parameter, once or twice. */
const TEXTS = {
  contains: (column: string) => `instr(${column}, ?) > 0`,
  starts: (column: string) => `substr(${column}, 1, length(?)) = ?`,
  word: (column: string) => `has_word(${column}, ?)`,
};

class FilterSql {
  constructor(
    /** What a row is called, and of which type it is. */
    private readonly of: { row: string; type: ContentType },
    private readonly at: Instant,
    private readonly params: unknown[],
    private readonly how: {
      /** Holds already for every row read. */
      given: Condition | undefined;
      /** Whether the instant is not before the last write. */
      isOpen: boolean;
      tableOf: ReadAt['tableOf'];
    },
  ) {}

  /** `strict`: must give 0 or 1, not NULL, since it stands below a negation. */
  write(filter: ResolvedFilter, strict: boolean): string {
    if (filter.kind !== 'group') {
      if (filter.condition === this.how.given) return '1';
      const sql = this.test(filter);
      return strict ? `coalesce(${sql}, 0)` : sql;
    }
    const { op, filters } = filter;
    const inner = filters.map((f) => this.write(f, strict || op === 'none'));
    if (op === 'all') return inner.length === 0 ? '1' : `(${inner.join(' AND ')})`;
    const any = inner.length === 0 ? this.never() : `(${inner.join(' OR ')})`;
    return op === 'any' ? any : `NOT ${any}`;
  }

  /** As a parameter: a plain 0 would take the conditions beside it out of the statement. */
  private never(): string {
    this.params.push(0);
    return '?';
  }

  private test(test: Test): string {
    const column = cellOf(this.of.row, test.column);
    switch (test.kind) {
      case 'blank':
        return this.blank(test, column);
      case 'text':
        this.params.push(test.value, ...(test.op === 'starts' ? [test.value] : []));
        return TEXTS[test.op](column);
      case 'anniversary': {
        const isDay = test.column.family === 'day';
        this.params.push(...(isDay ? [test.day] : [test.zone, test.day]));
        return isDay ? `substr(${column}, -5) = ?` : `month_day(${column}, ?) = ?`;
      }
      case 'range':
        this.params.push(test.from, test.to);
        return test.negated
          ? `(${column} IS NULL OR NOT (${column} >= ? AND ${column} < ?))`
          : `(${column} >= ? AND ${column} < ?)`;
      case 'compare':
        this.params.push(test.value);
        return test.negated ? `(${column} IS NULL OR ${column} <> ?)` : `${column} ${test.op} ?`;
      case 'identity':
        this.params.push(JSON.stringify(test.entries));
        return `${this.of.row}.entry ${test.negated ? 'NOT ' : ''}IN (SELECT value FROM json_each(?))`;
      case 'through':
        return this.through(test, column);
      case 'members':
        return this.members(test, column);
    }
  }

  private blank({ column, wanted, gone }: Extract<Test, { kind: 'blank' }>, name: string): string {
    if (gone.length > 0) return `${wanted ? 'NOT ' : ''}${this.hasOther(column, name, gone)}`;
    if (column.target?.of !== 'entries') {
      const filled = isManyValued(column) ? `${name} > 0` : `${name} IS NOT NULL`;
      return wanted ? `NOT (${filled})` : `(${filled})`;
    }
    return `${wanted ? 'NOT ' : ''}${this.hasMember(column, name, null)}`;
  }

  /** Whether a field holds a subject besides those that are gone. */
  private hasOther(column: Test['column'], name: string, gone: readonly string[]): string {
    const among = 'NOT IN (SELECT value FROM json_each(?))';
    if (isManyValued(column)) this.params.push(column.field!.id);
    this.params.push(JSON.stringify(gone));
    return isManyValued(column)
      ? `EXISTS (SELECT 1 FROM ${this.membersOfRow()} AND m.own = 1 AND m.key ${among})`
      : `(${name} IS NOT NULL AND ${name} ${among})`;
  }

  private members({ column, op, keys }: Extract<Test, { kind: 'members' }>, name: string): string {
    if (op === 'all')
      return `(${keys.map((wanted) => this.hasMember(column, name, wanted)).join(' AND ')})`;
    const any = this.hasMember(column, name, [...new Set(keys.flat())]);
    return op === 'none' ? `NOT coalesce(${any}, 0)` : any;
  }

  /** The members of a row, by the field's id. */
  private membersOfRow(): string {
    const { row, type } = this.of;
    return `${memberTable(type)} AS m WHERE m.field = ? AND m.entry = ${row}.entry AND m.starts = ${row}.starts`;
  }

  /** Whether a field leads to one of the entries that pass, which are found once for all rows. */
  private through({ column, by }: Extract<Test, { kind: 'through' }>, name: string): string {
    const led = [...by.values()].filter(({ type }) => this.how.tableOf(type) !== null);
    if (led.length === 0) return this.never();
    if (isManyValued(column)) this.params.push(column.field!.id);
    const among = `IN (${led.map((one) => this.passing(one)).join(' UNION ALL ')})`;
    if (!isManyValued(column)) return `${name} ${among}`;
    const own = this.how.isOpen ? '' : ' AND m.own = 1';
    return `EXISTS (SELECT 1 FROM ${this.membersOfRow()}${own} AND m.key ${among})`;
  }

  private passing({ type, filter }: LedThrough): string {
    const table = this.how.tableOf(type);
    const { at, params } = this;
    params.push(at, at);
    const how = { ...this.how, given: undefined };
    const asked = new FilterSql({ row: 'x', type }, at, params, how).write(filter, false);
    const open = this.how.isOpen ? 'x.open = 1 AND ' : '';
    return `SELECT x.entry FROM ${table} AS x WHERE ${open}+${asOf('x')} AND ${asked}`;
  }

  /**
   * Whether a field holds one of the keys, or anything at all; references count while they are
   * live.
   */
  private hasMember(column: Test['column'], name: string, keys: string[] | null): string {
    const reference = column.target?.of === 'entries';
    const among = (target: string): string => {
      if (keys === null) return '1';
      if (keys.length === 0) return this.never();
      this.params.push(...keys);
      return keys.length === 1
        ? `${target} = ?`
        : `${target} IN (${keys.map(() => '?').join(', ')})`;
    };
    const live = (target: string): string => {
      if (!reference) return '';
      this.params.push(this.at, this.at);
      return ` AND ${isLive(target, this.of.type)}`;
    };
    if (!isManyValued(column))
      return keys !== null && !reference
        ? among(name)
        : `(${name} IS NOT NULL AND ${among(name)}${live(name)})`;
    this.params.push(column.field!.id);
    const own = this.how.isOpen ? '' : ' AND m.own = 1';
    return `EXISTS (SELECT 1 FROM ${this.membersOfRow()}${own} AND ${among('m.key')}${live('m.key')})`;
  }
}
