import type { Instant } from '@/core/time/interval.ts';
import type { CompiledSite } from '@/core/site/compile.ts';
import { render } from '@/core/site/render.ts';
import { compileTemplates } from '@/core/template/compile.ts';
import { type Actor, permit, SITE } from '../permit.ts';
import { entryName } from './display.ts';
import { designSeen, readerSeeing } from './drafts.ts';
import type { Looking } from './clock.ts';
import { newestValues } from './preview.ts';
import { type SiteView, inLanguageOf, requestOf } from './site-view.ts';
import { siteIn } from '../store/designs-ahead.ts';
import { statement } from '../store/statement.ts';

/** A page of the site, to be edited where it stands. */
export interface ViewedPage {
  /** With what it is asked for by, behind a question mark. */
  path: string;
  status: number;
  /** Where it leads, for a redirect. */
  location: string | null;
  /** What stands at places of it is between marks, unless the clock is in the past. */
  html: string;
  /** The style sheet it is drawn with, where that is not released. */
  css: string | null;
  /** What it shows. */
  entry: { id: string; name: string } | null;
  listing: { key: string; label: string } | null;
  /** Whether it is made from its type, for want of a template. */
  automatic: boolean;
  /** Id of the further language that it is in; null for the site's own. */
  language: string | null;
}

/**
 * The page at a path, which may have parameters, as of the clock, as it is seen; null while no site
 * is loaded.
 */
export function viewedPage(
  view: SiteView,
  actor: Actor,
  path: string,
  looking: Looking,
): ViewedPage | null {
  permit(actor, 'read-unpublished', SITE);
  const { at, seeing, past } = looking;
  const released = view.at(at);
  const seen = past ? released : designSeen(view, looking);
  if (!seen) return null;
  const asked = requestOf(path, at);
  const spoken = inLanguageOf(seen, asked.path);
  const reader = readerSeeing(view, { actor, at, seeing }, spoken);
  const site = past ? spoken.site : withPlaces(spoken.site);
  const page = render(site, reader, asked);
  const listing = site.design.listings.find(({ key }) => key === page.listing);
  return {
    path,
    status: page.status,
    location: page.headers['location'] ?? null,
    html: page.body,
    css: site.styleKey === released?.site.styleKey ? null : site.css,
    entry: page.entry === null ? null : { id: page.entry, name: entryName(view, page.entry) },
    listing: listing ? { key: listing.key, label: listing.label } : null,
    automatic: page.automatic,
    language: site.design.edition?.id ?? null,
  };
}

/** A text of an entry as it was saved last, to be written on. */
export interface WrittenText {
  value: string;
  label: string;
  /** Of the entry. */
  name: string;
  /** Whether it may have several lines. */
  hasLines: boolean;
}

/**
 * A text field of an entry, in what was saved last, in the site's own language or in a further one
 * by its id; null where there is none.
 */
export function writtenText(
  view: SiteView,
  actor: Actor,
  { entry, field: id, language }: { entry: string; field: string; language: string | null },
  at: Instant,
): WrittenText | null {
  permit(actor, 'write-entry', { of: 'entry', id: entry });
  const sql = 'SELECT type FROM entry WHERE id = ? AND deleted IS NULL';
  const typeId = statement<string>(view.connection, sql).pluck().get(entry);
  const own = view.at(at)?.site;
  const site = own && (language === null ? own : siteIn(own, language));
  const type = site?.types.get(typeId ?? '');
  const field = type?.fields.find((f) => f.id === id);
  const values = type && newestValues(view, type, entry, at, site!.design.site.language);
  if (!field || !values) return null;
  const value = String(values[id] ?? '');
  const spoken = site!.design.edition ? ` (${site!.design.edition.label})` : '';
  const { label, kind } = field;
  return {
    ...{ value, label: `${label}${spoken}`, name: entryName(view, entry) },
    hasLines: kind === 'paragraphs',
  };
}

/** The same site, with what stands at places of its pages between marks. */
function withPlaces(site: CompiledSite): CompiledSite {
  const { design, environments } = site;
  return { ...site, templates: compileTemplates(design, environments, 'places').templates };
}
