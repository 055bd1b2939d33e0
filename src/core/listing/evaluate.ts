import { compareCodePoints, hasWord } from '../text.ts';
import { calendarDay } from '../time/zone.ts';
import { type Instant, covers } from '../time/interval.ts';
import { type ListingRow, cell, sortCell } from './columns.ts';
import type { ListingPlan, SortKey, SubjectTree } from './plan.ts';
import { type ResolvedFilter, type Test, resolveFilter } from './resolve.ts';

/** What the in-memory evaluator asks of the rest of the site. */
export interface EvaluationWorld extends SubjectTree {
  isLive(entry: string, at: Instant): boolean;
}

/**
 * The entries of a listing as of an instant, in order: the reference the SQL form is tested
 * against.
 */
export function evaluateListing(
  plan: ListingPlan,
  rows: readonly ListingRow[],
  at: Instant,
  world: EvaluationWorld,
): string[] {
  const filter = resolveFilter(plan.filter, at, plan.zone, world);
  const isLive = (entry: string): boolean => world.isLive(entry, at);
  return rows
    .filter((row) => covers(row, at) && holds(filter, row, isLive))
    .sort(totalOrder(plan.sort))
    .map((row) => row.entry);
}

/** Whether a row passes a filter. */
export function holds(
  filter: ResolvedFilter,
  row: ListingRow,
  isLive: (entry: string) => boolean,
): boolean {
  if (filter.kind !== 'group') return testHolds(filter, row, isLive);
  const { op, filters } = filter;
  if (op === 'all') return filters.every((f) => holds(f, row, isLive));
  const any = filters.some((f) => holds(f, row, isLive));
  return op === 'any' ? any : !any;
}

function testHolds(test: Test, row: ListingRow, isLive: (entry: string) => boolean): boolean {
  const { column } = test;
  let value = cell(row, column);
  if (column.target?.of === 'entries') value = (value as string[]).filter(isLive);
  if (test.kind === 'blank' && test.gone.length > 0)
    value = (value as string[]).filter((key) => !test.gone.includes(key));
  const blank = value === null || (Array.isArray(value) && value.length === 0);
  switch (test.kind) {
    case 'blank':
      return blank === test.wanted;
    case 'text':
      return !blank && hasText(value as string, test);
    case 'anniversary': {
      if (blank) return false;
      const day = typeof value === 'number' ? calendarDay(value, test.zone) : (value as string);
      return day.slice(-5) === test.day;
    }
    case 'members':
      return membersHold(test, value as string[]);
    case 'range':
      return blank
        ? test.negated
        : test.negated !== ((value as number) >= test.from && (value as number) < test.to);
    case 'compare':
      return blank
        ? test.negated
        : test.negated !==
            compares(test, typeof value === 'boolean' ? Number(value) : (value as string | number));
  }
}

function hasText(text: string, { op, value }: Extract<Test, { kind: 'text' }>): boolean {
  if (op === 'word') return hasWord(text, value);
  return op === 'contains' ? text.includes(value) : text.startsWith(value);
}

function compares(
  { op, value: wanted }: Extract<Test, { kind: 'compare' }>,
  value: string | number,
): boolean {
  if (op === '=') return value === wanted;
  if (op === '<') return value < wanted;
  if (op === '<=') return value <= wanted;
  return op === '>' ? value > wanted : value >= wanted;
}

function membersHold({ op, keys }: Extract<Test, { kind: 'members' }>, values: string[]): boolean {
  const has = (wanted: string[]): boolean => wanted.some((key) => values.includes(key));
  if (op === 'all') return keys.every(has);
  return op === 'any' ? keys.some(has) : !keys.some(has);
}

/** Compares rows by the sort keys, then created, then id; blanks stand where each key says. */
export function totalOrder(sort: readonly SortKey[]): (a: ListingRow, b: ListingRow) => number {
  return (a, b) => {
    for (const { column, descending, blanks } of sort) {
      const [x, y] = [sortCell(a, column), sortCell(b, column)];
      if (x === y) continue;
      if (x === null || y === null) return (x === null) === (blanks === 'first') ? -1 : 1;
      const order = typeof x === 'string' ? compareCodePoints(x, y as string) : x - (y as number);
      if (order !== 0) return descending ? -order : order;
    }
    return a.created - b.created || compareCodePoints(a.entry, b.entry);
  };
}
