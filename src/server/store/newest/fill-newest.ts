import type { Connection } from '../../db/connection.ts';
import { statement } from '../statement.ts';
import { type ReadBy, noteNewest } from './write-newest.ts';

/** Fewer entries are noted one by one. */
const MANY = 500;

/**
 * Notes entries of which hardly any are noted yet. Many at once: their cells are put in by their
 * order, and the index of full text, which writes to disk at every row that a trigger gives it, is
 * made anew.
 */
export function fillNewest(connection: Connection, by: ReadBy, ids: readonly string[]): void {
  if (ids.length < MANY) {
    const note = noteNewest(connection, by);
    for (const id of ids) note(id);
    return;
  }
  const { driver } = connection;
  const aside = putAside(driver);
  driver.exec('CREATE TEMP TABLE cell_to_put (field TEXT, value BLOB, id INTEGER)');
  const put = driver.prepare('INSERT INTO temp.cell_to_put VALUES (?, ?, ?)');
  const note = noteNewest(connection, by, (field, value, id) => void put.run(field, value, id));
  for (const id of ids) note(id);
  driver.exec(`INSERT OR IGNORE INTO newest_cell SELECT field, value, id FROM temp.cell_to_put
    ORDER BY field, value, id; DROP TABLE temp.cell_to_put`);
  statement(connection, "INSERT INTO newest_words (newest_words) VALUES ('rebuild')").run();
  for (const sql of aside) driver.exec(sql);
}

/** Takes away what follows every row; gives the statements that make it again. */
function putAside(driver: Connection['driver']): string[] {
  const found = driver
    .prepare<unknown[], { type: string; name: string; sql: string }>(
      `SELECT type, name, sql FROM sqlite_master
         WHERE name IN ('newest_comes', 'newest_goes', 'newest_changes', 'newest_cell_id')`,
    )
    .all();
  for (const { type, name } of found) driver.exec(`DROP ${type} ${name}`);
  return found.map(({ sql }) => sql);
}
