import type { SiteView } from './site-view.ts';
import { type Actor, permit } from '../commands/permit.ts';
import { type ComingChange, comingChanges } from './coming.ts';
import type { Instant } from '@/core/time/interval.ts';

/** A short account of the site as of an instant. */
export interface TodayDetail {
  drafts: { id: string; name: string; typeLabel: string; saved: Instant }[];
  wentLive: ComingChange[];
  coming: ComingChange[];
  findings: { entry: string; name: string; message: string; fix: string }[];
  /** Types whose pages are made automatically, without a template. */
  automatic: { key: string; label: string }[];
  frontChosen: boolean;
  pages: number;
}

const DAY_MS = 86_400_000;

/** Drafts, what went live in the day before, what changes in the day after, and what asks for attention. */
export function todayDetail(view: SiteView, actor: Actor, at: Instant): TodayDetail | null {
  permit(actor, 'read-unpublished');
  const site = view.at(at)?.site;
  if (!site) return null;
  const { driver } = view.connection;
  return {
    drafts: (unpublished(view, at) as { id: string; name: string; type: string; saved: number }[]).slice(0, 12).map(({ type, ...d }) => ({ ...d, typeLabel: site.types.get(type)?.label ?? type })),
    wentLive: comingChanges(view, at - 7 * DAY_MS, at, 500).reverse().slice(0, 8),
    coming: comingChanges(view, at, at + 2 * DAY_MS, 12),
    findings: driver.prepare('SELECT f.entry, f.message, f.fix, (SELECT name FROM revision AS r WHERE r.entry = f.entry ORDER BY number DESC LIMIT 1) AS name FROM refusal AS f ORDER BY f.at DESC LIMIT 10').all() as TodayDetail['findings'],
    automatic: site.design.types.filter((t) => t.address !== undefined && site.templates.pages.get(t.key)?.automatic).map((t) => ({ key: t.key, label: t.label })),
    frontChosen: site.design.site.front !== undefined,
    pages: driver.prepare(`SELECT count(*) FROM address WHERE role = 'current' AND starts <= ? AND (ends IS NULL OR ends > ?)`).pluck().get(at, at) as number,
  };
}

/** Entries whose newest revision is not public: never published ones, and live ones with a newer draft. */
function unpublished(view: SiteView, at: Instant): unknown[] {
  const sql = `
    SELECT e.id, e.type, r.name, r.saved FROM entry AS e JOIN revision AS r ON r.entry = e.id AND r.number = (SELECT max(number) FROM revision WHERE entry = e.id AND saved <= @at)
    WHERE NOT EXISTS (SELECT 1 FROM live_interval AS l WHERE l.entry = e.id AND (l.ends IS NULL OR l.ends > @at) AND l.revision = r.number) AND NOT EXISTS (SELECT 1 FROM live_interval AS l WHERE l.entry = e.id AND l.ends <= @at AND l.revision = r.number)
    ORDER BY r.saved DESC, e.id`;
  return view.connection.driver.prepare(sql).all({ at });
}

/** How many entries hold something unpublished. */
export function unpublishedCount(view: SiteView, at: Instant): number {
  return unpublished(view, at).length;
}
