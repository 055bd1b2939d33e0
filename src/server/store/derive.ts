import type { Connection } from '../db/connection.ts';
import { simulate } from '@/core/address/simulate.ts';
import type { Refusal, Timeline } from '@/core/address/model.ts';
import { readKey } from '@/core/forecast/read-set.ts';
import { BEGINNING } from '@/core/time/interval.ts';
import {
  type DesignsAhead,
  designsFrom,
  designsIn,
  languagesAhead,
  sitesOf,
} from './designs-ahead.ts';
import { eventsOf, movedByReleases } from './derive-events.ts';
import type { DeriveRequest } from './derive-request.ts';
import { changedRuns, writeTimeline } from './derive-rows.ts';
import { closeSettled, indexRuns, reindex } from './derive-index.ts';
import { Closure } from './closure.ts';
import { ensureIndexTables } from './index-tables.ts';
import { ensureNewest } from './newest/ensure-newest.ts';
import { languagesMade, makeTablesIn, tablesIn } from './language-tables.ts';
import { noteNewest, noteStates } from './newest/write-newest.ts';
import { statement } from './statement.ts';
import { StoredTimeline } from './timeline-source.ts';
import { TooManyForOneWrite } from './too-many.ts';

/** What deriving changed. */
export interface Derived {
  refusals: Refusal[];
  /** Of what was asked for in further languages, what could not be had. */
  furtherRefusals: Refusal[];
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
  const designs = designsFrom(connection, request.settled, request.site);
  const own = deriveIn(connection, designs, request);
  const further = furtherLanguages(connection, designs).map((language) =>
    deriveFurther(connection, designs, { language, request, own }),
  );
  closeSettled(connection, designs, request.settled);
  noteContent(connection, designs, {
    touched: request.touched,
    republished: [...own.runs.keys(), ...own.wereLive],
  });
  return {
    refusals: own.refusals,
    furtherRefusals: further.flatMap(({ furtherRefusals }) => furtherRefusals),
    refusedBefore: own.refusedBefore,
    changed: new Set([own, ...further].flatMap(({ changed }) => [...changed])),
  };
}

/** The languages besides the site's own of which something is derived, or was. */
function furtherLanguages(connection: Connection, designs: DesignsAhead): string[] {
  const ahead = languagesAhead(designs);
  return [...new Set([...ahead, ...languagesMade(connection)])];
}

/** What deriving in one language changed. */
interface DerivedIn extends Derived {
  runs: ReadonlyMap<string, unknown>;
  /** Those whose live intervals were taken away or cut, whatever they are by now. */
  wereLive: ReadonlySet<string>;
  /** Those that were played through. */
  played: ReadonlySet<string>;
}

/**
 * Derives what follows in a further language, where what is live in the site's own stands in for
 * words that are not there; of one that is new, all there is.
 */
function deriveFurther(
  connection: Connection,
  designs: DesignsAhead,
  parts: { language: string; request: DeriveRequest; own: DerivedIn },
): DerivedIn {
  const { language, request, own } = parts;
  const isNew = !languagesMade(connection).includes(language);
  if (isNew) makeTablesIn(connection, language);
  const everybody = statement<string>(connection, 'SELECT id FROM entry').pluck();
  const most = request.most ?? null;
  const all = isNew && !request.fromBeginning ? everybody.all() : [];
  if (most !== null && all.length > most) throw new TooManyForOneWrite(all.length);
  const touched = new Set([...request.touched, ...own.played, ...all]);
  const read = designsIn(designs, language);
  const derived = deriveIn(connection, read, { ...request, touched });
  const tags = sitesOf(read).map(({ design }) => design.site.language);
  const isAsked = askedIn(connection, new Set(tags));
  return { ...derived, furtherRefusals: derived.refusals.filter(isAsked) };
}

/** Whether something was asked for of an entry in a language: what stands in for that was not. */
function askedIn(connection: Connection, tags: ReadonlySet<string>): (of: Refusal) => boolean {
  const asked = statement<string>(
    connection,
    'SELECT language FROM planned_change WHERE entry = ? AND at = ?',
  ).pluck();
  return ({ entry, at }) => asked.all(entry, at).some((tag) => tags.has(tag));
}

function deriveIn(
  connection: Connection,
  designs: DesignsAhead,
  request: DeriveRequest,
): DerivedIn {
  const { settled } = request;
  const tables = ensureIndexTables(connection, designs);
  checkRebuilt(connection, tables.rebuilt, request.most ?? null);
  const start = request.fromBeginning ? BEGINNING : settled;
  const source = new StoredTimeline(connection, designs, request, start);
  const closure = new Closure(connection, source, start, request.fromBeginning, designs.language);
  const timeline = play(connection, { request, designs, source, closure });
  const stored = tablesIn(designs.language);
  const runs = changedRuns(connection, stored, timeline);
  writeTimeline(connection, stored, timeline, runs);
  indexRuns(connection, designs, runs, settled, tables);
  for (const id of tables.rebuilt) reindex(connection, designs, tables.types.get(id)!, settled);
  const changed = changedBy(timeline, runs, closure);
  const { refusedBefore, wereLive, ids: played } = closure;
  const { refusals } = timeline;
  return { refusals, furtherRefusals: [], changed, refusedBefore, runs, wereLive, played };
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
