import type { Connection } from '../db/connection.ts';
import type { CompiledSite } from '@/core/site/compile.ts';
import { simulate } from '@/core/address/simulate.ts';
import type { AddressRow, Refusal, Timeline } from '@/core/address/model.ts';
import type { LiveInterval } from '@/core/publication/model.ts';
import type { ContentType } from '@/core/design/spec.ts';
import { type Instant, BEGINNING } from '@/core/time/interval.ts';
import {
  type EnsuredTables,
  ensureIndexTables,
  indexTable,
  indexWriter,
  makeIndexes,
  memberTable,
  repeatsBounds,
} from './index-tables.ts';
import { statement } from './statement.ts';
import { readValues } from './stored-values.ts';
import { type TimelineExtras, StoredTimeline } from './timeline-source.ts';

/**
 * What a write touched: entries to look at again at its instant, or everything from the
 * beginning.
 */
export interface DeriveRequest extends TimelineExtras {
  site: CompiledSite;
  /** Rows at or before it are facts and stay. */
  settled: Instant;
  /** Entries written at `settled`; their plans of that instant apply on top of what stood. */
  touched: Iterable<string>;
  /** True while loading: nothing is settled yet, and all of the past is derived. */
  fromBeginning?: boolean;
}

/** What deriving changed. */
export interface Derived {
  refusals: Refusal[];
  types: Set<string>;
}

/**
 * Derives every row after the settled instant from facts, revisions, plans and the design, within
 * the caller's transaction. Running it again gives the same rows.
 */
export function derive(connection: Connection, request: DeriveRequest): Derived {
  const { site, settled } = request;
  const tables = ensureIndexTables(connection, site.types.values(), site.listings.values());
  const start = request.fromBeginning ? BEGINNING : settled;
  forgetAfter(connection, site, start);
  const source = new StoredTimeline(connection, site, start, request);
  const events = eventsAfter(connection, start, settled, request);
  const timeline = simulate(site.addresses, source, events);
  const runs = changedRuns(connection, timeline);
  writeTimeline(connection, timeline, runs);
  indexRuns(connection, site, runs, settled, tables);
  const types = new Set(
    [...timeline.touched].flatMap((id) => typeOf(connection, site, id)?.key ?? []),
  );
  for (const key of tables.rebuilt)
    reindex(connection, site, tables.types.get(key)!, settled, types);
  closeSettled(connection, site, settled);
  return { refusals: timeline.refusals, types };
}

/** Takes away what was derived for instants after `start`. */
function forgetAfter(connection: Connection, site: CompiledSite, start: Instant): void {
  const { driver } = connection;
  // Until they are derived again, planned publications publish nothing.
  statement(
    connection,
    `UPDATE entry SET unpublished = NOT EXISTS (SELECT 1 FROM live_interval AS l
       WHERE l.entry = entry.id AND l.revision = entry.newest AND l.starts <= ?)
     WHERE id IN (SELECT entry FROM live_interval WHERE starts > ?)`,
  ).run(start, start);
  for (const table of ['live_interval', 'address']) {
    driver.prepare(`DELETE FROM ${table} WHERE starts > ?`).run(start);
    driver.prepare(`UPDATE ${table} SET ends = NULL WHERE ends > ?`).run(start);
  }
  for (const type of site.types.values()) {
    driver
      .prepare(
        `DELETE FROM ${memberTable(type)} WHERE (entry, starts) IN
           (SELECT entry, starts FROM ${indexTable(type)} WHERE starts > ?)`,
      )
      .run(start);
    driver.prepare(`DELETE FROM ${indexTable(type)} WHERE starts > ?`).run(start);
    for (const table of boundedTables(site, type))
      driver.prepare(`UPDATE ${table} SET ends = NULL WHERE ends > ? AND open = 1`).run(start);
  }
  statement(connection, 'DELETE FROM refusal WHERE at > ?').run(start);
  statement(connection, 'UPDATE entry SET published = NULL WHERE published > ?').run(start);
}

function eventsAfter(
  connection: Connection,
  start: Instant,
  settled: Instant,
  { touched, fromBeginning, histories }: DeriveRequest,
): Map<Instant, Set<string>> {
  const events = new Map<Instant, Set<string>>();
  const add = (at: Instant, entry: string): void => {
    const known = events.get(at);
    if (known) known.add(entry);
    else events.set(at, new Set([entry]));
  };
  const rows = (sql: string): { at: number; entry: string }[] =>
    statement<{ at: number; entry: string }>(connection, sql).all(start);
  for (const { at, entry } of rows('SELECT at, entry FROM planned_change WHERE at > ?'))
    add(at, entry);
  for (const { at, entry } of rows('SELECT starts AS at, entry FROM by_hand WHERE starts > ?'))
    add(at, entry);
  for (const { at, entry } of rows('SELECT ends AS at, entry FROM by_hand WHERE ends > ?'))
    add(at, entry);
  if (fromBeginning) {
    const saved = rows(
      `SELECT DISTINCT r.saved AS at, r.entry FROM revision AS r
         JOIN reference_edge AS e ON e.target = r.entry WHERE r.saved > ?`,
    );
    for (const { at, entry } of saved) add(at, entry);
    for (const [entry, { held }] of histories ?? []) {
      add(settled, entry);
      for (const { from, to } of held) for (const at of [from, to]) if (at !== null) add(at, entry);
    }
  } else for (const entry of touched) add(settled, entry);
  return events;
}

/**
 * The live intervals of the entries whose publication changed; the others' rows are as they
 * should be.
 */
function changedRuns(
  connection: Connection,
  { touched, live }: Timeline,
): Map<string, LiveInterval[]> {
  const runs = new Map<string, LiveInterval[]>([...touched].map((id) => [id, []]));
  for (const row of live) runs.get(row.entry)?.push(row);
  const open = statement<{ starts: Instant; revision: number }>(
    connection,
    'SELECT starts, revision FROM live_interval WHERE entry = ? AND ends IS NULL',
  );
  for (const [id, rows] of runs) {
    const stands = open.all(id);
    const [row] = rows;
    const same =
      rows.length === 0
        ? stands.length === 0
        : rows.length === 1 &&
          stands.length === 1 &&
          row!.to === null &&
          row!.from === stands[0]!.starts &&
          row!.revision === stands[0]!.revision;
    if (same) runs.delete(id);
  }
  return runs;
}

function writeTimeline(
  connection: Connection,
  { touched, addresses, published, refusals }: Timeline,
  runs: ReadonlyMap<string, LiveInterval[]>,
): void {
  writeRuns(connection, runs, published);
  writeAddresses(connection, touched, addresses);
  writeRefusals(connection, refusals);
}

function writeRuns(
  connection: Connection,
  runs: ReadonlyMap<string, LiveInterval[]>,
  published: Timeline['published'],
): void {
  const drop = statement(connection, 'DELETE FROM live_interval WHERE entry = ? AND ends IS NULL');
  const add = statement(
    connection,
    `INSERT OR REPLACE INTO live_interval
       (entry, language, starts, ends, revision, shared_revision) VALUES (?, ?, ?, ?, ?, ?)`,
  );
  const mark = statement(
    connection,
    `UPDATE entry SET published = ?, unpublished = NOT EXISTS (SELECT 1 FROM live_interval AS l
       WHERE l.entry = entry.id AND l.revision = entry.newest) WHERE id = ?`,
  );
  for (const [id, rows] of runs) {
    drop.run(id);
    for (const r of rows) add.run(r.entry, r.language, r.from, r.to, r.revision, r.sharedRevision);
    mark.run(published.get(id) ?? null, id);
  }
}

function writeAddresses(
  connection: Connection,
  touched: ReadonlySet<string>,
  addresses: readonly AddressRow[],
): void {
  const drop = statement(connection, 'DELETE FROM address WHERE entry = ? AND ends IS NULL');
  const add = statement(
    connection,
    `INSERT OR REPLACE INTO address
       (path, language, entry, starts, ends, role, base) VALUES (?, ?, ?, ?, ?, ?, ?)`,
  );
  for (const id of touched) drop.run(id);
  for (const r of addresses) add.run(r.path, r.language, r.entry, r.from, r.to, r.role, r.base);
}

function writeRefusals(connection: Connection, refusals: readonly Refusal[]): void {
  const add = statement(
    connection,
    `INSERT OR REPLACE INTO refusal
       (entry, at, code, message, fix, cancelled, base, by_hand) VALUES (?, ?, ?, ?, ?, ?, ?, ?)`,
  );
  for (const { entry, at, code, message, fix, cancelled, base, byHand } of refusals)
    add.run(entry, at, code, message, fix, cancelled ? 1 : 0, base, byHand ? 1 : 0);
}

function typeOf(
  connection: Connection,
  site: CompiledSite,
  entry: string,
): ContentType | undefined {
  return site.types.get(
    statement<string>(connection, 'SELECT type FROM entry WHERE id = ?').pluck().get(entry)!,
  );
}

function indexRuns(
  connection: Connection,
  site: CompiledSite,
  runs: ReadonlyMap<string, LiveInterval[]>,
  settled: Instant,
  { rebuilt, types }: EnsuredTables,
): void {
  const writers = new Map<string, ReturnType<typeof typeWriter>>();
  for (const [id, rows] of runs) {
    const type = typeOf(connection, site, id);
    if (!type || rebuilt.has(type.key)) continue;
    if (!writers.has(type.key))
      writers.set(type.key, typeWriter(connection, site, types.get(type.key)!, settled));
    writers.get(type.key)!(id, rows);
  }
}

/** Replaces the open rows of an entry in its type's derived tables by those given. */
function typeWriter(
  connection: Connection,
  site: CompiledSite,
  type: ContentType,
  settled: Instant,
): (id: string, rows: LiveInterval[]) => void {
  const write = indexWriter(connection, type, site.listings.values());
  const table = indexTable(type);
  const dropMembers = connection.driver.prepare(
    `DELETE FROM ${memberTable(type)} WHERE entry = ? AND starts IN
       (SELECT starts FROM ${table} WHERE entry = ? AND ends IS NULL)`,
  );
  const drop = connection.driver.prepare(`DELETE FROM ${table} WHERE entry = ? AND ends IS NULL`);
  const values = statement<string>(
    connection,
    'SELECT "values" FROM revision WHERE entry = ? AND number = ?',
  ).pluck();
  const facts = statement<{ created: number; published: number | null }>(
    connection,
    'SELECT created, published FROM entry WHERE id = ?',
  );
  return (id, rows) => {
    dropMembers.run(id, id);
    drop.run(id);
    const { created, published } = facts.get(id)!;
    for (const row of rows) {
      const { from, to, revision } = row;
      const read = readValues(values.get(id, revision)!, site.design.site.language);
      const times = { created, published: published ?? from, updated: from, from, to };
      write({ entry: id, ...times, values: read }, revision, settled);
    }
  };
}

/** Fills a type's derived tables, just made, from its live intervals. */
function reindex(
  connection: Connection,
  site: CompiledSite,
  type: ContentType,
  settled: Instant,
  types: Set<string>,
): void {
  const write = indexWriter(connection, type, site.listings.values());
  const sql = `SELECT l.entry, l.starts AS "from", l.ends AS "to", l.revision, e.created,
      e.published, r."values"
    FROM entry AS e JOIN live_interval AS l ON l.entry = e.id
    JOIN revision AS r ON r.entry = l.entry AND r.number = l.revision WHERE e.type = ?`;
  type Row = {
    entry: string;
    from: number;
    to: number | null;
    revision: number;
    created: number;
    published: number | null;
    values: string;
  };
  for (const row of connection.driver.prepare<unknown[], Row>(sql).all(type.key)) {
    write(
      {
        ...row,
        published: row.published ?? row.from,
        updated: row.from,
        values: readValues(row.values, site.design.site.language),
      },
      row.revision,
      settled,
    );
  }
  makeIndexes(connection, type, site.listings.values());
  types.add(type.key);
}

/** Index rows that ended by now leave the partial indexes. */
function closeSettled({ driver }: Connection, site: CompiledSite, settled: Instant): void {
  for (const type of site.types.values()) {
    for (const table of boundedTables(site, type))
      driver
        .prepare(`UPDATE ${table} SET open = 0 WHERE ends IS NOT NULL AND ends <= ? AND open = 1`)
        .run(settled);
  }
}

/** The derived tables of a type that hold bounds. */
function boundedTables(site: CompiledSite, type: ContentType): string[] {
  return repeatsBounds(type, site.listings.values())
    ? [indexTable(type), memberTable(type)]
    : [indexTable(type)];
}
