import type { Design } from '@/core/design/spec.ts';
import type { Step } from '@/core/design-edit/steps.ts';
import type { Issue } from '@/core/issue.ts';
import { EXAMPLES } from '@/core/style/look-spec.ts';
import { examplesPage } from '@/core/site/examples-page.ts';
import { render } from '@/core/site/render.ts';
import { Validity } from '@/core/time/interval.ts';
import { type Actor, SITE, permit } from '../permit.ts';
import { sentencesAbout } from './bench.ts';
import type { Looking } from './clock.ts';
import { readerSeeing } from './drafts.ts';
import type { SiteView } from './site-view.ts';
import { withSteps } from './unsaved.ts';

/** What the Style screen shows. */
export interface StyleDetail {
  /** The style in the working design; in the past as it was released. */
  spec: Pick<Design, 'css' | 'look'>;
  /** The styles that texts and blocks can have by name. */
  styles: Design['styles'];
  language: string;
  /** Paths that the style is looked at on: "/", and a page of each sort, newest first. */
  pages: string[];
  /** What the bench holds of it, a sentence each. */
  onBench: string[];
}

/** How many of the newest pages are looked through for one of each type. */
const LOOKED_AT = 200;

/** The style of the site, and pages to look at it on; null while no site is loaded. */
export function styleDetail(
  view: SiteView,
  actor: Actor,
  { at, past }: Looking,
): StyleDetail | null {
  permit(actor, 'read-unpublished', SITE);
  const site = view.editable(at, past)?.site;
  if (!site) return null;
  const { css, look, styles, listings } = site.design;
  const parts = ['style', ...styles.map(({ id }) => `styles/${id}`)];
  const reader = view.readerOf(site);
  const validity = new Validity(at);
  const entries = reader.liveEntries(reader.newestPages(LOOKED_AT, validity), validity);
  const byType = new Map([...entries.values()].map(({ type, path }) => [type.key, path]));
  const ofListings = listings.flatMap(({ address }) => address ?? []).slice(0, 1);
  const ofEntries = [...byType.values()].flatMap((path) => path ?? []);
  return {
    spec: { css, ...(look ? { look } : {}) },
    styles,
    language: site.design.site.language,
    pages: [...new Set(['/', ...ofEntries, ...ofListings])],
    onBench: past ? [] : parts.flatMap((part) => sentencesAbout(view, part, at)),
  };
}

/** What a style, saved or not, makes of a page. */
export interface StyleOutcome {
  issues: Issue[];
  /** The whole style sheet. */
  css: string;
  html: string;
}

/** A page in an unsaved style as of an instant; null while no site is loaded. */
export function styleOutcome(
  view: SiteView,
  actor: Actor,
  { steps, page }: { steps: Step[]; page: string },
  { at, past, seeing }: Looking,
): StyleOutcome | null {
  permit(actor, 'read-unpublished', SITE);
  const current = view.editable(at, past);
  if (!current) return null;
  const { site, issues } = withSteps(current.site, steps);
  const seen = { site, reader: view.readerOf(site) };
  const reader = readerSeeing(view, { actor, at, seeing }, seen);
  const html =
    page === EXAMPLES
      ? examplesPage(site, reader, at)
      : render(site, reader, { path: page, at }).body;
  return { issues, css: site.css, html };
}
