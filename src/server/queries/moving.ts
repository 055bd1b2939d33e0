import { typesToDealAnew } from '@/core/address/rules.ts';
import type { CompiledSite } from '@/core/site/compile.ts';
import type { Instant } from '@/core/time/interval.ts';
import { asOf } from '../store/as-of.ts';
import { NO_SITE } from '../store/designs-ahead.ts';
import { tablesRead } from '../store/language-tables.ts';
import { statement } from '../store/statement.ts';
import type { SiteView } from './site-view.ts';

/** Above so many pages that would move, they are shown at the addresses they have. */
export const MOST_MOVED = 2000;

/**
 * Live entries whose addresses may differ by the working design, in the language in which it is
 * given; null where they are too many to be worked out for a screen. In a language that is not
 * released so far all may.
 */
export function movingOn(view: SiteView, working: CompiledSite, at: Instant): string[] | null {
  const language = working.design.edition?.id;
  const released = view
    .at(at)!
    .site.languages.find(({ design }) => design.edition?.id === language);
  if (released === working) return [];
  const types = typesToDealAnew((released ?? NO_SITE).addresses, working.addresses);
  const names = tablesRead(view.connection, released && language);
  const live = statement<string>(
    view.connection,
    `SELECT e.id FROM entry AS e JOIN ${names.live} AS l ON l.entry = e.id AND ${asOf('l')}
       WHERE e.type = ? LIMIT ${MOST_MOVED + 1}`,
  ).pluck();
  const found = [...types].flatMap((type) => live.all(at, at, type));
  return found.length > MOST_MOVED ? null : found;
}
