import { type ContentCells, contentCells } from '@/core/content/cells.ts';
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

/** Notes of entries what the content table reads: of those that are new or were changed. */
export function noteNewest(connection: Connection, { types, site }: ReadBy): (id: string) => void {
  const read = statement<EntryRow>(
    connection,
    `SELECT e.type, e.author, e.created, e.deleted, e.published, r.saved, r.name, r."values"
       FROM entry AS e JOIN revision AS r ON r.entry = e.id AND r.number = e.newest WHERE e.id = ?`,
  );
  const write = newestWriter(connection);
  const writeStates = stateWriter(connection);
  return (id) => {
    const row = read.get(id);
    const type = types.get(row?.type ?? '');
    if (!row || !type) return;
    const values = withComputed(type.fields, valuesOfType(type, row.values, site), site);
    const number = write(id, { ...row, type: type.id }, contentCells({ ...row, type, values }));
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

/** Writes what is noted of a revision; gives the number that the entry has among all. */
function newestWriter(
  connection: Connection,
): (entry: string, own: { type: string; name: string }, read: ContentCells) => number {
  const put = statement<number>(
    connection,
    `INSERT INTO newest (entry, type, name, texts, words) VALUES (@entry, @type, @name, @texts, @words)
       ON CONFLICT (entry) DO UPDATE SET type = excluded.type, name = excluded.name,
         texts = excluded.texts, words = excluded.words RETURNING id`,
  ).pluck();
  const cells = statement<[string, string | number]>(
    connection,
    'SELECT field, value FROM newest_cell WHERE id = ?',
  ).raw();
  const drop = statement(
    connection,
    'DELETE FROM newest_cell WHERE field = ? AND value = ? AND id = ?',
  );
  const add = statement(connection, 'INSERT OR IGNORE INTO newest_cell VALUES (?, ?, ?)');
  return (entry, { type, name }, { cells: wanted, texts, words }) => {
    const number = put.get({ entry, type, name, texts: JSON.stringify(texts), words })!;
    const before = cells.all(number);
    const isIn = ([field, value]: readonly [string, unknown], all: typeof wanted): boolean =>
      all.some(([f, v]) => f === field && v === value);
    for (const cell of before) if (!isIn(cell, wanted)) drop.run(...cell, number);
    for (const cell of wanted) if (!isIn(cell, before)) add.run(...cell, number);
    return number;
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
    'SELECT starts AS "from", ends AS "to", revision FROM live_interval WHERE entry = ? ORDER BY starts',
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
