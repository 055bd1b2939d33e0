import { framesOf } from './settings.ts';
import { type PathElsewhere, pathsElsewhere } from './paths-elsewhere.ts';
import { inLanguageSeen } from './drafts.ts';
import type { SiteView } from './site-view.ts';
import { type Actor, SITE, permit } from '../permit.ts';
import { computedOf } from './computed.ts';
import { displayWorld, entryName } from './display.ts';
import { sentencesAbout } from './bench.ts';
import { type ListingColumn, listingColumns } from './listing-columns.ts';
import { entriesOf } from './types.ts';
import { type Specimen, specimensOf } from './specimens.ts';
import { type Starter, starters } from './starters.ts';
import { withSteps } from './unsaved.ts';
import type { Looking } from './clock.ts';
import { type TriedOn, cardHtml, triedOn, whyNoPath } from './tried-on.ts';
import type { Issue } from '@/core/issue.ts';
import type { Field } from '@/core/design/field.ts';
import type { ContentType, Design, Template } from '@/core/design/spec.ts';
import type { EntryView } from '@/core/design/values.ts';
import type { PathPiece } from '@/core/address/pieces.ts';
import { type Removal, removalOfType } from '@/core/design-edit/removal.ts';
import type { Step } from '@/core/design-edit/steps.ts';
import { displayValues } from '@/core/design/field-values.ts';
import { columnsOf } from '@/core/listing/columns.ts';
import type { CompiledSite } from '@/core/site/compile.ts';
import { renderEntry } from '@/core/site/render.ts';
import type { Instant } from '@/core/time/interval.ts';
import { fieldIdsEver } from '../store/earlier-designs.ts';
import { statement } from '../store/statement.ts';

/** What the Type screen shows of a type. */
export interface TypeDetail {
  /** The type in the working design; in the past as it was released. */
  spec: ContentType;
  /** The language that pages are written in. */
  language: string;
  /** Templates that read this type, for its choices. */
  templates: Pick<Template, 'key' | 'label' | 'kind'>[];
  /** What can stand around its pages. */
  frames: { key: string; label: string }[];
  /** Entries to try it on, the hardest first. */
  specimens: Specimen[];
  listings: { key: string; label: string; address: string | null }[];
  /** What the bench holds of it, a sentence each. */
  onBench: string[];
  /** What fields may lead to: types, and subject sets. */
  types: Pick<ContentType, 'key' | 'label' | 'plural' | 'address' | 'clash' | 'seo' | 'timing'>[];
  sets: { key: string; label: string; kind: 'tags' | 'tree' }[];
  /** What conditions of timing rules may ask of an entry: of itself alone. */
  columns: ListingColumn[];
  /** Picks that new entries may join. */
  picks: { key: string; label: string }[];
  /** What rich texts can be let hold. */
  textForms: { key: string; label: string }[];
  /** Ids that released fields have or had: values are stored under them, so new ones have others. */
  taken: string[];
  /** Ids that sets have, and that subjects are stored under. */
  takenSets: string[];
  /** Ids that entries are stored under, of types that may be gone. */
  takenTypes: string[];
  /** What new entries of it can begin with; null where it is not released yet. */
  starters: Starter[] | null;
  /** How many entries there are of it, 1,001 for more than 1,000. */
  entries: number;
  /** What would go with it. */
  removal: Removal;
}

/** Everything about a type, and entries to try it on. Null where there is no such type. */
export function typeDetail(
  view: SiteView,
  actor: Actor,
  key: string,
  { at, past }: Looking,
): TypeDetail | null {
  permit(actor, 'read-unpublished', SITE);
  const design = view.editable(at, past)?.site.design;
  const spec = design?.types.find((t) => t.key === key);
  if (!design || !spec) return null;
  return {
    spec,
    language: design.site.language,
    templates: design.templates
      .filter((t) => t.type === key)
      .map(({ key: k, label, kind }) => ({ key: k, label, kind })),
    frames: framesOf(design),
    specimens: specimensOf(view, spec, at),
    listings: design.listings
      .filter((l) => l.type === key)
      .map((l) => ({ key: l.key, label: l.label, address: l.address ?? null })),
    onBench: past ? [] : sentencesAbout(view, `types/${spec.id}`, at),
    columns: timingColumns(view, design, spec, at),
    starters: view.at(at)?.site.types.has(spec.id) ? starters(view, spec.id) : null,
    ...changesOf(view, design, spec),
  };
}

/** What timing rules may ask of an entry: what others do is none of theirs. */
function timingColumns(
  view: SiteView,
  { site }: Design,
  type: ContentType,
  at: Instant,
): ListingColumn[] {
  const own = new Set(
    [...columnsOf(type).values()].filter(({ target }) => target === null).map(({ name }) => name),
  );
  const all = listingColumns(view, type, { at, language: site.language });
  return all.filter(({ name }) => own.has(name));
}

/** What changing a type has to know of the rest of the site. */
function changesOf(
  { connection }: SiteView,
  design: Design,
  spec: ContentType,
): Pick<
  TypeDetail,
  | 'types'
  | 'sets'
  | 'picks'
  | 'textForms'
  | 'taken'
  | 'takenSets'
  | 'takenTypes'
  | 'entries'
  | 'removal'
> {
  const sets = statement<string>(connection, 'SELECT DISTINCT "set" FROM subject').pluck();
  return {
    types: design.types.map(({ key, label, plural, address, clash, seo, timing }) => ({
      key,
      label,
      plural,
      address,
      clash,
      seo,
      timing,
    })),
    sets: design.subjectSets.map(({ key, label, kind }) => ({ key, label, kind })),
    picks: design.picks.map(({ key, label }) => ({ key, label })),
    textForms: design.textForms.map(({ key, label }) => ({ key, label })),
    taken: fieldIdsEver(connection, spec.id),
    takenTypes: statement<string>(connection, 'SELECT DISTINCT type FROM entry').pluck().all(),
    takenSets: [...sets.all(), ...design.subjectSets.map(({ id }) => id)],
    entries: entriesOf(connection, spec.id),
    removal: removalOfType(design, spec.id),
  };
}

/** The fields of a type in the working design, for copies of one; none where it is gone. */
export function fieldsOf(view: SiteView, actor: Actor, key: string, at: Instant): Field[] {
  permit(actor, 'read-unpublished', SITE);
  const types = view.editable(at, false)?.site.typesByKey;
  return types?.get(key)?.fields ?? [];
}

/** What a type, saved or not, makes of one entry. */
export interface TypeOutcome {
  issues: Issue[];
  specimen: string;
  standIn: boolean;
  path: string | null;
  /** Why there is no path, where there is none. */
  noPath: string | null;
  pieces: PathPiece[];
  /** Where the page stands that is shown, which may be one in a further language. */
  shownAt: string | null;
  title: string;
  description: string | null;
  page: string | null;
  automatic: boolean;
  /** A card in a page of its own. */
  card: string | null;
  fields: { id: string; value: string }[];
  /** What each timing rule gives for it, by the rule's id: an instant, ms UTC; null for never. */
  timing: Record<string, Instant | null>;
  /** Where it would stand in further languages. */
  elsewhere: PathElsewhere[];
}

/** A type with unsaved properties, and the entry to try it on; null for a stand-in. */
export interface TypeInput {
  id: string;
  /** What is unsaved. */
  steps: Step[];
  specimen: string | null;
}

/**
 * The outcome of an edited type for a specimen as of an instant; a stand-in where the type has no
 * entries.
 */
export function typeOutcome(
  view: SiteView,
  actor: Actor,
  { id: typeId, steps, specimen }: TypeInput,
  looking: Looking,
): TypeOutcome | null {
  const { at, past } = looking;
  permit(actor, 'read-unpublished', { of: 'part', path: `types/${typeId}` });
  const current = view.editable(at, past);
  if (!current?.site.types.has(typeId)) return null;
  const { site, issues } = withSteps(current.site, steps);
  const on = (of: CompiledSite): TriedOn =>
    triedOn(view, actor, { site: of, type: of.types.get(typeId)!, specimen }, looking);
  const tried = on(site);
  const said = inLanguageSeen(site, looking);
  const { id, live, values, standIn, prospect, entry, reader } = tried;
  const { type } = entry;
  const world = displayWorld(view, at);
  const shown = (field: Field): string => displayValues(values, field, world);
  const computed = computedOf(site, reader, entry, at);
  return {
    issues,
    specimen: standIn ? 'Stand-in, never published' : entryName(view, id),
    standIn,
    path: prospect.path,
    noPath: whyNoPath(type, prospect),
    pieces: prospect.pieces,
    ...pageOf(said, said === site ? tried : on(said), at),
    timing: timingOf(site, entry, { published: live?.published ?? null, at }),
    fields: type.fields.map((f) => ({ id: f.id, value: computed[f.id] ?? shown(f) })),
    elsewhere: pathsElsewhere(view, site, tried, at),
  };
}

/** The page and the card of the specimen, in the language that is looked at. */
function pageOf(
  site: CompiledSite,
  { prospect: { path }, entry, reader }: TriedOn,
  at: Instant,
): Pick<TypeOutcome, 'shownAt' | 'title' | 'description' | 'page' | 'automatic' | 'card'> {
  const page = path === null ? null : renderEntry(site, reader, entry, at);
  return {
    shownAt: path,
    title: page?.meta?.title ?? '',
    description: page?.meta?.description ?? null,
    page: page?.body ?? null,
    automatic: page?.automatic ?? false,
    card: cardHtml(site, reader, entry, at),
  };
}

/** When each timing rule acts on the specimen; where it is not public so far, as if it were now. */
function timingOf(
  site: CompiledSite,
  { id, type, values, created }: EntryView,
  { published, at }: { published: Instant | null; at: Instant },
): TypeOutcome['timing'] {
  const looked = { entry: id, created, published: published ?? at, values };
  return Object.fromEntries(
    (site.timing.get(type.id) ?? []).map((rule) => {
      const instant = rule.instant(looked);
      return [rule.id, instant !== null && rule.holds(looked, instant) ? instant : null];
    }),
  );
}
