import { plansBeside } from '@/core/listing/fan-out.ts';
import { partsOf } from '@/core/listing/parts.ts';
import type { ListingPlan } from '@/core/listing/plan.ts';
import { type Design, designSpec } from '@/core/design/spec.ts';
import { type CompiledSite, compileSite } from '@/core/site/compile.ts';
import type { RulesOver } from '@/core/timing/plans.ts';
import { BEGINNING, type Instant } from '@/core/time/interval.ts';
import type { Connection } from '../db/connection.ts';
import { designsOf } from './design-store.ts';

/** The design that holds at some instant, and those that take over later, in their order. */
export interface DesignsAhead {
  first: CompiledSite;
  later: readonly { starts: Instant; site: CompiledSite }[];
  /** Id of the further language that they are read in; left out for the site's own. */
  language?: string;
}

/** The designs from an instant on; `first` holds then. */
export function designsFrom(
  connection: Connection,
  at: Instant,
  first: CompiledSite,
): DesignsAhead {
  return { first, later: designsOf(connection).after(at) };
}

/** Ids of the further languages that some of the designs have. */
export function languagesAhead(designs: DesignsAhead): string[] {
  const all = sitesOf(designs).flatMap(({ design }) => design.languages.map(({ id }) => id));
  return [...new Set(all)];
}

/** The same designs in a further language, by its id; of one that lacks it nothing is there. */
export function designsIn({ first, later }: DesignsAhead, language: string): DesignsAhead {
  return {
    language,
    first: siteIn(first, language),
    later: later.map(({ starts, site }) => ({ starts, site: siteIn(site, language) })),
  };
}

/** A site in a further language, by its id; one without anything where it is not in it. */
export function siteIn({ languages }: CompiledSite, language: string): CompiledSite {
  return languages.find(({ design }) => design.edition?.id === language) ?? NO_SITE;
}

/** A site of which nothing is there. */
export const NO_SITE = compileSite(
  designSpec.parse({
    site: { name: 'No site', url: 'http://localhost', zone: 'UTC', language: 'en' },
    types: [],
  }),
).site;

/** The design that holds at an instant. */
export function siteAt({ first, later }: DesignsAhead, at: Instant): CompiledSite {
  let site = first;
  for (const next of later) if (next.starts <= at) site = next.site;
  return site;
}

/** The timing rules of a type in each of the designs, with when it holds. */
export function rulesOver({ first, later }: DesignsAhead, typeId: string): RulesOver[] {
  const all = [{ starts: BEGINNING, site: first }, ...later];
  return all.map(({ starts, site }, i) => ({
    from: starts,
    to: all[i + 1]?.starts ?? null,
    rules: site.timing.get(typeId) ?? [],
  }));
}

/** What a design has listed, by type: listings, for each value and as feeds too, other sides. */
export function plansOf({ listings, otherSides }: CompiledSite): ListingPlan[] {
  const own = [...listings.values()];
  return [...own, ...own.flatMap(plansBeside), ...otherSides.values()].flatMap(partsOf);
}

/** The design by which rows are written: the one that holds, or of a language still to come its first. */
export function writtenBy(designs: DesignsAhead): Design {
  const all = sitesOf(designs);
  const first =
    designs.language === undefined ? undefined : all.find(({ design }) => design.edition);
  return (first ?? designs.first).design;
}

/** All of them, in their order. */
export function sitesOf({ first, later }: DesignsAhead): CompiledSite[] {
  return [first, ...later.map(({ site }) => site)];
}
