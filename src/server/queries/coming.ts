import type { SiteView } from './site-view.ts';
import type { Instant } from '@/core/time/interval.ts';
import { asOf } from '../store/as-of.ts';

/** A change of the site that lies ahead, with what it is about. */
export interface ComingChange {
  at: Instant;
  entry: string;
  name: string;
  type: string;
  /** `live`: goes live or shows another revision; `retired`: leaves. */
  what: 'live' | 'new version' | 'retired';
  path: string | null;
}

/** What goes live, changes or leaves after one instant and until another, in order of time. */
export function comingChanges(
  view: SiteView,
  after: Instant,
  until: Instant,
  limit = 200,
): ComingChange[] {
  const sql = `
    SELECT l.starts AS at, l.entry, r.name, e.type,
      CASE WHEN EXISTS (SELECT 1 FROM live_interval AS b WHERE b.entry = l.entry AND b.ends = l.starts) THEN 'new version' ELSE 'live' END AS what,
      (SELECT path FROM address AS a WHERE a.entry = l.entry AND a.role = 'current' AND ${asOf('a', 'l.starts')}) AS path
    FROM live_interval AS l JOIN entry AS e ON e.id = l.entry JOIN revision AS r ON r.entry = l.entry AND r.number = l.revision
    WHERE l.starts > @after AND l.starts <= @until
    UNION ALL
    SELECT l.ends, l.entry, r.name, e.type, 'retired', (SELECT path FROM address AS a WHERE a.entry = l.entry AND a.role = 'current' AND +a.ends = l.ends)
    FROM live_interval AS l JOIN entry AS e ON e.id = l.entry JOIN revision AS r ON r.entry = l.entry AND r.number = l.revision
    WHERE l.ends > @after AND l.ends <= @until AND NOT EXISTS (SELECT 1 FROM live_interval AS n WHERE n.entry = l.entry AND n.starts = l.ends)
    ORDER BY 1, 2 LIMIT @limit`;
  return view.connection.driver.prepare<unknown[], ComingChange>(sql).all({ after, until, limit });
}

/** A change as a sentence without its instant: "Blue pea goes live at /varieties/blue-pea". */
export function changeInWords({ name, what, path }: ComingChange): string {
  if (what === 'retired') return `${name} leaves${path === null ? '' : ` ${path}`}`;
  const verb = what === 'live' ? 'goes live' : 'shows a new version';
  return `${name} ${verb}${path === null ? '' : ` at ${path}`}`;
}
