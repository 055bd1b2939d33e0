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

/** Steps that have a page of no type chosen for the listing that it is tried on. */
export function choosingList(design: Design, template: Template): Step[] {
  if (template.kind !== 'page' || template.type !== undefined) return [];
  const listing = listingFor(design, template);
  if (!listing) return [];
  return setting(template, `listings/${listing.id}`, 'template', listing.template);
}

/** The listing that a page of no type is tried on: one that has chosen it, else the first. */
export function listingFor(
  { listings }: Design,
  { key }: Template,
): Design['listings'][number] | undefined {
  const own = listings.filter(({ address }) => address !== undefined);
  return own.find(({ template }) => template === key) ?? own[0];
}

function setting(
  { key }: Template,
  part: string,
  property: string,
  was: string | undefined,
): Step[] {
  return was === key ? [] : [{ do: 'set', part, property, was: was ?? null, now: key }];
}
