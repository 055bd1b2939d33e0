import { type ContentCell, contentCells } from '@/core/content/cells.ts';
import { withComputed } from '@/core/design/computed.ts';
import type { Converting } from '@/core/design/conversion.ts';
import type { ContentType } from '@/core/design/spec.ts';
import { stateStretches } from '@/core/publication/state-stretches.ts';
import type { Instant } from '@/core/time/interval.ts';
import type { Connection } from '../../db/connection.ts';
import { statement } from '../statement.ts';
import { valuesOfType } from '../stored-values.ts';

/** After all instants: the end of a stretch whose end is not known. */
export const NEVER = Number.MAX_SAFE_INTEGER;

/** The types that entries are read by, by id, and how their values are. */
export interface ReadBy {
  types: ReadonlyMap<string, ContentType>;
  site: Converting;
}

interface EntryRow {
  type: string;
  author: string;
  created: Instant;
  deleted: Instant | null;
  published: Instant | null;
  saved: Instant;
  name: string;
  values: string;
}

/** Puts a cell of the entry with a number somewhere. */
type PutCell = (field: string, value: string | number, number: number) => void;

/**
 * Notes of entries what the content table reads: of those that are new or were changed. Where cells
 * are put elsewhere, nothing is noted of the entries yet.
 */
export function noteNewest(
  connection: Connection,
  { types, site }: ReadBy,
  put?: PutCell,
): (id: string) => void {
  const read = statement<EntryRow>(
    connection,
    `SELECT e.type, e.author, e.created, e.deleted, e.published, r.saved, r.name, r."values"
       FROM entry AS e JOIN revision AS r ON r.entry = e.id AND r.number = e.newest WHERE e.id = ?`,
  );
  const writeRow = rowWriter(connection);
  const writeCells = put ? null : cellWriter(connection);
  const writeStates = stateWriter(connection);
  return (id) => {
    const row = read.get(id);
    const type = types.get(row?.type ?? '');
    if (!row || !type) return;
    const values = withComputed(type.fields, valuesOfType(type, row.values, site), site);
    const { cells, texts, words } = contentCells({ ...row, type, values });
    const { name } = row;
    const number = writeRow({
      entry: id,
      type: type.id,
      name,
      texts: JSON.stringify(texts),
      words,
    });
    if (writeCells) writeCells(number, cells);
    else for (const [field, value] of cells) put!(field, value, number);
    writeStates(id, number);
  };
}

/** Notes the states of an entry whose publication changed, and when it first is public. */
export function noteStates(connection: Connection): (id: string) => void {
  const numberOf = numberReader(connection);
  const writeStates = stateWriter(connection);
  const published = statement<Instant | null>(
    connection,
    'SELECT published FROM entry WHERE id = ?',
  ).pluck();
  const drop = statement(
    connection,
    "DELETE FROM newest_cell WHERE field = '@published' AND id = ?",
  );
  const add = statement(connection, "INSERT INTO newest_cell VALUES ('@published', ?, ?)");
  return (id) => {
    const number = numberOf(id);
    if (number === undefined) return;
    writeStates(id, number);
    const first = published.get(id) ?? null;
    drop.run(number);
    if (first !== null) add.run(first, number);
  };
}

function numberReader(connection: Connection): (id: string) => number | undefined {
  const read = statement<number>(connection, 'SELECT id FROM newest WHERE entry = ?').pluck();
  return (id) => read.get(id);
}

interface NewestRow {
  entry: string;
  type: string;
  name: string;
  texts: string;
  words: string;
}

/** Writes the row of an entry where it is another; gives the number that it has among all. */
function rowWriter(connection: Connection): (row: NewestRow) => number {
  const stands = statement<NewestRow & { id: number }>(
    connection,
    'SELECT id, entry, type, name, json(texts) AS texts, words FROM newest WHERE entry = ?',
  );
  const add = statement<number>(
    connection,
    `INSERT INTO newest (entry, type, name, texts, words)
       VALUES (@entry, @type, @name, jsonb(@texts), @words) RETURNING id`,
  ).pluck();
  const set = statement(
    connection,
    `UPDATE newest SET type = @type, name = @name, texts = jsonb(@texts), words = @words
       WHERE entry = @entry`,
  );
  return (row) => {
    const known = stands.get(row.entry);
    if (!known) return add.get(row)!;
    const { id, ...before } = known;
    if (JSON.stringify(before) !== JSON.stringify(row)) set.run(row);
    return id;
  };
}

/** Writes the cells of an entry, of which those that stand stay. */
function cellWriter(connection: Connection): (number: number, cells: ContentCell[]) => void {
  const read = statement<[string, string | number]>(
    connection,
    'SELECT field, value FROM newest_cell WHERE id = ?',
  ).raw();
  const drop = statement(
    connection,
    'DELETE FROM newest_cell WHERE field = ? AND value = ? AND id = ?',
  );
  const add = statement(connection, 'INSERT OR IGNORE INTO newest_cell VALUES (?, ?, ?)');
  return (number, wanted) => {
    const before = read.all(number);
    const isIn = ([field, value]: readonly [string, unknown], all: typeof wanted): boolean =>
      all.some(([f, v]) => f === field && v === value);
    for (const cell of before) if (!isIn(cell, wanted)) drop.run(...cell, number);
    for (const cell of wanted) if (!isIn(cell, before)) add.run(...cell, number);
  };
}

type Saved = { number: number; saved: Instant };
type Live = { from: Instant; to: Instant | null; revision: number };

function stateWriter(connection: Connection): (entry: string, number: number) => void {
  const revisions = statement<Saved>(
    connection,
    'SELECT number, saved FROM revision WHERE entry = ? ORDER BY number',
  );
  const intervals = statement<Live>(
    connection,
    'SELECT starts AS "from", ends AS "to", max(revision, shared_revision) AS revision FROM live_interval WHERE entry = ? ORDER BY starts',
  );
  const drop = statement(connection, 'DELETE FROM state_stretch WHERE id = ?');
  const add = statement(
    connection,
    'INSERT INTO state_stretch (id, state, starts, ends) VALUES (?, ?, ?, ?)',
  );
  return (entry, number) => {
    drop.run(number);
    const facts = { revisions: revisions.all(entry), intervals: intervals.all(entry) };
    for (const { state, from, to } of stateStretches(facts))
      add.run(number, state, from, to ?? NEVER);
  };
}
