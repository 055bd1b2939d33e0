import type { Media } from '@/core/design/values.ts';
import { searchKey } from '@/core/text.ts';
import type { Instant } from '@/core/time/interval.ts';
import type { Connection } from '../db/connection.ts';
import { statement } from './statement.ts';

/** A medium as it was, or is, over a stretch of time. */
export interface MediaVersion extends Media {
  starts: Instant;
  ends: Instant | null;
}

/** A version with what only its keepers ask of it. */
export interface MediaRow extends MediaVersion {
  bytes: number;
  author: string | null;
}

const COLUMNS = `id, starts, ends, hash, mime, bytes, width, height, alt, decorative, caption,
  credit, focus_x AS focusX, focus_y AS focusY, author`;

/** All that a medium was and is, in the order of time. */
export function versionsOf(connection: Connection, id: string): MediaRow[] {
  return statement<MediaRow>(
    connection,
    `SELECT ${COLUMNS} FROM media WHERE id = ? ORDER BY starts`,
  )
    .all(id)
    .map(withFlags);
}

/** The same of several media, by name. */
export function versionsOfAll(
  connection: Connection,
  ids: readonly string[],
): Map<string, MediaRow[]> {
  const sql = `SELECT ${COLUMNS} FROM media WHERE id IN (SELECT value FROM json_each(?))
    ORDER BY id, starts`;
  const rows = statement<MediaRow>(connection, sql).all(JSON.stringify(ids)).map(withFlags);
  const found = new Map(ids.map((id) => [id, [] as MediaRow[]]));
  for (const row of rows) found.get(row.id)?.push(row);
  return found;
}

/** All media of the site over all of time, by name, then time. */
export function allMedia(connection: Connection): MediaRow[] {
  return statement<MediaRow>(connection, `SELECT ${COLUMNS} FROM media ORDER BY id, starts`)
    .all()
    .map(withFlags);
}

/** A medium as it is now; null where there is none. */
export function mediumNow(connection: Connection, id: string): MediaRow | null {
  const sql = `SELECT ${COLUMNS} FROM media WHERE id = ? AND ends IS NULL`;
  const row = statement<MediaRow>(connection, sql).get(id);
  return row ? withFlags(row) : null;
}

/** SQLite has no truth values. */
function withFlags(row: MediaRow): MediaRow {
  return { ...row, decorative: Boolean(row.decorative) };
}

/** Writes versions of media. */
export function mediaWriter(connection: Connection): (row: MediaRow) => void {
  const insert = statement(
    connection,
    `INSERT INTO media (id, starts, ends, hash, mime, bytes, width, height, alt, decorative,
       caption, credit, focus_x, focus_y, search, author)
     VALUES (@id, @starts, @ends, @hash, @mime, @bytes, @width, @height, @alt, @decorative,
       @caption, @credit, @focusX, @focusY, @search, @author)`,
  );
  return ({ decorative, ...row }) => {
    const said = [row.id, row.alt, row.caption, row.credit].join(' ');
    insert.run({ ...row, decorative: Number(decorative), search: searchKey(said) });
  };
}
