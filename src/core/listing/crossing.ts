import type { Instant } from '../time/interval.ts';
import { daySpan } from '../time/zone.ts';
import { CHANCE, type Column } from './columns.ts';
import { relativesOf } from './operand.ts';
import { type Condition, type ListingPlan, conditionsOf } from './plan.ts';

/** A `now ± ms` comparison: the result can change when `now + ms` reaches a value of the column. */
export interface MovingComparison {
  column: Column;
  ms: number;
}

/** The comparisons of a listing, in its first type, that move continuously with the clock. */
export function movingComparisons(plan: ListingPlan): MovingComparison[] {
  return movingIn(conditionsOf(plan.filter));
}

/** Those among conditions on one type's entries. */
export function movingIn(conditions: readonly Condition[]): MovingComparison[] {
  return conditions.flatMap(({ column, op, operand }) =>
    relativesOf(op, operand).flatMap((value) =>
      'now' in value && !column.isAbsent ? [{ column, ms: value.now }] : [],
    ),
  );
}

/** The next site midnight, where the listing or its order speaks of today; else null. */
export function nextDayCrossing(plan: ListingPlan, at: Instant): Instant | null {
  const own = conditionsOf(plan.filter);
  const led = own.flatMap(({ through }) => through ?? []).map(({ condition }) => condition);
  const speaksOfToday = [...own, ...led].some(({ op, operand }) =>
    relativesOf(op, operand).some((value) => 'today' in value),
  );
  const isOrdered = plan.sort.some(({ column, from }) => from !== undefined || column === CHANCE);
  return speaksOfToday || isOrdered ? daySpan(at, plan.zone).to : null;
}

/**
 * The instant at which `now + ms` first leaves or reaches a value, given the least value at or
 * after
 * `at + ms`: either comparison (before, on or before) may flip at that value or 1 ms later.
 */
export function crossingOf(leastValue: number | null, ms: number, at: Instant): Instant | null {
  if (leastValue === null) return null;
  return Math.max(at + 1, leastValue - ms);
}
