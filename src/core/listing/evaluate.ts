import { hasWord } from '../text.ts';
import { calendarDay } from '../time/zone.ts';
import { type Instant, covers } from '../time/interval.ts';
import type { EntryView } from '../design/values.ts';
import { type ListingRow, cell, rowOf } from './columns.ts';
import { partFor, partsOf } from './parts.ts';
import { type FilterWorld, type ListingPlan } from './plan.ts';
import { orderAt, totalOrder } from './order.ts';
import { finds } from './search.ts';
import { type ResolvedFilter, type Test, resolveFilter } from './resolve.ts';

/** What filters ask of other entries, as of an instant. */
export interface Others {
  isLive(entry: string): boolean;
  /** As it is shown; null while it is not live. */
  row(entry: string): ListingRow | null;
}

/** Other entries as something reads them. */
export function othersBy(read: (entry: string) => EntryView | null): Others {
  const row = (id: string): ListingRow | null => {
    const entry = read(id);
    return entry && rowOf(entry);
  };
  return { isLive: (id) => read(id) !== null, row };
}

/**
 * The entries of a listing as of an instant, in order: the reference the SQL form is tested
 * against.
 */
export function evaluateListing(
  plan: ListingPlan,
  rows: readonly ListingRow[],
  at: Instant,
  world: FilterWorld,
  others: Others,
): string[] {
  const passes = listedBy(plan, at, world, others);
  return rows
    .filter((row) => covers(row, at) && passes(row))
    .sort(totalOrder(plan, orderAt(plan, at, world)))
    .map((row) => row.entry);
}

/** Whether a listing, as of an instant, has a row that is live then. */
export function listedBy(
  plan: ListingPlan,
  at: Instant,
  world: FilterWorld,
  others: Others,
): (row: ListingRow) => boolean {
  const filters = new Map(
    partsOf(plan).map((p) => [p.type.id, resolveFilter(p.filter, at, p.zone, world)]),
  );
  return (row) => {
    const filter = filters.get(row.type);
    if (filter === undefined || !holds(filter, row, others)) return false;
    const search = partFor(plan, row.type)?.search;
    return search === undefined || finds(search, row);
  };
}

/** Whether a row passes a filter. */
export function holds(filter: ResolvedFilter, row: ListingRow, others: Others): boolean {
  if (filter.kind !== 'group') return testHolds(filter, row, others);
  const { op, filters } = filter;
  if (op === 'all') return filters.every((f) => holds(f, row, others));
  const any = filters.some((f) => holds(f, row, others));
  return op === 'any' ? any : !any;
}

function testHolds(test: Test, row: ListingRow, others: Others): boolean {
  const { column } = test;
  let value = column.family === 'identity' ? null : cell(row, column);
  if (test.kind === 'through') return leadsThrough(test, value as string[], others);
  if (test.kind !== 'identity' && column.target?.of === 'entries')
    value = (value as string[]).filter((id) => others.isLive(id));
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
    case 'identity':
      return test.negated !== test.entries.includes(row.entry);
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

function leadsThrough(
  { by }: Extract<Test, { kind: 'through' }>,
  entries: readonly string[],
  others: Others,
): boolean {
  return entries.some((id) => {
    const row = others.row(id);
    const led = row && by.get(row.type);
    return led ? holds(led.filter, row, others) : false;
  });
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
