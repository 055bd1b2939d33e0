import type { SiteView } from './site-view.ts';
import type { Instant } from '@/core/time/interval.ts';
import { asOf } from '../store/as-of.ts';

/** A change of the site that lies ahead, with what it is about. */
export interface ComingChange {
  at: Instant;
  entry: string;
  name: string;
  type: string;
  /** `live`: goes live or shows another revision; `retired`: leaves; or joins or leaves picks. */
  what: 'live' | 'new version' | 'retired' | 'picked' | 'unpicked';
  path: string | null;
  /** What the picks are called that it joins or leaves; null for other changes. */
  picks: string | null;
}

/**
 * What goes live, changes or leaves after one instant and until another, picks included, in order of
 * time.
 */
export function comingChanges(
  view: SiteView,
  after: Instant,
  until: Instant,
  limit = 200,
): ComingChange[] {
  const sql = `
    SELECT l.starts AS at, l.entry, r.name, e.type, NULL AS picks,
      CASE WHEN EXISTS (SELECT 1 FROM live_interval AS b WHERE b.entry = l.entry AND b.ends = l.starts) THEN 'new version' ELSE 'live' END AS what,
      (SELECT path FROM address AS a WHERE a.entry = l.entry AND a.role = 'current' AND ${asOf('a', 'l.starts')}) AS path
    FROM live_interval AS l JOIN entry AS e ON e.id = l.entry JOIN revision AS r ON r.entry = l.entry AND r.number = l.revision
    WHERE l.starts > @after AND l.starts <= @until
    UNION ALL
    SELECT l.ends, l.entry, r.name, e.type, NULL, 'retired', (SELECT path FROM address AS a WHERE a.entry = l.entry AND a.role = 'current' AND +a.ends = l.ends)
    FROM live_interval AS l JOIN entry AS e ON e.id = l.entry JOIN revision AS r ON r.entry = l.entry AND r.number = l.revision
    WHERE l.ends > @after AND l.ends <= @until AND NOT EXISTS (SELECT 1 FROM live_interval AS n WHERE n.entry = l.entry AND n.starts = l.ends)
    UNION ALL ${picksChanges('starts', 'ends', 'picked')}
    UNION ALL ${picksChanges('ends', 'starts', 'unpicked')}
    ORDER BY 1, 2 LIMIT @limit`;
  const labels = new Map(view.at(after)?.site.design.picks.map(({ id, label }) => [id, label]));
  return view.connection.driver
    .prepare<unknown[], ComingChange>(sql)
    .all({ after, until, limit })
    .flatMap((change) => {
      if (change.picks === null) return [change];
      const label = labels.get(change.picks);
      return label === undefined ? [] : [{ ...change, picks: label }];
    });
}

/** SQL: who joins or leaves picks; whoever only moves in them does neither. */
function picksChanges(column: string, other: string, what: ComingChange['what']): string {
  return `SELECT p.${column}, p.entry, r.name, e.type, p.picks, '${what}', NULL
    FROM pick AS p JOIN entry AS e ON e.id = p.entry
    JOIN revision AS r ON r.entry = e.id AND r.number = e.newest
    WHERE p.${column} > @after AND p.${column} <= @until AND e.deleted IS NULL
      AND NOT EXISTS (SELECT 1 FROM pick AS q
        WHERE q.picks = p.picks AND q.entry = p.entry AND q.${other} = p.${column})`;
}

/** A change as a sentence without its instant: "Blue pea goes live at /varieties/blue-pea". */
export function changeInWords({ name, what, path, picks }: ComingChange): string {
  if (picks !== null) return `${name} ${what === 'picked' ? 'joins' : 'leaves'} ${picks}`;
  if (what === 'retired') return `${name} leaves${path === null ? '' : ` ${path}`}`;
  const verb = what === 'live' ? 'goes live' : 'shows a new version';
  return `${name} ${verb}${path === null ? '' : ` at ${path}`}`;
}
