import type { CompiledSite } from '@/core/site/compile.ts';
import { timingForm } from '@/core/timing/rules.ts';
import { type Instant, earlier } from '@/core/time/interval.ts';
import { asOf } from '../store/as-of.ts';
import { statement } from '../store/statement.ts';
import { StoredTimeline } from '../store/timeline-source.ts';
import { entryName } from './display.ts';
import type { SiteView } from './site-view.ts';

/** Live entries that rules retire at another time than before, and the first of them. */
export interface RetimedEntries {
  total: number;
  first: { entry: string; name: string; was: Instant | null; leaves: Instant | null }[];
}

const SHOWN = 5;

/** Ids of the types whose timing rules, or what these read, differ in two designs. */
function retimed(before: CompiledSite, after: CompiledSite): string[] {
  return after.design.types.flatMap((type) => {
    const was = before.types.get(type.id);
    const same = was && timingForm(was, before.design) === timingForm(type, after.design);
    return same ? [] : [type.id];
  });
}

/**
 * Finds which live entries other timing rules retire at another time, little by little; gives what
 * is known so far.
 */
export function* findRetimed(
  view: SiteView,
  [before, after]: readonly [CompiledSite, CompiledSite],
  at: Instant,
): Generator<RetimedEntries, void> {
  const { connection } = view;
  const found: RetimedEntries = { total: 0, first: [] };
  const live = statement<string>(
    connection,
    `SELECT e.id FROM entry AS e JOIN live_interval AS l ON l.entry = e.id AND ${asOf('l')}
       WHERE e.type = ?`,
  ).pluck();
  const retirement = statement<Instant | null>(
    connection,
    `SELECT min(at) FROM planned_change WHERE entry = ? AND action = 'retire' AND at > ?`,
  ).pluck();
  const sides = [before, after].map(
    (first) => new StoredTimeline(connection, { first, later: [] }),
  );
  for (const type of retimed(before, after))
    for (const id of live.all(at, at, type)) {
      const planned = retirement.get(id, at)!;
      const [was, leaves] = sides.map((side) => earlier(side.endingAhead(id, at), planned));
      if (was !== leaves) {
        found.total += 1;
        if (found.first.length < SHOWN)
          found.first.push({ entry: id, name: entryName(view, id), was: was!, leaves: leaves! });
      }
      yield found;
    }
}
