import type { Refusal, Timeline, TimelineEntry } from '@/core/address/model.ts';
import { type PathPiece, pathPieces } from '@/core/address/pieces.ts';
import type { Foreseen } from '@/core/address/foreseen.ts';
import { explainBase, simulating } from '@/core/address/simulate.ts';
import { drained } from '@/core/little-by-little.ts';
import type { ContentType, Design } from '@/core/design/spec.ts';
import type { EntryView, Values } from '@/core/design/values.ts';
import type { CompiledSite } from '@/core/site/compile.ts';
import type { SiteReader } from '@/core/site/reader.ts';
import { type Instant, Validity, covers } from '@/core/time/interval.ts';
import type { Overlay } from '../store/overlay-reader.ts';
import { type DesignsAhead, siteIn } from '../store/designs-ahead.ts';
import { personName } from '../store/persons.ts';
import { statement } from '../store/statement.ts';
import { hasWordsIn, valuesOfType } from '../store/stored-values.ts';
import { StoredTimeline } from '../store/timeline-source.ts';
import type { SiteView } from './site-view.ts';

/** What publishing an entry with some values at an instant would do to addresses. */
export interface Prospect {
  /** Where it would stand; null where it would have no page. */
  path: string | null;
  pieces: PathPiece[];
  /** Why it could not have the address it should have. */
  refusal: Refusal | null;
  /** Where it stands as of the instant; null where it does not. */
  from: string | null;
  /** Where other pages would stand that move with it, null for nowhere; by id. */
  moved: ReadonlyMap<string, string | null>;
}

/** An entry that need not be stored, with the values it would have; `author` is a name. */
export type Draft = Pick<EntryView, 'id' | 'type' | 'values' | 'author' | 'language'>;

/** What publishing some drafts at an instant, all at once, would do to addresses. */
interface Thought {
  source: StoredTimeline;
  timeline: Timeline;
  /** The number of the revision that a draft would be. */
  numberOf(id: string): number;
}

/** What else is thought of. */
interface Beyond {
  /** Entries that another design may move at the instant. */
  moving?: readonly string[];
  /** Who is to be looked at again at later instants. */
  later?: ReadonlyMap<Instant, ReadonlySet<string>>;
  /** Designs that take over later. */
  designs?: readonly { starts: Instant; site: CompiledSite }[];
}

/** Publishes drafts at an instant, in thought, by the rules themselves, little by little. */
function* publishing(
  view: SiteView,
  site: CompiledSite,
  drafts: readonly Draft[],
  at: Instant,
  { moving = [], later = new Map(), designs = [] }: Beyond = {},
): Generator<Foreseen | null, Thought> {
  const stored = new StoredTimeline(view.connection, asRead(site, designs));
  const published = new Map(
    drafts.map((draft) => [draft.id, withPublication(stored.entry(draft.id, at), draft, at)]),
  );
  const source = Object.create(stored) as StoredTimeline;
  source.entry = (id, then) => published.get(id) ?? stored.entry(id, then);
  source.mayAct = (id, then) => published.has(id) || stored.mayAct(id, then);
  const events = new Map([...later, [at, new Set([...published.keys(), ...moving])]]);
  const timeline = yield* simulating((then) => stored.rulesAt(then), source, events);
  return { source, timeline, numberOf: (id) => published.get(id)!.revisions.at(-1)!.number };
}

/** Designs in the language that the first one is read in. */
function asRead(
  first: CompiledSite,
  designs: readonly { starts: Instant; site: CompiledSite }[],
): DesignsAhead {
  const language = first.design.edition?.id;
  if (language === undefined) return { first, later: designs };
  const later = designs.map(({ starts, site }) => ({ starts, site: siteIn(site, language) }));
  return { first, later, language };
}

function withPublication(
  known: TimelineEntry | undefined,
  { id, type, values }: Draft,
  at: Instant,
): TimelineEntry {
  const revisions = known?.revisions ?? [];
  const revision = (revisions.at(-1)?.number ?? 0) + 1;
  return {
    byHand: [],
    created: at,
    author: '',
    ...known,
    id,
    type,
    revisions: [...revisions, { number: revision, saved: at, values, author: '' }],
    plans: [{ at, sequence: 0, do: 'publish', revision }],
  };
}

/** Where entries stand after an instant whose publications were thought of; by id. */
function pathsAfter({ timeline }: Thought, at: Instant): Map<string, string> {
  const dealt = timeline.addresses.filter((row) => row.role === 'current' && covers(row, at));
  return new Map(dealt.map(({ entry, path }) => [entry, path]));
}

/** What publishing one draft at an instant would do. */
export function prospectOf(
  view: SiteView,
  site: CompiledSite,
  draft: Draft,
  at: Instant,
): Prospect {
  const { id } = draft;
  const thought = drained(publishing(view, site, [draft], at));
  const before = thought.source.standing(id, at);
  const { timeline, source } = thought;
  const path = pathsAfter(thought, at).get(id) ?? null;
  const parts = partsOf(site, source, id, thought.numberOf(id), at);
  return {
    path,
    pieces: path === null ? [] : pathPieces(path, parts, site.design.site.language),
    refusal: timeline.refusals.find((r) => r.entry === id) ?? null,
    from: before.live ? (before.held?.path ?? null) : null,
    moved: movedBy(thought, [id], at),
  };
}

/** Where entries stand that are dealt another address at the instant, but for some; by id. */
function movedBy(
  { timeline, source }: Thought,
  but: string[],
  at: Instant,
): Map<string, string | null> {
  const then = timeline.addresses.filter((row) => row.role === 'current' && covers(row, at));
  const rows = new Map(then.map((row) => [row.entry, row]));
  const moved = new Map<string, string | null>();
  for (const id of timeline.touched) {
    const row = rows.get(id);
    if (but.includes(id) || (row && row.from !== at)) continue;
    if (row || source.standing(id, at).held) moved.set(id, row?.path ?? null);
  }
  return moved;
}

/** A compiled site and what it is read with. */
export interface Seen {
  site: CompiledSite;
  reader: SiteReader;
}

/**
 * What a site looks like with drafts published at an instant: they themselves, and whom they or
 * another design move.
 */
export function overlayOf(...asked: Parameters<typeof overlaying>): Overlay {
  return drained(overlaying(...asked)).overlay;
}

/** The same, little by little, with who could not have the address they should have. */
export function* overlaying(
  view: SiteView,
  { site, reader }: Seen,
  { drafts, ...beyond }: { drafts: readonly Draft[] } & Beyond,
  at: Instant,
): Generator<Foreseen | null, { overlay: Overlay; refusals: Refusal[] }> {
  if (drafts.length + (beyond.moving?.length ?? 0) + (beyond.later?.size ?? 0) === 0)
    return { overlay: { entries: [], moved: new Map() }, refusals: [] };
  const ids = drafts.map(({ id }) => id);
  const live = reader.liveEntries(ids, new Validity(at));
  const thought = yield* publishing(view, site, drafts, at, beyond);
  const paths = pathsAfter(thought, at);
  const overlay = {
    entries: drafts.map((draft) =>
      entryWith(view, live.get(draft.id), draft, paths.get(draft.id) ?? null, at),
    ),
    moved: movedBy(thought, ids, at),
  };
  return { overlay, refusals: thought.timeline.refusals };
}

function partsOf(
  site: CompiledSite,
  source: StoredTimeline,
  id: string,
  number: number,
  at: Instant,
): NonNullable<ReturnType<typeof explainBase>>['parts'] {
  const asPublished = Object.create(source) as StoredTimeline;
  asPublished.standing = (other) => {
    const standing = source.standing(other, at);
    return other === id ? { ...standing, live: null, lastRevision: number } : standing;
  };
  return explainBase(site.addresses, asPublished, id, at)?.parts ?? [];
}

/**
 * An entry with other values as if they were published at an instant, at the address it would
 * get.
 */
export function entryWith(
  view: SiteView,
  live: EntryView | undefined,
  { id, type, values, author, language }: Draft,
  path: string | null,
  at: Instant,
): EntryView {
  const sql = 'SELECT created, published, author FROM entry WHERE id = ?';
  const stored = statement<{ created: Instant; published: Instant | null; author: string }>(
    view.connection,
    sql,
  ).get(id);
  const published = live?.published ?? stored?.published ?? at;
  return {
    id,
    type,
    values,
    author: stored ? personName(view.connection, stored.author) : author,
    ...(stored ? { authorId: stored.author } : {}),
    created: stored?.created ?? at,
    published: Math.min(published, at),
    updated: at,
    state: 'live',
    path,
    ...(language === undefined ? {} : { language }),
  };
}

/** The values of the newest revision saved by an instant, as a type reads them; none where nothing was. */
export function newestValues(
  view: SiteView,
  type: ContentType,
  id: string | null,
  at: Instant,
  language = view.at(at)!.site.design.site.language,
): Values | null {
  const json = newestStored(view, id, at);
  if (json === undefined) return null;
  const { zone } = view.at(at)!.site.design.site;
  return valuesOfType(type, json, { zone, language });
}

/** The same as a design's language has them: its words, or where it has none the site's own. */
export function newestShown(
  view: SiteView,
  type: ContentType,
  id: string | null,
  at: Instant,
  design: Design,
): Pick<Draft, 'values' | 'language'> | null {
  const json = newestStored(view, id, at);
  return json === undefined ? null : shownOf(type, json, design);
}

/** Stored values as a design's language shows them, and in which language, where that is another. */
export function shownOf(
  type: ContentType,
  json: string,
  { site, edition }: Design,
): Pick<Draft, 'values' | 'language'> {
  if (!edition || hasWordsIn(json, site.language))
    return { values: valuesOfType(type, json, site) };
  const language = edition.own;
  return { values: valuesOfType(type, json, { zone: site.zone, language }), language };
}

function newestStored(view: SiteView, id: string | null, at: Instant): string | undefined {
  const sql = `SELECT "values" FROM revision WHERE entry = ? AND saved <= ? ORDER BY number DESC LIMIT 1`;
  return statement<string>(view.connection, sql).pluck().get(id, at);
}
