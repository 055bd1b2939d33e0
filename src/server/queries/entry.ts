import type { SiteView } from './site-view.ts';
import { entryName } from './content.ts';
import { type Actor, permit } from '../commands/permit.ts';
import { interpretValues } from '../commands/write-entry.ts';
import { readValues } from '../store/stored-values.ts';
import { withEntries } from '../store/overlay-reader.ts';
import { entryWith, explainWith, newestValues, readerSeeing } from './preview.ts';
import type { Seeing } from './clock.ts';
import type { LifeSpan } from './content.ts';
import type { Issue } from '@/core/issue.ts';
import type { TracedPart } from '@/core/pattern/compile.ts';
import type { ContentType, Field } from '@/core/design/spec.ts';
import type { Values } from '@/core/design/values.ts';
import type { CompiledSite } from '@/core/site/compile.ts';
import type { SiteReader } from '@/core/site/reader.ts';
import { stateAt } from '@/core/publication/state.ts';
import type { EntryState } from '@/core/publication/model.ts';
import { type RenderedPage, renderEntry } from '@/core/site/render.ts';
import { type Instant, Validity } from '@/core/time/interval.ts';

/** Something a form's choice offers. */
export interface Option {
  value: string;
  label: string;
}

/** A plan that lies ahead. */
export interface PlannedChange {
  id: number;
  at: Instant;
  action: 'publish' | 'retire';
  revision: number | null;
}

/** All that the entry screen shows. */
export interface EntryDetail {
  id: string | null;
  type: { key: string; label: string; hasPages: boolean; fields: FormField[] };
  /** By field key, as the form edits them. */
  values: Record<string, unknown>;
  name: string;
  /** The newest revision's number; null for a new entry. */
  revision: number | null;
  saved: Instant | null;
  state: EntryState;
  spans: LifeSpan[];
  plans: PlannedChange[];
  refusals: { at: Instant; message: string; fix: string }[];
  path: string | null;
}

/** A field with what its control offers. */
export type FormField = Pick<Field, 'key' | 'label' | 'kind' | 'required' | 'many'> & {
  help: string | null;
  options: Option[];
};

/** An entry as of an instant: what was newest then; the newest of all for instants ahead. Null where there is none. */
export function entryDetail(
  view: SiteView,
  actor: Actor,
  id: string,
  at: Instant,
  now: Instant,
): EntryDetail | null {
  permit(actor, 'read-unpublished');
  const { driver } = view.connection;
  const row = driver.prepare('SELECT type FROM entry WHERE id = ?').get(id) as
    { type: string } | undefined;
  const site = view.at(at)?.site;
  const type = row && site?.types.get(row.type);
  if (!site || !type) return null;
  const revisions = driver
    .prepare('SELECT number, saved, name, "values" FROM revision WHERE entry = ? ORDER BY number')
    .all(id) as { number: number; saved: number; name: string; values: string }[];
  const shown = revisions.findLast((r) => r.saved <= at) ?? revisions[0];
  const spans = driver
    .prepare(
      'SELECT starts AS "from", ends AS "to", revision FROM live_interval WHERE entry = ? ORDER BY starts',
    )
    .all(id) as LifeSpan[];
  return {
    id,
    type: formType(view, type, at),
    values: formValues(type, readValues(shown?.values ?? '{}', site.design.site.language)),
    name: shown?.name ?? id,
    revision: revisions.at(-1)?.number ?? null,
    saved: shown?.saved ?? null,
    state: stateAt({ revisions, intervals: spans }, at).state,
    spans,
    plans: driver
      .prepare(
        'SELECT id, at, action, revision FROM planned_change WHERE entry = ? AND at > ? ORDER BY at, sequence',
      )
      .all(id, now) as PlannedChange[],
    refusals: driver
      .prepare('SELECT at, message, fix FROM refusal WHERE entry = ? ORDER BY at')
      .all(id) as EntryDetail['refusals'],
    path:
      (driver
        .prepare(
          `SELECT path FROM address WHERE entry = ? AND role = 'current' AND starts <= ? AND (ends IS NULL OR ends > ?)`,
        )
        .pluck()
        .get(id, at, at) as string | undefined) ?? null,
  };
}

/** An empty form for a new entry of a type. Null where there is no such type. */
export function newEntry(
  view: SiteView,
  actor: Actor,
  key: string,
  at: Instant,
): EntryDetail | null {
  permit(actor, 'write-entry');
  const type = view.at(at)?.site.types.get(key);
  if (!type) return null;
  const values = Object.fromEntries(
    type.fields.flatMap((f) => (f.default === undefined ? [] : [[f.key, f.default]])),
  );
  return {
    id: null,
    type: formType(view, type, at),
    values,
    name: '',
    revision: null,
    saved: null,
    state: 'not yet written',
    spans: [],
    plans: [],
    refusals: [],
    path: null,
  };
}

function formType(view: SiteView, type: ContentType, at: Instant): EntryDetail['type'] {
  const fields = type.fields.map((f): FormField => ({
    key: f.key,
    label: f.label,
    kind: f.kind,
    required: f.required,
    many: f.many,
    help: f.help ?? null,
    options: optionsOf(view, f, at),
  }));
  return { key: type.key, label: type.label, hasPages: type.address !== undefined, fields };
}

const MAX_OPTIONS = 2000;

/** What a field's control offers: options, subjects, entries or pictures. */
export function optionsOf(
  view: SiteView,
  field: Pick<Field, 'kind' | 'options' | 'set' | 'types'>,
  at: Instant,
): Option[] {
  const { driver } = view.connection;
  if (field.kind === 'choice')
    return field.options?.map((o) => ({ value: o.key, label: o.label })) ?? [];
  if (field.kind === 'tags' || field.kind === 'category') {
    return view.subjects.all(field.set ?? '').map((s) => ({
      value: s.key,
      label: `${s.parent === null ? '' : `${view.subjects.get(s.set, s.parent)?.name} › `}${s.name}`,
    }));
  }
  if (field.kind === 'media')
    return (
      (driver
        .prepare(
          `SELECT id AS value, id AS label FROM media WHERE mime LIKE 'image/%' ORDER BY id LIMIT ?`,
        )
        .all(MAX_OPTIONS) as Option[]) ?? []
    );
  if (field.kind !== 'reference') return [];
  const types = field.types ?? view.at(at)!.site.design.types.map((t) => t.key);
  const sql = `SELECT e.id AS value, r.name AS label FROM entry AS e JOIN revision AS r ON r.entry = e.id AND r.number = e.newest WHERE e.type IN (${types.map(() => '?').join(', ')}) ORDER BY r.name, e.id LIMIT ?`;
  return driver.prepare(sql).all(...types, MAX_OPTIONS) as Option[];
}

function formValues(type: ContentType, values: Values): Record<string, unknown> {
  return Object.fromEntries(type.fields.map((f) => [f.key, values[f.id] ?? null]));
}

/** What an entry's page would be with values that need not be saved. */
export interface EntryOutcome {
  issues: Issue[];
  html: string | null;
  automatic: boolean;
  title: string;
  description: string | null;
  picture: string | null;
  /** Absolute address; null for a type without pages. */
  url: string | null;
  path: string | null;
  address: TracedPart[];
  /** What the first line above the page says. */
  status: string;
  /** Whether it is public at the instant. */
  live: boolean;
  /** Listings that have the entry as of the instant, or would have it, with its place. */
  listed: { listing: string; label: string; place: number }[];
}

/** Values to show in place of the stored ones: of a form, by field key. */
export interface UnsavedValues {
  id: string | null;
  type: string;
  values: Record<string, unknown> | null;
}

/** The outcome of an entry as of an instant: as published, or with the given or newest values. */
export function entryOutcome(
  view: SiteView,
  actor: Actor,
  input: UnsavedValues,
  at: Instant,
  seeing: Seeing,
): EntryOutcome | null {
  permit(actor, 'read-unpublished');
  const found = view.at(at);
  const type = found?.site.types.get(input.type);
  if (!found || !type) return null;
  const { site, reader } = found;
  const live =
    input.id === null ? undefined : reader.liveEntries([input.id], new Validity(at)).get(input.id);
  const given = input.values === null ? null : interpretValues(site, type, input.values, at);
  const issues = given && !given.ok ? given.issues : [];
  const asPublished = seeing === 'published' && input.values === null;
  const values =
    asPublished && live
      ? live.values
      : given?.ok
        ? given.value
        : (newestValues(view, input.id, at) ?? {});
  const id = input.id ?? `${type.key}-new`;
  const explained = explainWith(view, site, type, id, values, at);
  const entry = entryWith(view, site, live, { id, type, values, author: actor.name }, at);
  const shown = withEntries(readerSeeing(view, actor, at, seeing, reader), [entry]);
  const page: RenderedPage | null =
    type.address === undefined ? null : renderEntry(site, shown, entry, at);
  const same = live && JSON.stringify(live.values) === JSON.stringify(values);
  const what = live
    ? same
      ? 'Live page'
      : 'Live page with unpublished values'
    : 'Not live at this instant; this is how it would look';
  const { path } = entry;
  return {
    issues,
    html: page?.body ?? null,
    automatic: page?.automatic ?? false,
    title: page?.meta?.title ?? '',
    description: page?.meta?.description ?? null,
    picture: page?.meta?.picture ? page.meta.picture.url.slice(site.design.site.url.length) : null,
    url: path === null ? null : site.design.site.url + path,
    path,
    address: explained?.parts ?? [],
    status:
      type.address === undefined
        ? `${type.label} entries have no page of their own; they stand in listings and on other pages.`
        : what,
    listed: listedIn(site, shown, id, type, at),
    live: live !== undefined,
  };
}

/** The listings that have an entry as of an instant, and where in them. */
function listedIn(
  site: CompiledSite,
  reader: SiteReader,
  id: string,
  type: ContentType,
  at: Instant,
): EntryOutcome['listed'] {
  return [...site.listings.values()].flatMap((plan) => {
    if (plan.type.key !== type.key) return [];
    const { ids } = reader.listing(plan, new Validity(at), 0, 500);
    const place = ids.indexOf(id) + 1;
    return place === 0 ? [] : [{ listing: plan.listing.key, label: plan.listing.label, place }];
  });
}

/** The line after saving or publishing: where an entry can be seen now. */
export function whereSeen(view: SiteView, actor: Actor, id: string, at: Instant): string {
  permit(actor, 'read-unpublished');
  const { site, reader } = view.at(at)!;
  const validity = new Validity(at);
  const live = reader.liveEntries([id], validity).get(id);
  if (!live) return `${entryName(view, id)} is not public at the moment.`;
  const listed = listedIn(site, reader, id, live.type, at).map(({ label, place }) =>
    place === 1 ? `first in ${label}` : `number ${place} in ${label}`,
  );
  const places = [...(live.path === null ? [] : [`at ${live.path}`]), ...listed];
  return places.length === 0 ? 'Live.' : `Live ${places.join(', ')}.`;
}
