import { typesToDealAnew } from '@/core/address/rules.ts';
import type { CompiledSite } from '@/core/site/compile.ts';
import type { Instant } from '@/core/time/interval.ts';
import { asOf } from '../store/as-of.ts';
import { statement } from '../store/statement.ts';
import type { SiteView } from './site-view.ts';

/** Above so many pages that would move, they are shown at the addresses they have. */
export const MOST_MOVED = 2000;

/**
 * Live entries whose addresses may differ by the working design; null where they are too many to
 * be worked out for a screen.
 */
export function movingOn(view: SiteView, working: CompiledSite, at: Instant): string[] | null {
  const released = view.at(at)!.site;
  if (released === working) return [];
  const types = typesToDealAnew(released.addresses, working.addresses);
  const live = statement<string>(
    view.connection,
    `SELECT e.id FROM entry AS e JOIN live_interval AS l ON l.entry = e.id AND ${asOf('l')}
       WHERE e.type = ? LIMIT ${MOST_MOVED + 1}`,
  ).pluck();
  const found = [...types].flatMap((type) => live.all(at, at, type));
  return found.length > MOST_MOVED ? null : found;
}
