import type { Design, Template } from '../design/spec.ts';
import type { Step } from './steps.ts';

/** Steps that have a template chosen for its type, or a frame for the site; none where it is. */
export function choosing(design: Design, template: Template): Step[] {
  if (template.kind === 'frame') return setting(template, 'site', 'frame', design.site.frame);
  const type = design.types.find(({ key }) => key === template.type);
  if (!type || template.kind === 'menu') return [];
  const part = `types/${type.id}`;
  return template.kind === 'card'
    ? setting(template, part, 'card', type.card)
    : setting(template, part, 'template', type.template);
}

/** Steps that have a page of no type, or a card, chosen for the listing that it is tried on. */
export function choosingList(design: Design, template: Template): Step[] {
  const what = template.kind === 'card' ? 'card' : 'template';
  if (what === 'template' && (template.kind !== 'page' || template.type !== undefined)) return [];
  const listing = listingFor(design, template);
  if (!listing || (what === 'card' && listing.card === undefined)) return [];
  return setting(template, `listings/${listing.id}`, what, listing[what]);
}

/**
 * The listing that a page of no type, or a card, is tried on: one that has chosen it, for a card
 * one of its type first that has none of its own, else the first.
 */
export function listingFor(
  { listings }: Design,
  { key, kind, type }: Template,
): Design['listings'][number] | undefined {
  const own = listings.filter(({ address }) => address !== undefined);
  if (kind !== 'card') return own.find(({ template }) => template === key) ?? own[0];
  const first = own.filter((listing) => listing.type === type);
  const further = own.filter(({ also = [] }) => type !== undefined && also.includes(type));
  return (
    [...first, ...further].find(({ card }) => card === key) ??
    firstWithout(first) ??
    firstWithout(further)
  );
}

/** The first listing without a card of its own; else the first. */
function firstWithout(listings: Design['listings']): Design['listings'][number] | undefined {
  return listings.find(({ card }) => card === undefined) ?? listings[0];
}

function setting(
  { key }: Template,
  part: string,
  property: string,
  was: string | undefined,
): Step[] {
  return was === key ? [] : [{ do: 'set', part, property, was: was ?? null, now: key }];
}
