import { columnsOf } from './columns.ts';
import { inEach } from './parts.ts';
import type { ListingPlan } from './plan.ts';

const made = new WeakMap<ListingPlan, ListingPlan>();

/** The same entries, those published last first: what feeds tell. */
export function newestFirst(plan: ListingPlan): ListingPlan {
  let newest = made.get(plan);
  if (!newest) {
    newest = inEach(plan, byPublication);
    made.set(plan, newest);
  }
  return newest;
}

function byPublication(plan: ListingPlan): ListingPlan {
  const { listing, index = listing.id } = plan;
  const column = columnsOf(plan.type).get('entry.published')!;
  return {
    ...{ ...plan, each: null, pins: [] },
    index: `newest of ${index}`,
    listing: { ...listing, id: `${listing.id} newest` },
    sort: [{ column, descending: true, blanks: 'last' }],
  };
}
