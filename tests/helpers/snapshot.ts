import type { Connection } from '@/server/db/connection.ts';
import { derive } from '@/server/store/derive.ts';
import { settledInstant } from '@/server/store/write.ts';
import type { SiteView } from '@/server/queries/site-view.ts';

/** Every derived row of a site, in a fixed order. */
export function derivedRows({ driver }: Connection): Record<string, unknown[]> {
  const tables = driver
    .prepare(
      `SELECT name FROM sqlite_master WHERE type = 'table' AND (name IN ('live_interval', 'address', 'refusal') OR name GLOB 'live_interval:*' OR name GLOB 'address:*' OR name GLOB 'refusal:*' OR name LIKE 'index\\_%' ESCAPE '\\' OR name LIKE 'member\\_%' ESCAPE '\\' OR name LIKE 'words\\_%' ESCAPE '\\') ORDER BY name`,
    )
    .pluck()
    .all() as string[];
  const rows = Object.fromEntries(
    tables.map((t) => [
      t,
      (driver.prepare(`SELECT * FROM "${t}"`).all() as object[])
        // Numbers of words are theirs alone.
        .map((r) => JSON.stringify(t.startsWith('words_') ? { ...r, id: undefined } : r))
        .sort(),
    ]),
  );
  for (const t of tables.filter((name) => name.startsWith('words_'))) checkFound({ driver }, t);
  const noted = (sql: string): unknown[] => driver.prepare(sql).raw().all();
  return {
    ...rows,
    newest: noted('SELECT entry, type, name, json(texts), words FROM newest ORDER BY entry'),
    cells: noted(
      'SELECT entry, field, value FROM newest JOIN newest_cell USING (id) ORDER BY 1, 2, 3',
    ),
    states: noted(
      'SELECT entry, state, starts, ends FROM newest JOIN state_stretch USING (id) ORDER BY 1, 3',
    ),
    published: driver
      .prepare('SELECT id, published, newest, unpublished FROM entry ORDER BY id')
      .all(),
  };
}

/** Fails where the index of full text over a type's words is another than the words are. */
function checkFound({ driver }: Pick<Connection, 'driver'>, words: string): void {
  const found = `"${words.replace('words_', 'found_')}"`;
  driver.exec(`INSERT INTO ${found} (${found}, rank) VALUES ('integrity-check', 1)`);
}

/** Derives every row after the last write anew, from facts, revisions, plans and the design. */
export function rebuild(connection: Connection, view: SiteView): void {
  const settled = settledInstant(connection);
  const { site } = view.at(settled)!;
  connection.driver.transaction(() =>
    derive(connection, { site, settled, touched: [], everybody: true }),
  )();
}

/** Fills every derived table from nothing but the live intervals. */
export function dropIndexTables({ driver }: Connection): void {
  for (const table of ['newest_cell', 'state_stretch', 'newest'])
    driver.exec(`DELETE FROM ${table}`);
  driver.exec(`DELETE FROM meta WHERE key LIKE 'index:%' OR key LIKE 'newest:%'`);
  driver.exec(`UPDATE site_change SET generation = generation + 1 WHERE scope = 'design'`);
}
