import { plansBeside } from '@/core/listing/fan-out.ts';
import { partsOf } from '@/core/listing/parts.ts';
import type { ListingPlan } from '@/core/listing/plan.ts';
import type { CompiledSite } from '@/core/site/compile.ts';
import type { RulesOver } from '@/core/timing/plans.ts';
import { BEGINNING, type Instant } from '@/core/time/interval.ts';
import type { Connection } from '../db/connection.ts';
import { designsOf } from './design-store.ts';

/** The design that holds at some instant, and those that take over later, in their order. */
export interface DesignsAhead {
  first: CompiledSite;
  later: readonly { starts: Instant; site: CompiledSite }[];
}

/** The designs from an instant on; `first` holds then. */
export function designsFrom(
  connection: Connection,
  at: Instant,
  first: CompiledSite,
): DesignsAhead {
  return { first, later: designsOf(connection).after(at) };
}

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

/** All of them, in their order. */
export function sitesOf({ first, later }: DesignsAhead): CompiledSite[] {
  return [first, ...later.map(({ site }) => site)];
}
