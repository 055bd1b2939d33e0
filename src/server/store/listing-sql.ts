import type { Instant } from '@/core/time/interval.ts';
import { type CalendarDay, calendarDay } from '@/core/time/zone.ts';
import { CHANCE, MATCH, PLACE } from '@/core/listing/columns.ts';
import {
  type Condition,
  type ListingPlan,
  type FilterWorld,
  type SortKey,
  namedBy,
} from '@/core/listing/plan.ts';
import {
  type ResolvedFilter,
  type Test,
  entriesNamed,
  resolveFilter,
} from '@/core/listing/resolve.ts';
import {
  cellColumn,
  indexTable,
  isManyValued,
  memberTable,
  isNeverBlank,
  ofRow,
  quoted,
  sortColumn,
} from './index-columns.ts';
import {
  type LeadingMember,
  isOfField,
  leadingMember,
  listingIndex,
  literal,
} from './listing-index.ts';
import { asOf } from './as-of.ts';
import { foundTable, wordQuery, wordTable } from './word-tables.ts';

/** A listing in one of its types as of an instant in SQL: which rows, and their order. */
export interface ListingSql {
  /** `FROM … WHERE …`, shared by the page and the count. */
  from: string;
  /** In order. */
  params: unknown[];
  /** What it is ordered by: columns, or whether they are blank. */
  order: { sql: string; descending: boolean }[];
}

/** As of when and over what a listing is read. */
export interface ReadAt {
  at: Instant;
  /** The last write's instant, before which the partial indexes say nothing. */
  settled: Instant;
  world: FilterWorld;
  /**
   * The index table as the plan's design reads it; null where the database has the listing's own
   * index, and with it all that the table and the member table have.
   */
  table: string | null;
}

/** The SQL form of a listing, for one type. */
export function listingSql(plan: ListingPlan, { at, settled, world, table }: ReadAt): ListingSql {
  const isOpen = at >= settled;
  const named = namedBy(plan.filter);
  const led = table === null && !named && !plan.search ? leadingMember(plan) : null;
  const leading = led && isLeading(led, isOpen, world) ? led : null;
  const params: unknown[] = [];
  const source = leading
    ? ofMember(plan, leading, { isOpen, world, params })
    : ofTypes(plan, table ?? indexTable(plan.type), { named, world, params });
  params.push(at, at);
  const given = leading?.condition ?? named ?? undefined;
  const writer = new FilterSql(plan, at, params, { given, isOpen });
  const filter = writer.write(resolveFilter(plan.filter, at, plan.zone, world), false);
  const open = isOpen ? 'r.open = 1 AND ' : '';
  // "+" keeps the index over bounds out of it: nearly every row has started, so it would find
  // nearly all.
  return {
    from: `FROM ${source}${open}+${asOf('r')} AND ${filter}`,
    params,
    order: orderOf(plan, calendarDay(at, plan.zone)),
  };
}

/** The rows of a field's members that have one key. */
function ofMember(
  plan: ListingPlan,
  leading: LeadingMember,
  { isOpen, world, params }: { isOpen: boolean; world: FilterWorld; params: unknown[] },
): string {
  // Without statistics the planner would take the primary key, which is in another order.
  const index = isOpen ? listingIndex(plan) : null;
  const by = index ? ` INDEXED BY ${quoted(index.name)}` : '';
  params.push(keyOf(leading, world));
  return `${memberTable(plan.type)} AS r${by} WHERE r.${isOfField(leading)} AND r.key = ? AND ${isOpen ? '' : 'r.own = 1 AND '}`;
}

/** The rows of a type, those alone that are named or found, looked up one by one. */
function ofTypes(
  { type, search }: ListingPlan,
  table: string,
  { named, world, params }: { named: Condition | null; world: FilterWorld; params: unknown[] },
): string {
  const sources: { sql: string; on: string }[] = [];
  if (search) {
    const found = foundTable(type);
    const { text, fields, naming } = search;
    // Asked of all at once: looked up one by one it would cost the square of what is found.
    const called = naming
      ? `, rowid NOT IN (SELECT rowid FROM ${found} WHERE ${found} MATCH ?) AS away`
      : '';
    if (naming) params.push(wordQuery(text, [naming]));
    params.push(wordQuery(text, fields));
    const all = `(SELECT rowid AS id${called} FROM ${found} WHERE ${found} MATCH ?)`;
    sources.push(
      { sql: `${all} AS f`, on: '' },
      { sql: `${wordTable(type)} AS w`, on: ' ON w.id = f.id' },
    );
  }
  const ofEntry = search ? 'w.entry' : 'j.value';
  if (named) {
    params.push(JSON.stringify(entriesNamed(named, world)));
    sources.push({ sql: 'json_each(?) AS j', on: search ? ' ON j.value = w.entry' : '' });
  }
  const starts = search ? ' AND r.starts = w.starts' : '';
  const on = sources.length > 0 ? ` ON r.entry = ${ofEntry}${starts}` : '';
  const joined = [...sources, { sql: `${table} AS r`, on }];
  return `${joined.map((s) => `${s.sql}${s.on}`).join(' CROSS JOIN ')} WHERE `;
}

/** What a sort key compares in SQL, as of a day. */
export function orderColumn(
  { search, zone }: ListingPlan,
  { column, from }: SortKey,
  today: CalendarDay,
): string {
  if (column === PLACE) return 'j.key';
  if (column === MATCH) return search?.naming ? 'f.away' : '1';
  if (column === CHANCE) return `chance(r.entry, ${literal(today)})`;
  if (from === undefined) return ofRow('r', sortColumn(column));
  const value = ofRow('r', cellColumn(column));
  return `days_from(${value}, ${literal(today)}, ${literal(zone)})`;
}

/** Every type of a listing is ordered by as many. */
function orderOf(plan: ListingPlan, today: CalendarDay): ListingSql['order'] {
  const keys = plan.sort.flatMap((key) => {
    const { column, descending, blanks } = key;
    const sql = orderColumn(plan, key, today);
    const own = { sql, descending };
    return isNeverBlank(column)
      ? [own]
      : [{ sql: `(${sql} IS NULL)`, descending: blanks === 'first' }, own];
  });
  const last = ['r.created', 'r.entry'].map((sql) => ({ sql, descending: false }));
  return [...keys, ...last];
}

/**
 * Whether a list is read by its member: the rows of merged keys stand under the key that they count
 * as now, so at earlier instants only where no other key counts as the wanted one.
 */
function isLeading(
  { condition, key }: LeadingMember,
  isOpen: boolean,
  subjects: FilterWorld,
): boolean {
  const { target } = condition.column;
  return isOpen || target?.of !== 'subjects' || subjects.keysWithin(target.set, key).length <= 1;
}

/** The key under which what counts as the wanted one stands; none where nothing does. */
function keyOf({ condition, key }: LeadingMember, subjects: FilterWorld): string {
  const { target } = condition.column;
  return target?.of === 'subjects' ? (subjects.keysWithin(target.set, key)[0] ?? '') : key;
}

const LIVE = `EXISTS (SELECT 1 FROM live_interval AS l WHERE l.entry = TARGET AND ${asOf('l')})`;

/** How a text passes; what it is compared with is a parameter, once or twice. */
const TEXTS = {
  contains: (column: string) => `instr(${column}, ?) > 0`,
  starts: (column: string) => `substr(${column}, 1, length(?)) = ?`,
  word: (column: string) => `has_word(${column}, ?)`,
};

class FilterSql {
  constructor(
    private readonly plan: ListingPlan,
    private readonly at: Instant,
    private readonly params: unknown[],
    private readonly how: {
      /** Holds already for every row read. */
      given: Condition | undefined;
      /** Whether the instant is not before the last write. */
      isOpen: boolean;
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
    const column = ofRow('r', cellColumn(test.column));
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
        return `r.entry ${test.negated ? 'NOT ' : ''}IN (SELECT value FROM json_each(?))`;
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
      ? `EXISTS (SELECT 1 FROM ${memberTable(this.plan.type)} AS m WHERE m.field = ? AND m.entry = r.entry AND m.starts = r.starts AND m.own = 1 AND m.key ${among})`
      : `(${name} IS NOT NULL AND ${name} ${among})`;
  }

  private members({ column, op, keys }: Extract<Test, { kind: 'members' }>, name: string): string {
    if (op === 'all')
      return `(${keys.map((wanted) => this.hasMember(column, name, wanted)).join(' AND ')})`;
    const any = this.hasMember(column, name, [...new Set(keys.flat())]);
    return op === 'none' ? `NOT coalesce(${any}, 0)` : any;
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
      return ` AND ${LIVE.replace('TARGET', target)}`;
    };
    if (!isManyValued(column))
      return keys !== null && !reference
        ? among(name)
        : `(${name} IS NOT NULL AND ${among(name)}${live(name)})`;
    this.params.push(column.field!.id);
    return `EXISTS (SELECT 1 FROM ${memberTable(this.plan.type)} AS m WHERE m.field = ? AND m.entry = r.entry AND m.starts = r.starts${this.how.isOpen ? '' : ' AND m.own = 1'} AND ${among('m.key')}${live('m.key')})`;
  }
}
