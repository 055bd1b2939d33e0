import type { SiteView } from './site-view.ts';
import { type Actor, SITE, permit } from '../permit.ts';
import { statement } from '../store/statement.ts';
import { settledInstant } from '../store/write.ts';
import { type ComingChange, comingChanges } from './coming.ts';
import { type ReleaseLine, plannedReleases } from './releases.ts';
import { standingRefusals } from './refusals.ts';
import type { Instant } from '@/core/time/interval.ts';
import { asOf } from '../store/as-of.ts';

/** A short account of the site as of an instant. */
export interface TodayDetail {
  /** Entries with something unpublished; `live` where an older version is public. */
  drafts: { id: string; name: string; typeLabel: string; saved: Instant; live: boolean }[];
  draftsTotal: number;
  wentLive: ComingChange[];
  coming: ComingChange[];
  /** Releases of the design in the time that `coming` covers. */
  releases: ReleaseLine[];
  findings: { entry: string; name: string; message: string; fix: string }[];
  /** Types whose pages are made automatically, without a template. */
  automatic: { key: string; label: string }[];
  frontChosen: boolean;
  /** How far a new site is: what its first steps have come to. */
  begun: FirstSteps;
  pages: number;
}

/** The first steps of a site: a type, where its pages stand, a live entry, something at "/". */
export interface FirstSteps {
  /** The first type in the working design, and whether it is released. */
  type: { key: string; label: string; released: boolean } | null;
  address: boolean;
  live: boolean;
  front: boolean;
}

const DAY_MS = 86_400_000;

/**
 * Drafts, what went live in the day before, what changes in the day after, and what asks for
 * attention.
 */
export function todayDetail(view: SiteView, actor: Actor, at: Instant): TodayDetail | null {
  permit(actor, 'read-unpublished', SITE);
  const site = view.at(at)?.site;
  if (!site) return null;
  const { driver } = view.connection;
  return {
    draftsTotal: unpublishedCount(view),
    drafts: unpublished(view, at).map(({ type, ...d }) => ({
      ...d,
      typeLabel: site.types.get(type)?.label ?? type,
    })),
    wentLive: comingChanges(view, at - 7 * DAY_MS, at, 500)
      .reverse()
      .slice(0, 8),
    coming: comingChanges(view, at, at + 2 * DAY_MS, 12),
    releases: plannedReleases(view, at, at + 2 * DAY_MS),
    findings: standingRefusals(view, site, at),
    automatic: site.design.types
      .filter((t) => t.address !== undefined && site.templates.pages.get(t.key)?.automatic)
      .map((t) => ({ key: t.key, label: t.label })),
    frontChosen: site.design.site.front !== undefined,
    begun: firstSteps(view, at),
    pages: driver
      .prepare<unknown[], number>(
        `SELECT count(*) FROM address WHERE role = 'current' AND ${asOf('')}`,
      )
      .pluck()
      .get(at, at)!,
  };
}

function firstSteps(view: SiteView, at: Instant): FirstSteps {
  const { site } = view.working(at)!;
  const released = view.at(at)!.site;
  const [type] = site.design.types;
  const live = statement(view.connection, `SELECT 1 FROM live_interval WHERE ${asOf('')} LIMIT 1`);
  return {
    type: type ? { key: type.key, label: type.label, released: released.types.has(type.id) } : null,
    address: site.design.types.some(({ address }) => address !== undefined),
    live: live.get(at, at) !== undefined,
    front: site.design.site.front !== undefined,
  };
}

type DraftRow = { id: string; name: string; type: string; saved: number; live: number };

/**
 * Entries whose newest revision by an instant never was public and is not planned to be, the
 * latest saved first.
 */
function unpublished(view: SiteView, at: Instant): (Omit<DraftRow, 'live'> & { live: boolean })[] {
  const now = `FROM entry AS e JOIN revision AS r ON r.entry = e.id AND r.number = e.newest WHERE e.unpublished = 1 AND e.deleted IS NULL`;
  const then = `FROM revision AS r CROSS JOIN entry AS e ON e.id = r.entry WHERE r.saved <= @at AND r.number = (SELECT max(number) FROM revision WHERE entry = e.id AND saved <= @at) AND NOT EXISTS (SELECT 1 FROM live_interval AS l WHERE l.entry = e.id AND l.revision = r.number)`;
  const from = at >= settledInstant(view.connection) ? now : then;
  const live = `EXISTS (SELECT 1 FROM live_interval AS l WHERE l.entry = e.id AND ${asOf('l', '@at')}) AS live`;
  const rows = view.connection.driver
    .prepare<unknown[], DraftRow>(
      `SELECT e.id, e.type, r.name, r.saved, ${live} ${from} ORDER BY r.saved DESC, r.entry LIMIT 12`,
    )
    .all({ at });
  return rows.map((row) => ({ ...row, live: row.live === 1 }));
}

/** How many entries hold something unpublished. */
export function unpublishedCount(view: SiteView): number {
  return view.connection.driver
    .prepare<unknown[], number>(
      'SELECT count(*) FROM entry WHERE unpublished = 1 AND deleted IS NULL',
    )
    .pluck()
    .get()!;
}
