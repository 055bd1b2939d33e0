import { explainBase } from '@/core/address/simulate.ts';
import type { CompiledSite } from '@/core/site/compile.ts';
import type { Instant } from '@/core/time/interval.ts';
import { statement } from '../store/statement.ts';
import { StoredTimeline } from '../store/timeline-source.ts';
import type { SiteView } from './site-view.ts';
import { asOf } from '../store/as-of.ts';

/** Something about an entry's address that asks for attention. */
export interface StandingRefusal {
  entry: string;
  name: string;
  message: string;
  fix: string;
}

interface Row extends StandingRefusal {
  at: Instant;
  code: string;
  cancelled: number;
  base: string | null;
  live: number;
  /** The path held since before the refusal; null where it holds none, or has got another since. */
  held: string | null;
}

const LOOKED_AT = 200;
const SHOWN = 10;

/**
 * Refusals that still stand as of an instant: what was mended since, or had its address since, is
 * left out.
 */
export function standingRefusals(
  view: SiteView,
  site: CompiledSite,
  at: Instant,
): StandingRefusal[] {
  const covers = (row: string): string => asOf(row, '@at');
  const sql = `
    SELECT f.entry, f.at, f.code, f.message, f.fix, f.cancelled, f.base, r.name,
      EXISTS (SELECT 1 FROM live_interval AS l WHERE l.entry = f.entry AND ${covers('l')}) AS live,
      (SELECT a.path FROM address AS a WHERE a.entry = f.entry AND a.role = 'current' AND ${covers('a')} AND a.starts <= f.at) AS held
    FROM refusal AS f JOIN entry AS e ON e.id = f.entry AND e.deleted IS NULL
    JOIN revision AS r ON r.entry = e.id AND r.number = e.newest
    ORDER BY f.at DESC LIMIT ${LOOKED_AT}`;
  const rows = statement<Row>(view.connection, sql).all({ at });
  const source = new StoredTimeline(view.connection, { first: site, later: [] });
  const seen = new Set<string>();
  const standing = rows.filter((row) => {
    if (seen.has(row.entry) || !stillStands(row, site, source, at)) return false;
    seen.add(row.entry);
    return true;
  });
  return standing
    .slice(0, SHOWN)
    .map(({ entry, name, message, fix }) => ({ entry, name, message, fix }));
}

function stillStands(row: Row, site: CompiledSite, source: StoredTimeline, at: Instant): boolean {
  if (row.at > at) return true;
  if (row.code === 'nothing-left') return row.live === 1 && row.held === row.base;
  if (row.cancelled === 1) return row.live === 0;
  if (row.held === null) return false;
  const wanted = explainBase(site.addresses, source, row.entry, at)?.built;
  if (!wanted) return false;
  return wanted.ok ? wanted.path === row.base && wanted.path !== row.held : true;
}
