import { valuesAs } from '@/core/design/conversion.ts';
import type { ContentType, Design } from '@/core/design/spec.ts';
import type { Values } from '@/core/design/values.ts';
import type { LiveInterval } from '@/core/publication/model.ts';
import type { Instant } from '@/core/time/interval.ts';
import type { Connection } from '../db/connection.ts';
import { type DesignsAhead, plansOf, sitesOf, writtenBy } from './designs-ahead.ts';
import { type TypeRead, indexTable, memberTable, readName } from './index-columns.ts';
import { type EnsuredTables, makeIndexes } from './index-tables.ts';
import { type StandsFor, indexWriter } from './index-writer.ts';
import { statement } from './statement.ts';
import { firstPublished } from './language-facts.ts';
import { subjectAt } from './subject-store.ts';
import { readShown, spokenIn } from './stored-values.ts';
import { tablesIn } from './language-tables.ts';

/** What takes away the derived rows of a type's entries for instants after `start`. */
export function indexForgetter(
  connection: Connection,
  type: TypeRead,
  start: Instant,
): (id: string) => void {
  const [index, member] = [indexTable(type), memberTable(type)];
  const sql = 'SELECT 1 FROM meta WHERE key = ?';
  const made = statement(connection, sql).get(`index:${readName(type)}`);
  if (!made) return () => undefined;
  const members = statement(
    connection,
    `DELETE FROM ${member} WHERE entry = @id AND starts IN
       (SELECT starts FROM ${index} WHERE entry = @id AND starts > @start)`,
  );
  const rows = statement(connection, `DELETE FROM ${index} WHERE entry = @id AND starts > @start`);
  const open = boundedTables(connection, type).map((table) =>
    statement(
      connection,
      `UPDATE ${table} SET ends = NULL WHERE entry = @id AND ends > @start AND open = 1`,
    ),
  );
  return (id) => {
    for (const forget of [members, rows, ...open]) forget.run({ id, start });
  };
}

/** The derived tables of a type that hold bounds, as they are. */
function boundedTables(connection: Connection, type: TypeRead): string[] {
  const [index, member] = [indexTable(type), memberTable(type)];
  const repeats = statement<number>(
    connection,
    `SELECT count(*) FROM pragma_table_info(?) WHERE name = 'ends'`,
  )
    .pluck()
    .get(member.slice(1, -1));
  return repeats ? [index, member] : [index];
}

/** Writes the derived rows of entries whose publication changed. */
export function indexRuns(
  connection: Connection,
  designs: DesignsAhead,
  runs: ReadonlyMap<string, LiveInterval[]>,
  settled: Instant,
  { rebuilt, types }: EnsuredTables,
): void {
  const writers = new Map<string, ReturnType<typeof typeWriter>>();
  const typeOf = statement<string>(connection, 'SELECT type FROM entry WHERE id = ?').pluck();
  for (const [id, rows] of runs) {
    const type = types.get(typeOf.get(id) ?? '');
    if (!type || rebuilt.has(type.id)) continue;
    if (!writers.has(type.id)) writers.set(type.id, typeWriter(connection, designs, type, settled));
    writers.get(type.id)!(id, rows);
  }
}

/** Replaces the open rows of an entry in its type's derived tables by those given. */
function typeWriter(
  connection: Connection,
  designs: DesignsAhead,
  type: ContentType,
  settled: Instant,
): (id: string, rows: LiveInterval[]) => void {
  const write = indexWriter(
    connection,
    type,
    sitesOf(designs).flatMap(plansOf),
    standing(connection, designs, settled),
  );
  const read = valuesReader(connection, writtenBy(designs), type);
  const table = indexTable(type);
  const dropMembers = statement(
    connection,
    `DELETE FROM ${memberTable(type)} WHERE entry = ? AND starts IN
       (SELECT starts FROM ${table} WHERE entry = ? AND ends IS NULL)`,
  );
  const drop = statement(connection, `DELETE FROM ${table} WHERE entry = ? AND ends IS NULL`);
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
      const first = firstPublished(published, from);
      const times = { created, published: first, updated: from, from, to };
      write({ entry: id, type: type.id, ...times, values: read(row) }, revision, settled);
    }
  };
}

/** Reads the values of what is live of an entry of a type. */
function valuesReader(
  connection: Connection,
  design: Design,
  { fields }: ContentType,
): (live: LiveInterval) => Values {
  const values = statement<string>(
    connection,
    'SELECT "values" FROM revision WHERE entry = ? AND number = ?',
  ).pluck();
  return ({ entry, revision, sharedRevision, language }) => {
    const words = values.get(entry, revision)!;
    const rest = sharedRevision === revision ? words : values.get(entry, sharedRevision)!;
    return valuesAs(fields, readShown(words, rest, spokenIn(design, language)), design.site);
  };
}

/** What keys count as by now, by what sets are called in any design from now on. */
function standing(connection: Connection, designs: DesignsAhead, settled: Instant): StandsFor {
  const ids = new Map(sitesOf(designs).flatMap(({ setIds }) => [...setIds]));
  const known = new Map<string, string>();
  return (set, key) => {
    const name = `${set}\n${key}`;
    let found = known.get(name);
    if (found === undefined) {
      found = subjectAt(connection, ids.get(set) ?? '', key, settled)?.key ?? key;
      known.set(name, found);
    }
    return found;
  };
}

interface Row {
  entry: string;
  from: number;
  to: number | null;
  revision: number;
  created: number;
  published: number | null;
  language: string;
  words: string;
  rest: string;
}

/** Fills a type's derived tables, just made, from its live intervals. */
export function reindex(
  connection: Connection,
  designs: DesignsAhead,
  type: ContentType,
  settled: Instant,
): void {
  const plans = sitesOf(designs).flatMap(plansOf);
  const design = writtenBy(designs);
  const { site } = design;
  const write = indexWriter(connection, type, plans, standing(connection, designs, settled));
  const sql = `SELECT l.entry, l.starts AS "from", l.ends AS "to", l.revision, l.language, e.created,
      e.published, r."values" AS words, s."values" AS rest
    FROM entry AS e JOIN ${tablesIn(designs.language).live} AS l ON l.entry = e.id
    JOIN revision AS r ON r.entry = l.entry AND r.number = l.revision
    JOIN revision AS s ON s.entry = l.entry AND s.number = l.shared_revision WHERE e.type = ?`;
  for (const row of statement<Row>(connection, sql).all(type.id)) {
    const read = readShown(row.words, row.rest, spokenIn(design, row.language));
    const values = valuesAs(type.fields, read, site);
    const times = { published: firstPublished(row.published, row.from), updated: row.from };
    write({ ...row, type: type.id, ...times, values }, row.revision, settled);
  }
  makeIndexes(connection, type, plans);
}

/** Index rows that ended by now leave the partial indexes. */
export function closeSettled(
  connection: Connection,
  designs: DesignsAhead,
  settled: Instant,
): void {
  for (const type of designs.first.languages.flatMap(({ types }) => [...types.values()]))
    for (const table of boundedTables(connection, type))
      statement(
        connection,
        `UPDATE ${table} SET open = 0 WHERE ends IS NOT NULL AND ends <= ? AND open = 1`,
      ).run(settled);
}
