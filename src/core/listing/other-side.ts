import { listingSpec } from '../design/listing-spec.ts';
import { type OtherSide, otherSideId, otherSidesOf } from '../design/other-sides.ts';
import type { Design } from '../design/spec.ts';
import { type Condition, type ListingPlan } from './plan.ts';
import { planListing } from './planner.ts';

/** Lists of the entries that lead to one by a reference, by `otherSideId`, for no entry yet. */
export function planOtherSides(design: Design): Map<string, ListingPlan> {
  const sides = design.types.flatMap((type) => otherSidesOf(type, design));
  return new Map(
    sides.flatMap((side) => {
      const plan = planOf(side, design);
      return plan ? [[otherSideId(side), plan] as const] : [];
    }),
  );
}

function planOf(side: OtherSide, design: Design): ListingPlan | null {
  const { type, field } = side;
  const where = { field: field.key, op: 'is', value: '?' };
  const listing = listingSpec.parse({ key: 'others', type: type.key, where });
  const { plan } = planListing(listing, design);
  if (plan?.filter.kind !== 'condition') return null;
  // Whose page it is, is there: nothing has to be asked of it.
  const column = { ...plan.filter.column, target: null };
  const index = `others of ${otherSideId(side)}`;
  return { ...plan, index, filter: { ...plan.filter, column } };
}

/** Such a list for one entry. */
export function otherSideOf(plan: ListingPlan, entry: string): ListingPlan {
  const operand = { kind: 'keys' as const, keys: [entry] };
  return {
    ...plan,
    listing: { ...plan.listing, id: `${plan.index} ${entry}` },
    filter: { ...(plan.filter as Condition), operand },
  };
}
