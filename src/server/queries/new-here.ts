import { fanned } from '@/core/listing/fan-out.ts';
import { type PageEntry, onPageOf } from '@/core/listing/of-page.ts';
import { partFor } from '@/core/listing/parts.ts';
import { standingValues } from '@/core/listing/standing-values.ts';
import { fanValueOf } from '@/core/site/fan-values.ts';
import type { ContentType } from '@/core/design/spec.ts';
import type { Values } from '@/core/design/values.ts';
import { type Instant, Validity } from '@/core/time/interval.ts';
import { entryName } from './display.ts';
import { newestValues } from './preview.ts';
import type { SiteView } from './site-view.ts';

/** Where a new one is to stand: in a listing, in picks, or among those that lead to an entry. */
export interface Here {
  here: InListing | { picks: string } | { field: string; entry: string };
}

/** A listing, the entry on whose page it stands, and the key of the value that its page is of. */
interface InListing {
  listing: string;
  on?: string | undefined;
  each?: string | undefined;
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
  if ('listing' in here) return inListing(view, type, here, at);
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

function inListing(view: SiteView, type: ContentType, here: InListing, at: Instant): Begun | null {
  const { site } = view.at(at)!;
  const listing = site.listings.get(here.listing);
  if (!listing) return null;
  const reader = view.readerOf(site);
  const out = { plan: listing, reader, validity: new Validity(at) };
  const { language } = site.design.site;
  const value = here.each === undefined ? null : fanValueOf({ ...out, language }, here.each);
  const whole = value ? fanned(listing, value.key) : listing;
  const plan = partFor(onPageOf(whole, pageEntry(view, here.on, at)), type.id);
  if (!plan) return null;
  const values = standingValues(plan, at, reader.filterWorld(at));
  const { label } = listing.listing;
  return { values, name: value ? `${label}: ${value.name}` : label, blank: [], stands: true };
}

/** An entry with what it has newest, as listings on its page compare with it; null where it is not. */
function pageEntry(view: SiteView, id: string | undefined, at: Instant): PageEntry | null {
  if (id === undefined) return null;
  const { site } = view.at(at)!;
  const type = site.types.get(view.readerOf(site).typeOf(id) ?? '');
  const values = type && newestValues(view, type, id, at);
  return values ? { id, type, values } : null;
}
