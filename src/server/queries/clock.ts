import type { SiteView } from './site-view.ts';
import { type Actor, SITE, permit, rightsOf } from '../permit.ts';
import { openEditCount } from '../store/bench.ts';
import { MOST_MOVED, movingOn } from './moving.ts';
import { unpublishedCount } from './today.ts';
import { parseInstant } from '@/core/time/parse.ts';
import { ownLabel } from '@/core/site/languages.ts';
import type { Instant } from '@/core/time/interval.ts';

/** What the builder sees of unpublished things. */
export const SEEING = ['published', 'draft', 'bench'] as const;
/** As published, with one's own drafts, or with all that is on the bench. */
export type Seeing = (typeof SEEING)[number];

/** Where a screen looks, and with whose eyes. */
export interface Looking {
  at: Instant;
  /** Whether that lies in the past: then what was released is seen, and nothing can be changed. */
  past: boolean;
  seeing: Seeing;
  /** Id of the further language that is looked at; none for the site's own. */
  language?: string | null | undefined;
}

/** The instant and the view a builder looks with. */
export interface Clock {
  now: Instant;
  at: Instant;
  /** Where the clock stands: at now, before it, or after it. */
  tense: 'now' | 'past' | 'future';
  seeing: Seeing;
  /** Id of the further language that is looked at; null for the site's own. */
  language: string | null;
  zone: string;
  /** What the address bar asks for and cannot be had, in words; null where it can. */
  problem: string | null;
}

/**
 * An instant at which the public site changes, with how many changes and the first few in words.
 */
export interface ChangeTick {
  at: Instant;
  count: number;
  names: string[];
}

/**
 * The clock from an address bar's `at`, `seeing` and `language`; what cannot be read counts as now,
 * as published, in the site's own.
 */
export function readClock(
  view: SiteView,
  parameters: { at?: unknown; seeing?: unknown; language?: unknown },
): Clock {
  const now = Date.now();
  const zone = view.at(now)?.site.design.site.zone ?? 'UTC';
  const asked = typeof parameters.at === 'string' ? parameters.at : null;
  const given = asked === null ? null : parseInstant(asked, zone);
  const seeing = SEEING.find((s) => s === parameters.seeing) ?? 'published';
  const further = view.working(given ?? now)?.site.design.languages ?? [];
  return {
    now,
    at: given ?? now,
    tense: given === null ? 'now' : given < now ? 'past' : 'future',
    seeing,
    language: further.find(({ id }) => id === parameters.language)?.id ?? null,
    zone,
    problem:
      asked !== null && given === null
        ? `“${asked.slice(0, 60)}” is no instant in the years 1 to 9999; this is now.`
        : seeing === 'bench'
          ? tooManyToMove(view, given ?? now)
          : null,
  };
}

/** Says that pages are not shown where the whole bench would have them; null where they are. */
function tooManyToMove(view: SiteView, at: Instant): string | null {
  const working = view.working(at)?.site;
  if (!working || movingOn(view, working, at) !== null) return null;
  return `The bench moves more than ${MOST_MOVED.toLocaleString('en')} pages; here they stand where they are now. Their reach says where they go.`;
}

/** A language that the site is in besides its own: its id, BCP 47 tag, and what it is called. */
export interface FurtherLanguage {
  id: string;
  tag: string;
  label: string;
}

/** What surrounds every screen. */
export interface ShellDetail {
  siteName: string;
  zone: string;
  /** What the site's own language is called, and those that it is in besides. */
  ownLanguage: string;
  further: FurtherLanguage[];
  unpublished: number;
  ticks: ChangeTick[];
}

const YEAR_MS = 366 * 86_400_000;

const NO_SHELL: ShellDetail = {
  ...{ siteName: 'No site yet', zone: 'UTC', ownLanguage: '', further: [] },
  ...{ unpublished: 0, ticks: [] },
};

/**
 * The site's name and zone, how much is unpublished, and the changes of the year before and
 * after.
 */
export function shellDetail(view: SiteView, actor: Actor, now: Instant): ShellDetail {
  permit(actor, 'read-unpublished', SITE);
  const compiled = view.at(now)?.site;
  if (!compiled) return NO_SHELL;
  const { site, languages } = compiled.design;
  const edits = rightsOf(actor).includes('change-design') ? openEditCount(view.connection) : 0;
  return {
    siteName: site.name,
    zone: site.zone,
    ownLanguage: ownLabel(compiled),
    further: languages.map(({ id, language: tag, label }) => ({ id, tag, label })),
    unpublished: unpublishedCount(view) + edits,
    ticks: changeTicks(view, now - YEAR_MS, now, now + YEAR_MS),
  };
}

const MOST_TICKS = 1500;

/**
 * The instants at which something goes live, changes or leaves: the nearest to now on either
 * side.
 */
function changeTicks(view: SiteView, from: Instant, now: Instant, to: Instant): ChangeTick[] {
  return [
    ...ticksBetween(view, from, now, 'DESC').reverse(),
    ...ticksBetween(view, now + 1, to, 'ASC'),
  ];
}

function ticksBetween(
  view: SiteView,
  from: Instant,
  to: Instant,
  order: 'ASC' | 'DESC',
): ChangeTick[] {
  const shown = `FROM live_interval AS l JOIN revision AS r ON r.entry = l.entry AND r.number = l.revision`;
  const picked = `FROM pick AS p JOIN entry AS n ON n.id = p.entry
    JOIN revision AS e ON e.entry = n.id AND e.number = n.newest WHERE n.deleted IS NULL`;
  const sql = `
    SELECT at, count(DISTINCT entry) AS count, json_group_array(DISTINCT name) AS names FROM (
      SELECT l.starts AS at, l.entry, r.name ${shown} WHERE l.starts BETWEEN @from AND @to
      UNION SELECT l.ends, l.entry, r.name ${shown} WHERE l.ends BETWEEN @from AND @to
      UNION SELECT p.starts, p.entry, e.name ${picked} AND p.starts BETWEEN @from AND @to
      UNION SELECT p.ends, p.entry, e.name ${picked} AND p.ends BETWEEN @from AND @to
      UNION SELECT starts, 'design', 'Design' FROM design_version WHERE starts BETWEEN @from AND @to
    ) GROUP BY at ORDER BY at ${order} LIMIT ${MOST_TICKS}`;
  const rows = view.connection.driver
    .prepare<
      unknown[],
      {
        at: number;
        count: number;
        names: string;
      }
    >(sql)
    .all({ from, to });
  return rows.map(({ at, count, names }) => ({
    at,
    count,
    names: (JSON.parse(names) as string[]).slice(0, 3),
  }));
}
