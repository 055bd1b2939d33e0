import type { Instant, Interval, Validity } from '@/core/time/interval.ts';
import type { Connection } from '../db/connection.ts';
import { asOf } from './as-of.ts';
import { statement } from './statement.ts';

/** A stretch over which an entry stands in picks, at a place of their order. */
export interface Pick extends Interval {
  id: number;
  /** Id of the picks. */
  picks: string;
  entry: string;
  position: number;
}

const COLUMNS = 'id, picks, entry, starts AS "from", ends AS "to", position';
/** The order of picks: nobody moves without being moved. */
const ORDER = 'position, id';

/** Who stands in picks as of an instant, in their order. */
export function pickedAt(
  connection: Connection,
  picks: string,
  at: Instant,
  { offset, limit }: { offset: number; limit: number },
): string[] {
  // In their order, so that the first few cost what they are, not what there is.
  const sql = `SELECT entry FROM pick INDEXED BY pick_position WHERE picks = ? AND ${asOf('')}
    ORDER BY ${ORDER} LIMIT ? OFFSET ?`;
  return statement<string>(connection, sql).pluck().all(picks, at, at, limit, offset);
}

/** Tells since and until when the same entries stand in picks, in the same order. */
export function tellPicks(connection: Connection, picks: string, validity: Validity): void {
  for (const column of ['starts', 'ends'])
    for (const bound of [
      `min(${column}) FROM pick WHERE picks = ? AND ${column} > ?`,
      `max(${column}) FROM pick WHERE picks = ? AND ${column} <= ?`,
    ])
      validity.tell(
        statement<Instant | null>(connection, `SELECT ${bound}`).pluck().get(picks, validity.at)!,
      );
}

/** One stretch by its id; undefined where there is none. */
export function pickOf(connection: Connection, id: number): Pick | undefined {
  return statement<Pick>(connection, `SELECT ${COLUMNS} FROM pick WHERE id = ?`).get(id);
}

/** Since when an entry has stood in picks without a gap, wherever in their order. */
export function sinceWhen(connection: Connection, { picks, entry, from }: Pick): Instant {
  const before = statement<Instant>(
    connection,
    'SELECT starts FROM pick WHERE picks = ? AND entry = ? AND ends = ?',
  ).pluck();
  let since = from;
  for (let next = before.get(picks, entry, since); next !== undefined;)
    next = before.get(picks, entry, (since = next));
  return since;
}

/** All stretches of an entry that have not ended at an instant, by picks and start. */
export function picksOfEntry(connection: Connection, entry: string, at: Instant): Pick[] {
  const sql = `SELECT ${COLUMNS} FROM pick WHERE entry = ? AND (ends IS NULL OR ends > ?)
    ORDER BY picks, starts`;
  return statement<Pick>(connection, sql).all(entry, at);
}

/** All stretches of all picks, those of each in their order. */
export function allPicks(connection: Connection): Pick[] {
  return statement<Pick>(connection, `SELECT ${COLUMNS} FROM pick ORDER BY picks, ${ORDER}`).all();
}

/** Adds a stretch, last where no place is given; gives its id. */
export function addPick(
  connection: Connection,
  {
    picks,
    entry,
    from,
    to,
    position = null,
  }: Omit<Pick, 'id' | 'position'> & { position?: number | null },
): number {
  const sql = `INSERT INTO pick (picks, entry, starts, ends, position) VALUES (@picks, @entry, @from,
    @to, coalesce(@position, (SELECT max(position) + 1 FROM pick WHERE picks = @picks), 1))`;
  const { lastInsertRowid } = statement(connection, sql).run({ picks, entry, from, to, position });
  return Number(lastInsertRowid);
}

/** The stretch that follows one in the order, of those that have not ended at an instant. */
export function nextPick(
  connection: Connection,
  { id, picks, position }: Pick,
  at: Instant,
): Pick | undefined {
  const sql = `SELECT ${COLUMNS} FROM pick INDEXED BY pick_position
    WHERE picks = ? AND (position, id) > (?, ?) AND (ends IS NULL OR ends > ?)
    ORDER BY ${ORDER} LIMIT 1`;
  return statement<Pick>(connection, sql).get(picks, position, id, at);
}

/** A place right before a stretch; where there is no room, the whole order is numbered anew. */
export function placeBefore(connection: Connection, { id, picks }: Pick): number {
  const position = between(connection, picks, pickOf(connection, id)!.position);
  if (position !== null) return position;
  statement(
    connection,
    `UPDATE pick SET position = n.place FROM (SELECT id, row_number() OVER (ORDER BY ${ORDER}) AS place
       FROM pick WHERE picks = ?) AS n WHERE n.id = pick.id`,
  ).run(picks);
  return between(connection, picks, pickOf(connection, id)!.position)!;
}

/** A number between a place and the one before it; null where floats have none. */
function between(connection: Connection, picks: string, after: number): number | null {
  const sql = 'SELECT max(position) FROM pick WHERE picks = ? AND position < ?';
  const before = statement<number | null>(connection, sql).pluck().get(picks, after) ?? after - 2;
  const middle = before + (after - before) / 2;
  return middle > before && middle < after ? middle : null;
}
