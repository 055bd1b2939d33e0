import { type Actor, SITE, permit } from '../permit.ts';
import { withEntries } from '../store/overlay-reader.ts';
import type { Looking } from './clock.ts';
import { displayWorld, entryName } from './display.ts';
import { type Option, optionsOf } from './offers.ts';
import { type LeftOut, leftOut } from './left-out.ts';
import { sentencesAbout } from './bench.ts';
import { draftsSeen } from './drafts.ts';
import { withSteps } from './unsaved.ts';
import { overlayOf } from './preview.ts';
import { framesOf } from './settings.ts';
import type { SiteView } from './site-view.ts';
import type { Issue } from '@/core/issue.ts';
import type { Step } from '@/core/design-edit/steps.ts';
import { displayValues } from '@/core/design/field-values.ts';
import { type Listing, type Operator, conditionSpecs } from '@/core/design/listing-spec.ts';
import type { ContentType, Design } from '@/core/design/spec.ts';
import { nameOf } from '@/core/design/values.ts';
import { formatStyled } from '@/core/pattern/date-format.ts';
import {
  type Column,
  ORDER_ALONE,
  PICKS,
  columnsOf,
  listedColumns,
} from '@/core/listing/columns.ts';
import { partFor } from '@/core/listing/parts.ts';
import { OPERATORS_OF, OPERATOR_WORDS } from '@/core/listing/operators.ts';
import { pinnedIn, stretchOf } from '@/core/site/pinned.ts';
import { isNarrowing, isSearchable } from '@/core/listing/visitors.ts';
import { type Fan, type ListingPlan, fansOf } from '@/core/listing/plan.ts';
import { planPublic } from '@/core/listing/planner.ts';
import type { CompiledSite } from '@/core/site/compile.ts';
import type { SiteReader } from '@/core/site/reader.ts';
import { render } from '@/core/site/render.ts';
import { withinSentence } from '@/core/design/words.ts';
import { type Instant, Validity } from '@/core/time/interval.ts';

/** A field a listing may filter or sort by, with what its controls offer. */
export interface ListingColumn {
  name: string;
  /** As it reads within the sentence. */
  label: string;
  family: string;
  sortable: boolean;
  /** What a listing can have a page for each of, by it. */
  fans: readonly Fan['per'][];
  /** Whether visitors can narrow the list by its values. */
  narrows: boolean;
  operators: { op: Operator; words: string }[];
  options: Option[];
  /** Types whose entries it is compared with, null for all; undefined where it is not. */
  entryTypes?: string[] | null;
}

/** What the Listing screen shows of a listing. */
export interface ListingDetail {
  /** The listing in the working design; in the past as it was released. */
  spec: Listing;
  /** The instant that it is shown at. */
  at: Instant;
  /** Names of the entries its conditions speak of, by id. */
  names: Record<string, string>;
  typeLabel: string;
  /** Fields of texts that visitors can search, by their keys. */
  texts: Option[];
  /** All types, by the plural within the sentence. */
  types: { key: string; label: string }[];
  columns: ListingColumn[];
  cards: { key: string; label: string }[];
  /** Pages of no type, that its own pages can be drawn by, and frames around them. */
  pages: { key: string; label: string }[];
  frames: { key: string; label: string }[];
  /** What the bench holds of it, a sentence each. */
  onBench: string[];
}

/** A listing and the controls of its sentence. Null where there is none. */
export function listingDetail(
  view: SiteView,
  actor: Actor,
  key: string,
  { at, past }: Looking,
): ListingDetail | null {
  permit(actor, 'read-unpublished', SITE);
  const design = view.editable(at, past)?.site.design;
  const spec = design?.listings.find((l) => l.key === key);
  const types = [spec?.type, ...(spec?.also ?? [])].flatMap(
    (k) => design?.types.find((t) => t.key === k) ?? [],
  );
  const [type] = types;
  if (!design || !spec || !type) return null;
  const word = (label: string): string => withinSentence(label, design.site.language);
  const asked = new Map<string, Column>();
  for (const t of types)
    for (const [name, column] of listedColumns(t)) if (!asked.has(name)) asked.set(name, column);
  const columns = columnWords(view, asked.values(), { at, language: design.site.language }).map(
    (column) => (column.name === PICKS.name ? { ...column, options: picksOf(design) } : column),
  );
  return {
    spec,
    at,
    names: namesIn(view, spec, asked),
    texts: textsOf(types, word),
    types: design.types.map((t) => ({ key: t.key, label: word(t.plural) })),
    typeLabel: type.plural,
    columns,
    onBench: past ? [] : sentencesAbout(view, `listings/${spec.id}`, at),
    pages: design.templates
      .filter((t) => t.kind === 'page' && t.type === undefined)
      .map(({ key: k, label }) => ({ key: k, label })),
    frames: framesOf(design),
    cards: design.templates
      .filter((t) => t.kind === 'card' && types.some(({ key: k }) => k === t.type))
      .map(({ key: k, label }) => ({ key: k, label: word(label) })),
  };
}

/** What conditions on a type's entries may ask of them. */
export function listingColumns(
  view: SiteView,
  type: ContentType,
  looking: { at: Instant; language: string },
): ListingColumn[] {
  return columnWords(view, columnsOf(type).values(), looking);
}

function textsOf(types: readonly ContentType[], word: (label: string) => string): Option[] {
  const fields = types.flatMap((type) => type.fields).filter(isSearchable);
  return [...new Map(fields.map(({ key, label }) => [key, word(label)]))].map(([value, label]) => ({
    value,
    label,
  }));
}

function picksOf({ picks }: Design): Option[] {
  return picks.map(({ key, label }) => ({ value: key, label }));
}

function columnWords(
  view: SiteView,
  columns: Iterable<Column>,
  { at, language }: { at: Instant; language: string },
): ListingColumn[] {
  return [...columns].map((c) => ({
    name: c.name,
    label: withinSentence(c.label, language),
    family: c.family,
    sortable: c.sortable,
    fans: fansOf(c),
    narrows: isNarrowing(c),
    operators: (ORDER_ALONE.has(c) ? [] : OPERATORS_OF[c.family]).map((op) => ({
      op,
      words: OPERATOR_WORDS[op],
    })),
    options: optionsIn(view, c, at),
    ...(c.target?.of === 'entries' ? { entryTypes: c.target.types && [...c.target.types] } : {}),
  }));
}

/** What a condition on a column may be compared with: options go by their keys there. */
function optionsIn(view: SiteView, { field, family }: Column, at: Instant): Option[] {
  if (!field) return [];
  if (family !== 'choice') return optionsOf(view, field, at);
  return (field.options ?? []).map(({ key, label }) => ({ value: key, label }));
}

/** An entry that is in, or left out with the reason. */
export interface ListedEntry {
  id: string;
  name: string;
  path: string | null;
  /** Values of the sort keys, as the order sees them. */
  sorted: string;
}

/** What a listing, saved or not, gives as of an instant. */
export interface ListingOutcome extends LeftOut {
  issues: Issue[];
  total: number;
  pageSize: number;
  entries: (ListedEntry & { isPinned: boolean })[];
  /** The listing's first page; null for a listing without pages of its own. */
  page: string | null;
}

/** A listing with unsaved properties, and the name searched for among those left out. */
export interface ListingInput {
  id: string;
  /** What is unsaved. */
  steps: Step[];
  find: string;
}

const SHOWN = 60;

/** The entries of an edited listing, and those it leaves out with the reasons. */
export function listingOutcome(
  view: SiteView,
  actor: Actor,
  { id, steps, find }: ListingInput,
  { at, past, seeing }: Looking,
): ListingOutcome | null {
  permit(actor, 'read-unpublished', { of: 'part', path: `listings/${id}` });
  const current = view.editable(at, past);
  if (!current?.site.design.listings.some((l) => l.id === id)) return null;
  const { site, issues } = withSteps(current.site, steps);
  const { design } = site;
  const { plan } = planPublic(
    design.listings.find((l) => l.id === id)!,
    design,
  );
  if (!plan) return { ...NOTHING, issues };
  const seen = { site, reader: view.readerOf(site) };
  const drafts = overlayOf(
    view,
    seen,
    { drafts: draftsSeen(view, { actor, at, seeing }, site) },
    at,
  );
  const reader = withEntries(seen.reader, drafts);
  const validity = new Validity(at);
  const { ids, total } = stretchOf(reader, plan, validity, 0, SHOWN);
  const pinned = new Set(pinnedIn(reader, plan, validity).map((entry) => entry.id));
  const page = issues.length === 0 ? firstPage(site, reader, plan.listing, at) : null;
  return {
    issues,
    total,
    pageSize: plan.listing.pageSize,
    page,
    entries: listed(view, reader, plan, ids, at).map((entry) => ({
      ...entry,
      isPinned: pinned.has(entry.id),
    })),
    ...leftOut(view, plan, { at, find, drafts: drafts.entries, total }),
  };
}

/** The outcome of a listing that cannot be read. */
const NOTHING: Omit<ListingOutcome, 'issues'> = {
  total: 0,
  pageSize: 1,
  entries: [],
  leftOut: [],
  leftOutTotal: 0,
  counts: [],
  lookedAt: null,
  page: null,
};

function firstPage(
  site: CompiledSite,
  reader: SiteReader,
  { key, address }: Listing,
  at: Instant,
): string | null {
  const path = key === site.frontListing ? '/' : address;
  return path === undefined ? null : render(site, reader, { path, at }).body;
}

function listed(
  view: SiteView,
  reader: SiteReader,
  plan: ListingPlan,
  ids: string[],
  at: Instant,
): ListedEntry[] {
  const live = reader.liveEntries(ids, new Validity(at));
  const world = displayWorld(view, at);
  return ids.flatMap((id) => {
    const entry = live.get(id);
    if (!entry) return [];
    const { type, sort } = partFor(plan, entry.type.id)!;
    const others = sort.filter(
      ({ column }) => !ORDER_ALONE.has(column) && column.field?.key !== type.naming,
    );
    const sorted = others.map(({ column }) => {
      if (column.isAbsent) return '(blank)';
      const shown = column.meta
        ? formatStyled(entry[column.meta] ?? entry.created, 'medium', world.language, world.zone)
        : displayValues(entry.values, column.field!, world);
      return shown === '' ? '(blank)' : shown;
    });
    return [{ id, name: nameOf(entry), path: entry.path, sorted: sorted.join(' · ') }];
  });
}

/** Names of the entries that a listing's conditions and pins speak of. */
function namesIn(
  view: SiteView,
  listing: Listing,
  columns: ReadonlyMap<string, Column>,
): Record<string, string> {
  const ids = conditionSpecs(listing.where).flatMap(({ field, value }) =>
    columns.get(field)?.target?.of === 'entries' ? [value ?? []].flat().map(String) : [],
  );
  const pinned = (listing.pins ?? []).map(({ entry }) => entry);
  return Object.fromEntries([...ids, ...pinned].map((id) => [id, entryName(view, id)]));
}
