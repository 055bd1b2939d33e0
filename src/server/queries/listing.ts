import { type Actor, SITE, permit } from '../permit.ts';
import { asOf } from '../store/as-of.ts';
import { withEntries } from '../store/overlay-reader.ts';
import type { Looking } from './clock.ts';
import { columnShown } from './condition-in-words.ts';
import { displayWorld, entryName } from './display.ts';
import type { Option } from './offers.ts';
import { type LeftOut, leftOut } from './left-out.ts';
import { type ListingColumn, columnsOfListing } from './listing-columns.ts';
import { sentencesAbout } from './bench.ts';
import { draftsSeen, inLanguageSeen } from './drafts.ts';
import { withSteps } from './unsaved.ts';
import { overlayOf } from './preview.ts';
import { framesOf } from './settings.ts';
import { type SiteView, requestOf } from './site-view.ts';
import type { Issue } from '@/core/issue.ts';
import type { Step } from '@/core/design-edit/steps.ts';
import { blocksWithin } from '@/core/design/block-ids.ts';
import { rootOf } from '@/core/design/language-spec.ts';
import { type Listing, conditionSpecs, literalsOf } from '@/core/design/listing-spec.ts';
import type { ContentType, Design } from '@/core/design/spec.ts';
import { type EntryView, nameOf } from '@/core/design/values.ts';
import { type Column, ORDER_ALONE, rowOf } from '@/core/listing/columns.ts';
import { lackingFor, onPageOf, pageConditions } from '@/core/listing/of-page.ts';
import { partFor } from '@/core/listing/parts.ts';
import { pinOf, pinnedIn, stretchOf } from '@/core/site/pinned.ts';
import { isSearchable } from '@/core/listing/visitors.ts';
import type { ListingPlan } from '@/core/listing/plan.ts';
import { planPublic } from '@/core/listing/planner.ts';
import type { CompiledSite } from '@/core/site/compile.ts';
import type { SiteReader } from '@/core/site/reader.ts';
import { render } from '@/core/site/render.ts';
import { withinSentence } from '@/core/design/words.ts';
import { type Instant, Validity } from '@/core/time/interval.ts';

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
  const { words: columns, columns: asked } = columnsOfListing(view, spec, types, { at, design });
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

function textsOf(types: readonly ContentType[], word: (label: string) => string): Option[] {
  const fields = types.flatMap((type) => type.fields).filter(isSearchable);
  return [...new Map(fields.map(({ key, label }) => [key, word(label)]))].map(([value, label]) => ({
    value,
    label,
  }));
}

/** An entry that is in, or left out with the reason. */
export interface ListedEntry {
  id: string;
  name: string;
  path: string | null;
  /** Values of the sort keys, as the order sees them. */
  sorted: string;
}

/** That an entry stands first in a listing, and until when; ms UTC, null for no end. */
export interface Pinned {
  until: Instant | null;
}

/** What a listing, saved or not, gives as of an instant. */
export interface ListingOutcome extends LeftOut {
  issues: Issue[];
  total: number;
  pageSize: number;
  entries: (ListedEntry & { pinned: Pinned | null })[];
  /** The page of it that is asked for, else its first; null for a listing without any. */
  page: { html: string; path: string } | null;
  /** Types on whose entries' pages it can stand, and on whose it is seen; null where on any. */
  on: { types: string[]; id: string; name: string } | null;
}

/** A listing with unsaved properties, and the name searched for among those left out. */
export interface ListingInput {
  id: string;
  /** What is unsaved. */
  steps: Step[];
  find: string;
  /** On whose page it is seen, where it compares with that; whoever is first where left out. */
  on?: string | undefined;
  /** Which page of it is seen, by its path and what a visitor chose; the first where left out. */
  visit?: string | undefined;
}

const SHOWN = 60;

/** The entries of an edited listing, and those it leaves out with the reasons. */
export function listingOutcome(
  view: SiteView,
  actor: Actor,
  { id, steps, find, on, visit }: ListingInput,
  looking: Looking,
): ListingOutcome | null {
  permit(actor, 'read-unpublished', { of: 'part', path: `listings/${id}` });
  const { at } = looking;
  const current = view.editable(at, looking.past);
  if (!current?.site.design.listings.some((l) => l.id === id)) return null;
  const { site: edited, issues } = withSteps(current.site, steps);
  const site = inLanguageSeen(edited, looking);
  const { design } = site;
  const listing = design.listings.find((l) => l.id === id)!;
  const { plan: planned } = planPublic(listing, design);
  if (!planned) return { ...NOTHING, issues };
  const { reader, drafts } = readerWithDrafts(view, actor, site, looking);
  const validity = new Validity(at);
  const standing = standingOn(view, design, planned, { on, reader, at });
  const plan = standing ? onPageOf(planned, standing.entry) : planned;
  const { ids, total } = stretchOf(reader, plan, validity, 0, SHOWN);
  const pinned = new Set(pinnedIn(reader, plan, validity).map((entry) => entry.id));
  const page = issues.length === 0 ? pageSeen(site, reader, plan.listing, { at, visit }) : null;
  return {
    issues,
    total,
    pageSize: plan.listing.pageSize,
    page,
    on: standing && { types: standing.types, ...namedAs(standing.entry) },
    entries: listed(view, reader, plan, ids, at).map((entry) => ({
      ...entry,
      pinned: pinned.has(entry.id) ? { until: pinOf(plan, entry.id, at)!.to } : null,
    })),
    ...leftOut(view, plan, {
      ...{ site, at, find, total, drafts },
      shown: isCut(plan) ? new Set(stretchOf(reader, plan, validity, 0, total).ids) : null,
    }),
  };
}

/** Reads a site with the drafts that one sees. */
function readerWithDrafts(
  view: SiteView,
  actor: Actor,
  site: CompiledSite,
  { at, seeing }: Pick<Looking, 'at' | 'seeing'>,
): { reader: SiteReader; drafts: readonly EntryView[] } {
  const seen = { site, reader: view.readerOf(site) };
  const own = draftsSeen(view, { actor, at, seeing }, site);
  const drafts = overlayOf(view, seen, { drafts: own }, at);
  return { reader: withEntries(seen.reader, drafts), drafts: drafts.entries };
}

function isCut({ listing: { skip, most } }: ListingPlan): boolean {
  return skip !== undefined || most !== undefined;
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
  on: null,
};

function namedAs(entry: EntryView | null): { id: string; name: string } {
  return entry ? { id: entry.id, name: nameOf(entry) } : { id: '', name: '' };
}

/** On whose page a listing is seen that compares with what that has; null for others. */
function standingOn(
  view: SiteView,
  { types, templates }: Design,
  plan: ListingPlan,
  { on, reader, at }: { on: string | undefined; reader: SiteReader; at: Instant },
): { types: string[]; entry: EntryView | null } | null {
  if (pageConditions(plan).length === 0) return null;
  const able = types.filter((type) => lackingFor(plan, type).length === 0);
  const placed = new Set(
    templates
      .filter(({ blocks, slots }) =>
        [...blocksWithin([blocks, slots])].some((b) => b['listing'] === plan.listing.key),
      )
      .map(({ type }) => type),
  );
  const fitting = [
    ...able.filter(({ key }) => placed.has(key)),
    ...able.filter(({ key }) => !placed.has(key)),
  ];
  const first = fitting.map(({ id }) => firstOf(view, id, at)).find((id) => id !== null);
  const id = on ?? first;
  const entry = id === undefined ? undefined : reader.liveEntries([id], new Validity(at)).get(id);
  return { types: able.map(({ key }) => key), entry: entry ?? null };
}

function firstOf(view: SiteView, type: string, at: Instant): string | null {
  const sql = `SELECT e.id FROM entry AS e JOIN live_interval AS l ON l.entry = e.id
    AND ${asOf('l', '@at')} WHERE e.type = @type ORDER BY e.created, e.id LIMIT 1`;
  const { driver } = view.connection;
  return driver.prepare<unknown[], string>(sql).pluck().get({ at, type }) ?? null;
}

function pageSeen(
  site: CompiledSite,
  reader: SiteReader,
  { key, address }: Listing,
  { at, visit }: { at: Instant; visit: string | undefined },
): ListingOutcome['page'] {
  const path = key === site.frontListing ? rootOf(site.design) : address;
  if (path === undefined) return null;
  const asked = visit === undefined ? null : render(site, reader, requestOf(visit, at));
  if (visit !== undefined && asked?.listing === key) return { html: asked.body, path: visit };
  return { html: render(site, reader, { path, at }).body, path };
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
      const shown = columnShown(column, rowOf(entry), world);
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
    columns.get(field)?.target?.of === 'entries' ? literalsOf({ value }).map(String) : [],
  );
  const pinned = (listing.pins ?? []).map(({ entry }) => entry);
  return Object.fromEntries([...ids, ...pinned].map((id) => [id, entryName(view, id)]));
}
