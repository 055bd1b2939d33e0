import type { CalendarDay } from '../time/zone.ts';
import type { Column } from './columns.ts';
import { conditionOf } from './condition.ts';
import { newestFirst } from './newest.ts';
import { inEach } from './parts.ts';
import { inItsOrders } from './visit.ts';
import type { Condition, Fan, Filter, ListingPlan } from './plan.ts';

/** A page of a listing that has one for each value. */
export interface FanValue {
  /** A subject's, an option's, an entry's or a person's id, a year (`2026`) or a month (`2026-03`). */
  key: string;
  name: string;
  description: string;
  /** Where its first page stands. */
  path: string;
  /** The key of the value that it lies within; null where it lies in none. */
  parent: string | null;
  /** How many entries it has, at least 1. */
  count: number;
}

/** At most so many plans of single values are kept for a listing. */
const MOST_KEPT = 5000;

const kept = new WeakMap<ListingPlan, Map<string, ListingPlan>>();

/**
 * A listing that has a page for each value, for one of them: the id of a subject, an option or an
 * entry, a year (`2026`) or a month (`2026-03`).
 */
export function fanned(plan: ListingPlan, key: string): ListingPlan {
  let known = kept.get(plan);
  if (!known) kept.set(plan, (known = new Map<string, ListingPlan>()));
  let made = known.get(key);
  if (!made) {
    if (known.size >= MOST_KEPT) known.clear();
    made = inEach(plan, (part) =>
      narrowed(part, conditionsFor(part.each!, key), { id: key, index: 'each' }),
    );
    known.set(key, made);
  }
  return made;
}

/** The same entries, those last that are first by the date it has pages for: before a day. */
export function latestBefore(plan: ListingPlan, day: CalendarDay | null): ListingPlan {
  return inEach(plan, (part) => latestOf(part, day));
}

function latestOf(plan: ListingPlan, day: CalendarDay | null): ListingPlan {
  const { column } = plan.each!;
  const before =
    day === null
      ? conditionOf(column, 'not-blank', { kind: 'none' })
      : conditionOf(column, 'before', { kind: 'day', day });
  const dates = narrowed(plan, [before], { id: `before ${day}`, index: 'dates' });
  return { ...dates, sort: [{ column, descending: true, blanks: 'last' }], pins: [] };
}

/** Plans whose indexes are those of every other that a listing is read by: each value's, a feed's. */
export function plansBeside(plan: ListingPlan): ListingPlan[] {
  const lists = [plan, ...eachOf(plan)];
  return [
    ...lists.slice(1),
    ...datesOf(plan),
    ...(plan.listing.feed ? lists.map(newestFirst) : []),
    ...lists.flatMap(inItsOrders),
  ];
}

function eachOf(plan: ListingPlan): ListingPlan[] {
  return plan.each ? [fanned(plan, isDated(plan) ? '2000' : '?')] : [];
}

function datesOf(plan: ListingPlan): ListingPlan[] {
  return isDated(plan) ? [latestBefore(plan, null)] : [];
}

/** Whether it has a page for each year or month. */
export function isDated({ each }: ListingPlan): boolean {
  return each?.per === 'year' || each?.per === 'month';
}

function narrowed(
  plan: ListingPlan,
  conditions: Condition[],
  { id, index }: { id: string; index: string },
): ListingPlan {
  const { filter, listing } = plan;
  const own: Filter[] = filter.kind === 'all' ? filter.filters : [filter];
  return {
    ...plan,
    each: null,
    index: `${index} of ${listing.id}`,
    listing: { ...listing, id: `${listing.id} ${id}` },
    filter: { kind: 'all', filters: [...own, ...conditions] },
  };
}

function conditionsFor({ column, per }: Fan, key: string): Condition[] {
  // An entry has a page only while it is live: nothing more is asked of it.
  const led = { ...column, target: null };
  if (per === 'entry') return [conditionOf(led, 'is', { kind: 'keys', keys: [key] })];
  if (per === 'subject' || per === 'choice' || per === 'author')
    return [conditionOf(column, 'is', { kind: 'keys', keys: [key] })];
  return between(column, key);
}

/** The conditions that a date lies within a year or a month. */
function between(column: Column, key: string): Condition[] {
  const [year, month] = key.split('-').map(Number) as [number, number?];
  const day = (y: number, m: number): string =>
    `${String(y).padStart(4, '0')}-${String(m).padStart(2, '0')}-01`;
  const isLast = month === undefined || month === 12;
  const from = conditionOf(column, 'on-or-after', { kind: 'day', day: day(year, month ?? 1) });
  if (isLast && year === LAST_YEAR) return [from];
  const next = isLast ? day(year + 1, 1) : day(year, month + 1);
  return [from, conditionOf(column, 'before', { kind: 'day', day: next })];
}

const LAST_YEAR = 9999;
