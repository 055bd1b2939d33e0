import { type Actor, permit } from '../permit.ts';
import type { Looking } from './clock.ts';
import { inWords } from './condition-in-words.ts';
import { displayWorld } from './display.ts';
import type { SiteView } from './site-view.ts';
import { withSteps } from './unsaved.ts';
import type { ConditionSpec, Listing } from '@/core/design/listing-spec.ts';
import type { Step } from '@/core/design-edit/steps.ts';
import { columnsOf, rowOf } from '@/core/listing/columns.ts';
import { conditionsOf } from '@/core/listing/plan.ts';
import { planPublic } from '@/core/listing/planner.ts';
import { sharedConditions } from '@/core/listing/propose.ts';
import { stretchOf } from '@/core/site/pinned.ts';
import type { CompiledSite } from '@/core/site/compile.ts';
import type { SiteReader } from '@/core/site/reader.ts';
import { Validity } from '@/core/time/interval.ts';

/** Conditions that let some entries in, and as few others as was found. */
export interface Proposal {
  conditions: ConditionSpec[];
  /** Each of them in words. */
  words: string[];
  /** How many entries they let in, those that were chosen included. */
  total: number;
  /** Names of others that they let in, the first of them. */
  others: string[];
}

const MOST_CONDITIONS = 4;
const OTHERS_SHOWN = 5;

/**
 * What could be asked of entries so that those chosen stand in a listing and others do not: of what
 * they have in common that which leaves fewest others, one condition after the other. Null where
 * they are not live, or of another type.
 */
export function proposedConditions(
  view: SiteView,
  actor: Actor,
  { id, steps, entries }: { id: string; steps: Step[]; entries: readonly string[] },
  { at, past }: Looking,
): Proposal | null {
  permit(actor, 'read-unpublished', { of: 'part', path: `listings/${id}` });
  const current = view.editable(at, past);
  if (!current) return null;
  const { site } = withSteps(current.site, steps);
  const listing = site.design.listings.find((l) => l.id === id);
  const type = site.design.types.find(({ key }) => key === listing?.type);
  if (!listing || !type) return null;
  const reader = view.readerOf(site);
  const validity = new Validity(at);
  const chosen = [...reader.liveEntries(entries, validity).values()];
  const rows = chosen.filter((entry) => entry.type.id === type.id).map(rowOf);
  if (rows.length < entries.length || rows.length === 0) return null;
  const around = (set: string, key: string): string[] => aroundOf(reader, set, key, validity);
  const candidates = sharedConditions(columnsOf(type).values(), rows, around);
  const search = new Search({ site, reader, listing, validity });
  const conditions = search.fewest(candidates, rows.length);
  const { ids, total, words } = search.found(conditions, rows.length + OTHERS_SHOWN);
  const others = ids.filter((one) => !entries.includes(one)).slice(0, OTHERS_SHOWN);
  const world = displayWorld(view, at);
  return {
    conditions,
    words: words.map((condition) => inWords(condition, world)),
    total,
    others: others.map((one) => reader.nameOf(one) ?? one),
  };
}

/** The subjects that one lies within, itself first. */
function aroundOf(reader: SiteReader, set: string, key: string, validity: Validity): string[] {
  const found: string[] = [];
  let at: string | null = key;
  while (at !== null && !found.includes(at)) {
    found.push(at);
    at = reader.subject(set, at, validity)?.parent ?? null;
  }
  return found;
}

/** Tries conditions one by one, by how many entries they leave. */
class Search {
  constructor(
    private readonly world: {
      site: CompiledSite;
      reader: SiteReader;
      listing: Listing;
      validity: Validity;
    },
  ) {}

  /** Of some conditions those few that leave fewest entries, until none but `wanted` are left. */
  fewest(candidates: readonly ConditionSpec[], wanted: number): ConditionSpec[] {
    const chosen: ConditionSpec[] = [];
    let left = this.found([], 0).total;
    while (chosen.length < MOST_CONDITIONS && left > wanted) {
      const tries = candidates
        .filter((one) => !chosen.some(({ field }) => field === one.field))
        .map((one) => ({ one, total: this.found([...chosen, one], 0).total }));
      const best = tries.reduce<(typeof tries)[number] | null>(
        (a, b) => (a === null || b.total < a.total ? b : a),
        null,
      );
      if (!best || best.total >= left) break;
      chosen.push(best.one);
      left = best.total;
    }
    return chosen;
  }

  found(conditions: readonly ConditionSpec[], limit: number) {
    const { site, reader, validity } = this.world;
    const { where: _w, skip: _s, most: _m, also: _a, ...rest } = this.world.listing;
    const listing = { ...rest, pins: [], where: { all: [...conditions] } } as unknown as Listing;
    const { plan } = planPublic(listing, site.design);
    if (!plan) return { ids: [], total: Infinity, words: [] };
    const { ids, total } = stretchOf(reader, plan, validity, 0, limit);
    const asked = conditionsOf(plan.filter).slice(0, conditions.length);
    return { ids, total, words: asked };
  }
}
