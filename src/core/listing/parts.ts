import { type Condition, type ListingPlan, type Through, conditionsOf } from './plan.ts';

/** A listing for each of its types, the first in front. */
export function partsOf(plan: ListingPlan): ListingPlan[] {
  return plan.also.length === 0 ? [plan] : [plan, ...plan.also];
}

/** A listing as it is for the entries of one type, by its id; undefined where it has none of it. */
export function partFor(plan: ListingPlan, type: string): ListingPlan | undefined {
  return plan.type.id === type ? plan : plan.also.find((part) => part.type.id === type);
}

/** A listing with something else in each of its types. */
export function inEach(plan: ListingPlan, change: (part: ListingPlan) => ListingPlan): ListingPlan {
  return { ...change(plan), also: plan.also.map(change) };
}

/** Every condition of a listing, in each of its types. */
export function conditionsIn(plan: ListingPlan): Condition[] {
  return partsOf(plan).flatMap(({ filter }) => conditionsOf(filter));
}

/** As `conditionsIn`, with what is asked of entries that references lead to. */
export function allConditionsIn(plan: ListingPlan): Condition[] {
  return conditionsIn(plan).flatMap((condition) => [
    condition,
    ...(condition.through ?? []).map((through) => through.condition),
  ]);
}

/** What a listing asks of entries that references lead to. */
export function throughIn(plan: ListingPlan): Through[] {
  return conditionsIn(plan).flatMap(({ through }) => through ?? []);
}
