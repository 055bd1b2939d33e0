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
  credit, focus_x AS focusX, focus_y AS focusY, languages, author`;

/** All that a medium was and is, in the order of time. */
export function versionsOf(connection: Connection, id: string): MediaRow[] {
  return statement<StoredMedium>(
    connection,
    `SELECT ${COLUMNS} FROM media WHERE id = ? ORDER BY starts`,
  )
    .all(id)
    .map(mediaRow);
}

/** The same of several media, by name. */
export function versionsOfAll(
  connection: Connection,
  ids: readonly string[],
): Map<string, MediaRow[]> {
  const sql = `SELECT ${COLUMNS} FROM media WHERE id IN (SELECT value FROM json_each(?))
    ORDER BY id, starts`;
  const rows = statement<StoredMedium>(connection, sql).all(JSON.stringify(ids)).map(mediaRow);
  const found = new Map(ids.map((id) => [id, [] as MediaRow[]]));
  for (const row of rows) found.get(row.id)?.push(row);
  return found;
}

/** All media of the site over all of time, by name, then time. */
export function allMedia(connection: Connection): MediaRow[] {
  return statement<StoredMedium>(connection, `SELECT ${COLUMNS} FROM media ORDER BY id, starts`)
    .all()
    .map(mediaRow);
}

/** A medium as it is now; null where there is none. */
export function mediumNow(connection: Connection, id: string): MediaRow | null {
  const sql = `SELECT ${COLUMNS} FROM media WHERE id = ? AND ends IS NULL`;
  const row = statement<StoredMedium>(connection, sql).get(id);
  return row ? mediaRow(row) : null;
}

/** As SQLite has it: without truth values, with JSON. */
export interface StoredMedium extends Omit<MediaRow, 'decorative' | 'languages'> {
  decorative: number;
  languages: string | null;
}

/** A version as its reader sees it. */
export function mediaRow({ decorative, languages, ...row }: StoredMedium): MediaRow {
  const said = languages === null ? {} : (JSON.parse(languages) as MediaRow['languages']);
  return { ...row, decorative: Boolean(decorative), languages: said };
}

/** Writes versions of media. */
export function mediaWriter(connection: Connection): (row: MediaRow) => void {
  const insert = statement(
    connection,
    `INSERT INTO media (id, starts, ends, hash, mime, bytes, width, height, alt, decorative,
       caption, credit, focus_x, focus_y, languages, search, author)
     VALUES (@id, @starts, @ends, @hash, @mime, @bytes, @width, @height, @alt, @decorative,
       @caption, @credit, @focusX, @focusY, @languages, @search, @author)`,
  );
  return ({ decorative, languages, ...row }) => {
    const further = Object.values(languages).flatMap(({ alt, caption }) => [alt, caption]);
    const said = [row.id, row.alt, row.caption, row.credit, ...further].join(' ');
    insert.run({
      ...row,
      decorative: Number(decorative),
      languages: further.length > 0 ? JSON.stringify(languages) : null,
      search: searchKey(said),
    });
  };
}
