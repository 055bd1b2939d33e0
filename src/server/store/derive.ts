import type { Connection } from '../db/connection.ts';
import { simulate } from '@/core/address/simulate.ts';
import type { Refusal, Timeline } from '@/core/address/model.ts';
import { readKey } from '@/core/forecast/read-set.ts';
import { BEGINNING } from '@/core/time/interval.ts';
import { type DesignsAhead, designsFrom } from './designs-ahead.ts';
import { eventsOf, movedByReleases } from './derive-events.ts';
import type { DeriveRequest } from './derive-request.ts';
import { changedRuns, writeTimeline } from './derive-rows.ts';
import { closeSettled, indexRuns, reindex } from './derive-index.ts';
import { Closure } from './closure.ts';
import { ensureIndexTables } from './index-tables.ts';
import { ensureNewest } from './newest/ensure-newest.ts';
import { noteNewest, noteStates } from './newest/write-newest.ts';
import { statement } from './statement.ts';
import { StoredTimeline } from './timeline-source.ts';
import { TooManyForOneWrite } from './too-many.ts';

/** What deriving changed. */
export interface Derived {
  refusals: Refusal[];
  /** What changed of what is public, now or later, by keys of read sets. */
  changed: Set<string>;
  /** What had been refused before of the entries played through, as `entry` and `at` in lines. */
  refusedBefore: ReadonlySet<string>;
}

/** Rounds after which all that lies ahead is played through, rather than to look for who else is. */
const MOST_ROUNDS = 8;

/**
 * Derives the rows after the settled instant of what was touched, and of whoever is concerned by
 * it: those built on it, and those that claim a path in question. Everybody else's stay as they
 * are. From facts, revisions, plans and the designs, within the caller's transaction; running it
 * again gives the same rows.
 */
export function derive(connection: Connection, request: DeriveRequest): Derived {
  const { site, settled } = request;
  const designs = designsFrom(connection, settled, site);
  const tables = ensureIndexTables(connection, designs);
  checkRebuilt(connection, tables.rebuilt, request.most ?? null);
  const start = request.fromBeginning ? BEGINNING : settled;
  const source = new StoredTimeline(connection, designs, request);
  const closure = new Closure(connection, source, start, request.fromBeginning);
  const timeline = play(connection, { request, designs, source, closure });
  const runs = changedRuns(connection, timeline);
  writeTimeline(connection, timeline, runs);
  indexRuns(connection, designs, runs, settled, tables);
  for (const id of tables.rebuilt) reindex(connection, designs, tables.types.get(id)!, settled);
  closeSettled(connection, designs, settled);
  noteContent(connection, designs, {
    touched: request.touched,
    republished: [...runs.keys(), ...closure.wereLive],
  });
  const changed = changedBy(timeline, runs, closure);
  return { refusals: timeline.refusals, changed, refusedBefore: closure.refusedBefore };
}

/** Notes what the content table reads of entries that were written, or are public otherwise. */
function noteContent(
  connection: Connection,
  designs: DesignsAhead,
  { touched, republished }: { touched: Iterable<string>; republished: Iterable<string> },
): void {
  const { by, anew } = ensureNewest(connection, designs);
  const written = new Set(touched);
  const typeOf = statement<string>(connection, 'SELECT type FROM entry WHERE id = ?').pluck();
  const isNoted = (id: string): boolean => anew.size > 0 && anew.has(typeOf.get(id) ?? '');
  const [note, noteState] = [noteNewest(connection, by), noteStates(connection)];
  for (const id of written) if (!isNoted(id)) note(id);
  for (const id of new Set(republished)) if (!written.has(id) && !isNoted(id)) noteState(id);
}

/** @throws TooManyForOneWrite */
function checkRebuilt(
  connection: Connection,
  types: ReadonlySet<string>,
  most: number | null,
): void {
  if (most === null) return;
  const count = statement<number>(connection, 'SELECT count(*) FROM entry WHERE type = ?').pluck();
  const entries = [...types].reduce((sum, type) => sum + count.get(type)!, 0);
  if (entries > most) throw new TooManyForOneWrite(entries);
}

/** What readers may have seen otherwise: entries, their types' lists, and paths given up or taken. */
function changedBy(
  { touched, addresses }: Timeline,
  runs: ReadonlyMap<string, unknown>,
  closure: Closure,
): Set<string> {
  const changed = new Set<string>();
  for (const id of touched) {
    changed.add(readKey.entry(id));
    for (const path of closure.pathsOf(id)) changed.add(readKey.path(path));
  }
  for (const { path } of addresses) changed.add(readKey.path(path));
  for (const id of runs.keys()) changed.add(readKey.type(closure.typeOf(id) ?? ''));
  if (touched.size > 0) changed.add(readKey.pages);
  return changed;
}

/** Plays what lies ahead of whoever is concerned; whoever that concerns joins, until nobody does. */
function play(
  connection: Connection,
  parts: {
    request: DeriveRequest;
    designs: DesignsAhead;
    source: StoredTimeline;
    closure: Closure;
  },
): ReturnType<typeof simulate> {
  const { request, source, closure } = parts;
  if (request.everybody || request.fromBeginning) closure.addAll();
  if (request.everybody) closure.add(movedByReleases(connection, parts.designs));
  closure.add(request.touched);
  closure.add(request.touchedLater?.entries ?? []);
  for (let round = 1; ; round++) {
    const events = eventsOf(connection, { ...parts, start: closure.start });
    const timeline = simulate((at) => source.rulesAt(at), source, events);
    if (!closure.addThoseWhoClaim(source.asked)) return timeline;
    if (round >= MOST_ROUNDS) closure.addAll();
  }
}
