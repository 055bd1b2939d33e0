import { compareCodePoints } from '../text.ts';
import type { Instant } from '../time/interval.ts';
import { type CalendarDay, calendarDay, daysApart } from '../time/zone.ts';
import { CHANCE, type ListingRow, MATCH, PLACE, cell, sortCell } from './columns.ts';
import { partFor, partsOf } from './parts.ts';
import { type FilterWorld, type ListingPlan, type SortKey, namedBy } from './plan.ts';
import { entriesNamed } from './resolve.ts';
import { matchOf } from './search.ts';

/** What an order depends on besides the rows. */
export interface OrderAt {
  /** The places of entries in the order in which the listing's conditions name them. */
  places: ReadonlyMap<string, number>;
  /** In the site's zone. */
  today: CalendarDay;
}

/** What a listing's order depends on as of an instant. */
export function orderAt(plan: ListingPlan, at: Instant, world: FilterWorld): OrderAt {
  const named = plan.sort.some(({ column }) => column === PLACE) ? namedBy(plan.filter) : null;
  const entries = named ? entriesNamed(named, world) : [];
  return {
    places: new Map(entries.map((entry, i) => [entry, i])),
    today: calendarDay(at, plan.zone),
  };
}

/** What a row has by a key of a listing's order, in one of its types; null where blank. */
export function orderCell(
  part: ListingPlan,
  { column, from }: SortKey,
  row: ListingRow,
  { places, today }: OrderAt,
): string | number | null {
  if (column === PLACE) return places.get(row.entry) ?? null;
  if (column === MATCH) return matchOf(part.search!, row);
  if (column === CHANCE) return chanceOf(row.entry, today);
  if (from === undefined) return sortCell(row, column);
  const value = cell(row, column) as string | number | null;
  return value === null ? null : distanceFrom(value, today, part.zone);
}

/** How many days a day, or an instant in a zone, is away from a day. */
export function distanceFrom(value: string | number, today: CalendarDay, zone: string): number {
  return daysApart(typeof value === 'number' ? calendarDay(value, zone) : value, today);
}

/** A number from 0 to 2³² that an entry has for a day: the order by it is another each day. */
export function chanceOf(entry: string, day: CalendarDay): number {
  let hash = 0x811c9dc5;
  for (const char of `${day} ${entry}`) {
    hash ^= char.codePointAt(0)!;
    hash = Math.imul(hash, 0x01000193);
  }
  // Ids that differ in their last letter alone are to come apart (MurmurHash3's finalizer).
  hash = Math.imul(hash ^ (hash >>> 16), 0x85ebca6b);
  hash = Math.imul(hash ^ (hash >>> 13), 0xc2b2ae35);
  return (hash ^ (hash >>> 16)) >>> 0;
}

/** Compares rows by the sort keys, then created, then id; blanks stand where each key says. */
export function totalOrder(
  plan: ListingPlan,
  order: OrderAt,
): (a: ListingRow, b: ListingRow) => number {
  const parts = new Map(partsOf(plan).map((part) => [part.type.id, part]));
  const cellOf = (row: ListingRow, i: number): string | number | null => {
    const part = parts.get(row.type) ?? plan;
    return orderCell(part, part.sort[i]!, row, order);
  };
  return (a, b) => {
    for (const [i, { descending, blanks }] of plan.sort.entries()) {
      const [x, y] = [cellOf(a, i), cellOf(b, i)];
      if (x === y) continue;
      if (x === null || y === null) return (x === null) === (blanks === 'first') ? -1 : 1;
      const way = typeof x === 'string' ? compareCodePoints(x, y as string) : x - (y as number);
      if (way !== 0) return descending ? -way : way;
    }
    return a.created - b.created || compareCodePoints(a.entry, b.entry);
  };
}

/** What a row has by each key of a listing's order, and last. */
export interface OrderCells extends Pick<OrderAt, 'today'> {
  keys: (string | number | null)[];
  created: Instant;
  entry: string;
}

/** What a row has by each key of a listing's order, and last. */
export function cellsOf(plan: ListingPlan, row: ListingRow, order: OrderAt): OrderCells {
  const { created, entry } = row;
  const part = partFor(plan, row.type) ?? plan;
  const keys = part.sort.map((key) => orderCell(part, key, row, order));
  return { keys, created, entry, today: order.today };
}
