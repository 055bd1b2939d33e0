import type { EntryView } from '../design/values.ts';
import type { Neighbours, SiteReader } from './reader.ts';
import { type Validity, covers } from '../time/interval.ts';
import { rowOf } from '../listing/columns.ts';
import { partFor } from '../listing/parts.ts';
import type { ListingPlan } from '../listing/plan.ts';

/** Reading lists, and what stands in them. */
type Lists = Pick<SiteReader, 'listing' | 'neighbours' | 'preceding' | 'liveEntries'>;

/** The entries that stand first in a listing at an instant, in the order of its pins. */
export function pinnedIn(reader: Lists, plan: ListingPlan, validity: Validity): EntryView[] {
  if (plan.pins.length === 0) return [];
  const ids = new Set<string>();
  for (const pin of plan.pins) {
    validity.tell(pin.from);
    validity.tell(pin.to);
    if (covers(pin, validity.at)) ids.add(pin.entry);
  }
  const live = reader.liveEntries([...ids], validity);
  return [...ids]
    .flatMap((id) => live.get(id) ?? [])
    .filter(
      (entry) =>
        partFor(plan, entry.type.id) && reader.neighbours(plan, rowOf(entry), validity).isIn,
    );
}

/** A stretch of a listing, those pinned first, and how many entries it has in all. */
export function stretchOf(
  reader: Lists,
  plan: ListingPlan,
  validity: Validity,
  offset: number,
  limit: number,
): { ids: string[]; total: number } {
  const pinned = pinnedIn(reader, plan, validity).map(({ id }) => id);
  if (pinned.length === 0) return reader.listing(plan, validity, offset, limit);
  const first = pinned.slice(offset, offset + limit);
  const from = Math.max(0, offset - pinned.length);
  const rest = reader.listing(plan, validity, from, limit - first.length, pinned);
  return {
    ids: [...first, ...rest.ids],
    get total() {
      return pinned.length + rest.total;
    },
  };
}

/** The entries of a listing just before and just after one, those pinned first. */
export function besideIn(
  reader: Lists,
  plan: ListingPlan,
  entry: EntryView,
  validity: Validity,
): Neighbours {
  const pinned = pinnedIn(reader, plan, validity).map(({ id }) => id);
  const at = pinned.indexOf(entry.id);
  if (at < 0) {
    const found = reader.neighbours(plan, rowOf(entry), validity, pinned);
    return { ...found, before: found.before ?? pinned.at(-1) ?? null };
  }
  const after = pinned[at + 1] ?? reader.listing(plan, validity, 0, 1, pinned).ids[0] ?? null;
  return { isIn: true, before: pinned[at - 1] ?? null, after };
}

/** How many entries of a listing stand before one that is in it, those pinned first. */
export function placeIn(
  reader: Lists,
  plan: ListingPlan,
  entry: EntryView,
  validity: Validity,
): number {
  const pinned = pinnedIn(reader, plan, validity).map(({ id }) => id);
  const at = pinned.indexOf(entry.id);
  return at >= 0 ? at : pinned.length + reader.preceding(plan, rowOf(entry), validity, pinned);
}
