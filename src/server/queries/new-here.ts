import { partFor } from '@/core/listing/parts.ts';
import { standingValues } from '@/core/listing/standing-values.ts';
import type { ContentType } from '@/core/design/spec.ts';
import type { Values } from '@/core/design/values.ts';
import type { Instant } from '@/core/time/interval.ts';
import { entryName } from './display.ts';
import type { SiteView } from './site-view.ts';

/** Where a new one is to stand: in a listing, in picks, or among those that lead to an entry. */
export interface Here {
  here: { listing: string } | { picks: string } | { field: string; entry: string };
}

/** What a new entry begins with. */
export interface Begun {
  values: Values;
  /** What it is like, or where it is to stand. */
  name: string;
  /** Labels of fields that are left blank since no two may share them. */
  blank: string[];
  /** Whether it begins with what makes it stand somewhere. */
  stands?: boolean;
  /** Picks that it is to join when it is saved first. */
  joins?: { id: string; label: string };
}

/** What makes a new entry stand somewhere; null where its type cannot. */
export function begunHere(
  view: SiteView,
  type: ContentType,
  here: Here['here'],
  at: Instant,
): Begun | null {
  const site = view.at(at)!.site;
  if ('listing' in here) {
    const listing = site.listings.get(here.listing);
    const plan = listing && partFor(listing, type.id);
    if (!plan) return null;
    const values = standingValues(plan, at, view.readerOf(site).filterWorld(at));
    return { values, name: plan.listing.label, blank: [], stands: true };
  }
  if ('picks' in here) {
    const picks = site.design.picks.find(({ key }) => key === here.picks);
    if (!picks) return null;
    const { id, label } = picks;
    return { values: {}, name: label, blank: [], joins: { id, label } };
  }
  const field = type.fields.find(({ id }) => id === here.field);
  if (!field) return null;
  const value = field.many ? [here.entry] : here.entry;
  const name = entryName(view, here.entry);
  return { values: { [field.id]: value }, name, blank: [], stands: true };
}
