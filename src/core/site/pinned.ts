import type { EntryView } from '../design/values.ts';
import type { Neighbours, SiteReader } from './reader.ts';
import { type Instant, type Validity, covers } from '../time/interval.ts';
import { rowOf } from '../listing/columns.ts';
import { partFor } from '../listing/parts.ts';
import type { ListingPlan, Pin } from '../listing/plan.ts';

/** Reading lists, and what stands in them. */
type Lists = Pick<SiteReader, 'listing' | 'neighbours' | 'preceding' | 'liveEntries'>;

/** The pin by which an entry is to stand first in a listing at an instant; null for none. */
export function pinOf({ pins }: ListingPlan, entry: string, at: Instant): Pin | null {
  return pins.find((pin) => pin.entry === entry && covers(pin, at)) ?? null;
}

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

/** How many entries a listing has in all. */
export function totalOf(
  reader: Pick<Lists, 'listing'>,
  plan: ListingPlan,
  validity: Validity,
): number {
  return cut(plan, reader.listing(plan, validity, 0, 1).total);
}

/** How many pages a listing has, at least 1. */
export function pageCountOf(
  reader: Pick<Lists, 'listing'>,
  plan: ListingPlan,
  validity: Validity,
): number {
  return Math.max(1, Math.ceil(totalOf(reader, plan, validity) / plan.listing.pageSize));
}

/** How many of a list's entries are left where it leaves some of its first out, or has a most. */
function cut({ listing: { skip = 0, most = Infinity } }: ListingPlan, total: number): number {
  return Math.min(most, Math.max(0, total - skip));
}

/** A stretch of a listing, those pinned first, and how many entries it has in all. */
export function stretchOf(
  reader: Lists,
  plan: ListingPlan,
  validity: Validity,
  offset: number,
  limit: number,
): { ids: string[]; total: number } {
  const { skip = 0, most = Infinity } = plan.listing;
  const size = Math.max(0, Math.min(limit, most - offset));
  const whole = uncutStretch(reader, plan, validity, offset + skip, size);
  if (skip === 0 && most === Infinity) return whole;
  return {
    ids: whole.ids,
    get total() {
      return cut(plan, whole.total);
    },
  };
}

function uncutStretch(
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
  const found = uncutBeside(reader, plan, entry, validity);
  const { skip, most } = plan.listing;
  if ((skip === undefined && most === undefined) || !found.isIn) return found;
  const place = placeIn(reader, plan, entry, validity);
  if (place === null) return { isIn: false, before: null, after: null };
  const isLast = place + 1 === most;
  return {
    isIn: true,
    before: place === 0 ? null : found.before,
    after: isLast ? null : found.after,
  };
}

function uncutBeside(
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

/**
 * How many entries of a listing stand before one that its conditions let in, those pinned first;
 * null where it is among those that are left out for their place.
 */
export function placeIn(
  reader: Lists,
  plan: ListingPlan,
  entry: EntryView,
  validity: Validity,
): number | null {
  const { skip = 0, most = Infinity } = plan.listing;
  const pinned = pinnedIn(reader, plan, validity).map(({ id }) => id);
  const at = pinned.indexOf(entry.id);
  const uncut =
    at >= 0 ? at : pinned.length + reader.preceding(plan, rowOf(entry), validity, pinned);
  const place = uncut - skip;
  return place >= 0 && place < most ? place : null;
}
