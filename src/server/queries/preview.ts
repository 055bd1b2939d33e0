import type { AddressRow, Refusal } from '@/core/address/model.ts';
import { type PathPiece, pathPieces } from '@/core/address/pieces.ts';
import { explainBase, simulate } from '@/core/address/simulate.ts';
import type { ContentType } from '@/core/design/spec.ts';
import type { EntryView, Values } from '@/core/design/values.ts';
import type { CompiledSite } from '@/core/site/compile.ts';
import type { SiteReader } from '@/core/site/reader.ts';
import { type Instant, Validity } from '@/core/time/interval.ts';
import type { Actor } from '../permit.ts';
import { withEntries } from '../store/overlay-reader.ts';
import { statement } from '../store/statement.ts';
import { readValues } from '../store/stored-values.ts';
import { StoredTimeline } from '../store/timeline-source.ts';
import type { Seeing } from './clock.ts';
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
  /** How many other pages would move with it. */
  others: number;
}

/** An entry that need not be stored, with the values it would have. */
export type Draft = Pick<EntryView, 'id' | 'type' | 'values' | 'author'>;

/** Publishes an entry at an instant, in thought, by the rules themselves. */
export function prospectOf(
  view: SiteView,
  site: CompiledSite,
  draft: Draft,
  at: Instant,
): Prospect {
  const { id, type, values } = draft;
  const stored = new StoredTimeline(view.connection, site, at);
  const known = stored.entry(id);
  const number = (known?.revisions.at(-1)?.number ?? 0) + 1;
  const entry = {
    byHand: [],
    created: at,
    author: '',
    ...known,
    id,
    type,
    revisions: [...(known?.revisions ?? []), { number, saved: at, values, author: '' }],
    plans: [{ at, sequence: 0, do: 'publish' as const, revision: number }],
  };
  const source = Object.create(stored) as StoredTimeline;
  source.entry = (other) => (other === id ? entry : stored.entry(other));
  const before = stored.standing(id);
  const timeline = simulate(site.addresses, source, new Map([[at, new Set([id])]]));
  const holds = (row: AddressRow): boolean => row.role === 'current' && row.to === null;
  const path = timeline.addresses.findLast((r) => r.entry === id && holds(r))?.path ?? null;
  const moved = timeline.addresses.filter((r) => r.entry !== id && holds(r) && r.from === at);
  const parts = partsOf(site, source, id, number, at);
  return {
    path,
    pieces: path === null ? [] : pathPieces(path, parts, site.design.site.language),
    refusal: timeline.refusals.find((r) => r.entry === id) ?? null,
    from: before.live ? (before.held?.path ?? null) : null,
    others: moved.length,
  };
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
    const standing = source.standing(other);
    return other === id ? { ...standing, live: null, lastRevision: number } : standing;
  };
  return explainBase(site.addresses, asPublished, id, at)?.parts ?? [];
}

/** An entry with other values as if they were published at an instant, at the address it would get. */
export function entryWith(
  view: SiteView,
  live: EntryView | undefined,
  { id, type, values, author }: Draft,
  path: string | null,
  at: Instant,
): EntryView {
  const sql = 'SELECT created, published, author FROM entry WHERE id = ?';
  const stored = statement(view.connection, sql).get(id) as
    { created: Instant; published: Instant | null; author: string } | undefined;
  const published = live?.published ?? stored?.published ?? at;
  return {
    id,
    type,
    values,
    author: stored?.author ?? author,
    created: stored?.created ?? at,
    published: Math.min(published, at),
    updated: at,
    state: 'live',
    path,
  };
}

/** The values of the newest revision saved by an instant; none where nothing was. */
export function newestValues(view: SiteView, id: string | null, at: Instant): Values | null {
  const sql = `SELECT "values" FROM revision WHERE entry = ? AND saved <= ? ORDER BY number DESC LIMIT 1`;
  const json = statement(view.connection, sql).pluck().get(id, at) as string | undefined;
  return json === undefined ? null : readValues(json, view.at(at)!.site.design.site.language);
}

const MOST_DRAFTS = 200;

/** A person's drafts, saved by an instant, as if they were published then, the latest saved first; none where one sees what is published. */
export function draftsSeen(view: SiteView, actor: Actor, at: Instant, seeing: Seeing): EntryView[] {
  const found = seeing === 'published' ? null : view.at(at);
  if (!found) return [];
  const sql =
    'SELECT e.id, e.type, r."values" AS json, r.author FROM entry AS e JOIN revision AS r ON r.entry = e.id AND r.number = e.newest WHERE e.unpublished = 1 AND e.deleted IS NULL AND r.saved <= ? AND r.author = ? ORDER BY r.saved DESC, r.entry LIMIT ?';
  const rows = statement(view.connection, sql).all(at, actor.name, MOST_DRAFTS) as {
    id: string;
    type: string;
    json: string;
    author: string;
  }[];
  const live = found.reader.liveEntries(
    rows.map((r) => r.id),
    new Validity(at),
  );
  return rows.flatMap(({ id, type: key, json, author }) => {
    const type: ContentType | undefined = found.site.types.get(key);
    if (!type) return [];
    const values = readValues(json, found.site.design.site.language);
    const draft = { id, type, values, author };
    const { path } = prospectOf(view, found.site, draft, at);
    return [entryWith(view, live.get(id), draft, path, at)];
  });
}

/** A reader as of an instant that sees what is published, or that with a person's drafts in its place. */
export function readerSeeing(
  view: SiteView,
  actor: Actor,
  at: Instant,
  seeing: Seeing,
  reader: SiteReader,
): SiteReader {
  return withEntries(reader, draftsSeen(view, actor, at, seeing));
}
