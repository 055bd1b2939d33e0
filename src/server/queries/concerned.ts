import type { DesignEdit } from '@/core/design-edit/edit.ts';
import { rootOf } from '@/core/design-edit/parts.ts';
import type { Listing } from '@/core/design/listing-spec.ts';
import { partOf } from '@/core/design-edit/steps.ts';
import { pageCountOf } from '@/core/site/pinned.ts';
import type { CompiledSite } from '@/core/site/compile.ts';
import { type Instant, Validity } from '@/core/time/interval.ts';
import { asOf } from '../store/as-of.ts';
import { statement } from '../store/statement.ts';
import type { SiteView } from './site-view.ts';

/**
 * How many pages there are as of an instant that read a part an edit changes: those of its types
 * and listings. No page but these looks otherwise by their own template; fewer may.
 */
export function pagesConcerned(
  view: SiteView,
  site: CompiledSite,
  { steps }: DesignEdit,
  at: Instant,
): number {
  const roots = new Set(steps.map((step) => rootOf(partOf(step))));
  const types = new Set<string>();
  const listings = new Set<string>();
  for (const root of roots) concernedBy(site, root, { types, listings });
  const entries = statement<number>(
    view.connection,
    `SELECT count(*) FROM entry AS e JOIN address AS a ON a.entry = e.id AND a.role = 'current'
       AND ${asOf('a')} WHERE e.type = ?`,
  ).pluck();
  let count = 0;
  for (const type of types) count += entries.get(at, at, type)!;
  for (const key of listings) count += listingPages(view, site, key, at);
  return count;
}

/** Lists of a design whose parts any page may read. */
const EVERYWHERE: ReadonlySet<string> = new Set([
  'subjectSets',
  'textForms',
  'styles',
  'languages',
]);

function concernedBy(
  { design }: CompiledSite,
  root: string,
  found: { types: Set<string>; listings: Set<string> },
): void {
  const [list, id] = root.split('/');
  const all = list === 'site' || list === 'style';
  const template = design.templates.find((t) => list === 'templates' && t.id === id);
  const everywhere = all || template?.kind === 'frame' || EVERYWHERE.has(list!);
  for (const type of design.types)
    if (
      everywhere ||
      (list === 'types' && type.id === id) ||
      (template && [type.template, type.card].includes(template.key))
    )
      found.types.add(type.id);
  for (const listing of design.listings)
    if (
      everywhere ||
      (list === 'listings' && listing.id === id) ||
      (list === 'types' && lists(listing, design.types.find((t) => t.id === id)?.key)) ||
      (template && [listing.template, listing.card].includes(template.key))
    )
      found.listings.add(listing.key);
}

/** Whether entries of a type, by its key, stand in a listing. */
function lists({ type, also = [] }: Listing, key: string | undefined): boolean {
  return key !== undefined && [type, ...also].includes(key);
}

function listingPages(view: SiteView, site: CompiledSite, key: string, at: Instant): number {
  const plan = site.listings.get(key);
  const stands = plan && (plan.listing.address !== undefined || site.frontListing === key);
  const released = view.at(at)!;
  const known = released.site.listings.get(key);
  if (!stands || !known) return 0;
  return pageCountOf(released.reader, known, new Validity(at));
}
