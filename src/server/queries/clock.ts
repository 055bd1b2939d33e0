import type { SiteView } from './site-view.ts';
import { type Actor, permit } from '../commands/permit.ts';
import { unpublishedCount } from './today.ts';
import { parseInstant } from '@/core/time/parse.ts';
import type { Instant } from '@/core/time/interval.ts';

/** What the builder sees of unpublished things. */
export type Seeing = 'published' | 'draft';

/** The instant and the view a builder looks with. */
export interface Clock {
  now: Instant;
  at: Instant;
  /** Where the clock stands: at now, before it, or after it. */
  tense: 'now' | 'past' | 'future';
  seeing: Seeing;
  zone: string;
}

/** An instant at which the public site changes, with how many changes and the first few in words. */
export interface ChangeTick {
  at: Instant;
  count: number;
  names: string[];
}

/** The clock from an address bar's `at` and `seeing`; what cannot be read counts as now, as published. */
export function readClock(
  view: SiteView,
  parameters: { at?: string | string[]; seeing?: string | string[] },
): Clock {
  const now = Date.now();
  const zone = view.at(now)?.site.design.site.zone ?? 'UTC';
  const given = typeof parameters.at === 'string' ? parseInstant(parameters.at, zone) : null;
  const seeing = parameters.seeing === 'draft' ? 'draft' : 'published';
  return {
    now,
    at: given ?? now,
    tense: given === null ? 'now' : given < now ? 'past' : 'future',
    seeing,
    zone,
  };
}

/** What surrounds every screen. */
export interface ShellDetail {
  siteName: string;
  zone: string;
  unpublished: number;
  ticks: ChangeTick[];
}

const YEAR_MS = 366 * 86_400_000;

/** The site's name and zone, how much is unpublished, and the changes of the year before and after. */
export function shellDetail(view: SiteView, actor: Actor, now: Instant): ShellDetail {
  permit(actor, 'read-unpublished');
  const site = view.at(now)?.site.design.site;
  if (!site) return { siteName: 'No site yet', zone: 'UTC', unpublished: 0, ticks: [] };
  return {
    siteName: site.name,
    zone: site.zone,
    unpublished: unpublishedCount(view),
    ticks: changeTicks(view, now - YEAR_MS, now + YEAR_MS),
  };
}

/** The instants between two others at which something goes live, changes or leaves. */
function changeTicks(view: SiteView, from: Instant, to: Instant): ChangeTick[] {
  const sql = `
    SELECT at, count(DISTINCT entry) AS count, group_concat(DISTINCT name) AS names FROM (
      SELECT l.starts AS at, l.entry, r.name FROM live_interval AS l JOIN revision AS r ON r.entry = l.entry AND r.number = l.revision WHERE l.starts BETWEEN @from AND @to
      UNION SELECT l.ends, l.entry, r.name FROM live_interval AS l JOIN revision AS r ON r.entry = l.entry AND r.number = l.revision WHERE l.ends BETWEEN @from AND @to
      UNION SELECT starts, 'design', 'Design' FROM design_version WHERE starts BETWEEN @from AND @to
    ) GROUP BY at ORDER BY at LIMIT 2000`;
  const rows = view.connection.driver.prepare(sql).all({ from, to }) as {
    at: number;
    count: number;
    names: string;
  }[];
  return rows.map(({ at, count, names }) => ({ at, count, names: names.split(',').slice(0, 3) }));
}
