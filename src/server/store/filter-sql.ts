import type { Instant } from '@/core/time/interval.ts';
import type { ContentType } from '@/core/design/spec.ts';
import type { Condition } from '@/core/listing/plan.ts';
import type { LedThrough, ResolvedFilter, Test } from '@/core/listing/resolve.ts';
import { cellOf, isManyValued, memberTable } from './index-columns.ts';
import { asOf } from './as-of.ts';
import { tablesIn } from './language-tables.ts';
import type { ReadAt } from './listing-source.ts';

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

/** Filters as of an instant in SQL, over rows of one type. */
export class FilterSql {
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
        return `${this.of.row}.entry ${test.negated ? 'NOT ' : ''}IN
          (SELECT value FROM json_each(?))`;
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
    return `${memberTable(type)} AS m
      WHERE m.field = ? AND m.entry = ${row}.entry AND m.starts = ${row}.starts`;
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
    const keyed = `${among('m.key')}${live('m.key')}`;
    return `EXISTS (SELECT 1 FROM ${this.membersOfRow()}${own} AND ${keyed})`;
  }
}
