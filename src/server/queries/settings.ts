import type { Design } from '@/core/design/spec.ts';
import { render } from '@/core/site/render.ts';
import type { Step } from '@/core/design-edit/steps.ts';
import type { Instant } from '@/core/time/interval.ts';
import { isoInZone } from '@/core/time/zone.ts';
import type { Issue } from '@/core/issue.ts';
import { type Actor, SITE, permit } from '../permit.ts';
import { sentencesAbout } from './bench.ts';
import type { Looking } from './clock.ts';
import { readerSeeing } from './drafts.ts';
import { entryName } from './display.ts';
import { statement } from '../store/statement.ts';
import type { SiteView } from './site-view.ts';
import { withSteps } from './unsaved.ts';

/** What the Settings screen shows of the site. */
export interface SettingsDetail {
  /** What holds for the site in the working design; in the past as it was released. */
  spec: Design['site'];
  listings: { key: string; label: string }[];
  frames: { key: string; label: string }[];
  /** The name of the entry chosen for "/"; null where none is. */
  frontName: string | null;
  /** The settings of the site's own: single types, each with its entry, if it is written. */
  own: { key: string; label: string; entry: { id: string; name: string } | null }[];
  sets: { key: string; label: string; kind: 'tags' | 'tree' }[];
  /** What the bench holds of it, a sentence each. */
  onBench: string[];
}

/** The site's settings and what they are chosen from; null while no site is loaded. */
export function settingsDetail(
  view: SiteView,
  actor: Actor,
  { at, past }: Looking,
): SettingsDetail | null {
  permit(actor, 'read-unpublished', SITE);
  const design = view.editable(at, past)?.site.design;
  if (!design) return null;
  const { front } = design.site;
  return {
    spec: design.site,
    listings: design.listings.map(({ key, label }) => ({ key, label })),
    frames: framesOf(design),
    frontName: front && 'entry' in front ? entryName(view, front.entry) : null,
    own: design.types.flatMap(({ id, key, label, single }) =>
      single ? [{ key, label, entry: entryOfType(view, id) }] : [],
    ),
    sets: design.subjectSets.map(({ key, label, kind }) => ({ key, label, kind })),
    onBench: past ? [] : sentencesAbout(view, 'site', at),
  };
}

/** What can stand around pages. */
export function framesOf({ templates }: Design): { key: string; label: string }[] {
  const frames = templates.filter(({ kind }) => kind === 'frame');
  return frames.map(({ key, label }) => ({ key, label }));
}

function entryOfType(view: SiteView, type: string): { id: string; name: string } | null {
  const sql = 'SELECT id FROM entry WHERE type = ? AND deleted IS NULL ORDER BY created, id';
  const id = statement<string>(view.connection, sql).pluck().get(type);
  return id === undefined ? null : { id, name: entryName(view, id) };
}

/** What the site's settings, saved or not, make of the page at "/". */
export interface SettingsOutcome {
  issues: Issue[];
  /** Plans whose local time is another in the zone that is chosen. */
  shifted: { total: number; first: ShiftedPlan[] };
  html: string;
}

/** The page at "/" with unsaved settings as of an instant; null while no site is loaded. */
export function settingsOutcome(
  view: SiteView,
  actor: Actor,
  { steps }: { steps: Step[] },
  { at, past, seeing }: Looking,
): SettingsOutcome | null {
  permit(actor, 'read-unpublished', SITE);
  const current = view.editable(at, past);
  if (!current) return null;
  const { site, issues } = withSteps(current.site, steps);
  const seen = { site, reader: view.readerOf(site) };
  const reader = readerSeeing(view, { actor, at, seeing }, seen);
  const zones = [current.site, site].map(({ design }) => design.site.zone) as [string, string];
  return {
    issues,
    shifted: shiftedPlans(view, at, zones),
    html: render(site, reader, { path: '/', at }).body,
  };
}

/** A plan that keeps its instant, and what the clock on the wall says then, before and after. */
export interface ShiftedPlan {
  name: string;
  action: 'publish' | 'retire';
  at: Instant;
}

const SHIFTED = 10;

/** The plans ahead that people read at another hour in another zone. */
function shiftedPlans(
  view: SiteView,
  at: Instant,
  [was, now]: [string, string],
): SettingsOutcome['shifted'] {
  if (was === now) return { total: 0, first: [] };
  const rows = statement<{ entry: string; action: 'publish' | 'retire'; at: Instant }>(
    view.connection,
    'SELECT entry, "action", at FROM planned_change WHERE at > ? ORDER BY at, sequence',
  ).all(at);
  const differs = rows.filter(
    (row) => isoInZone(row.at, was).slice(0, 16) !== isoInZone(row.at, now).slice(0, 16),
  );
  return {
    total: differs.length,
    first: differs.slice(0, SHIFTED).map(({ entry, ...plan }) => ({
      ...plan,
      name: entryName(view, entry),
    })),
  };
}
