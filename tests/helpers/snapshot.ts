import { expect } from 'vitest';
import type { Connection } from '@/server/db/connection.ts';
import { named as sqlName } from '@/server/store/index-columns.ts';
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
  checkKept({ driver });
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

/** Fails where what is kept of how many rows have a key is another than there are. */
function checkKept({ driver }: Pick<Connection, 'driver'>): void {
  const all = (sql: string): unknown[] => driver.prepare(sql).raw().all();
  const named = all(`SELECT name FROM sqlite_master WHERE name LIKE 'kept\\_%' ESCAPE '\\'
    AND type = 'table'`) as string[][];
  for (const [name] of named) {
    const [index, member] = ['index_', 'member_'].map((t) => `"${name!.replace('kept_', t)}"`);
    const rows = (table: string): Set<string> =>
      new Set(
        (all(`SELECT name FROM pragma_table_info('${table.slice(1, -1)}')`) as string[]).flat(),
      );
    const kept = all(`SELECT field, key, sum(n) FROM "${name}" WHERE n <> 0 GROUP BY 1, 2`);
    const fields = new Set(kept.map((row) => (row as string[])[0]!));
    const ofMembers = new Set((all(`SELECT DISTINCT field FROM ${member}`) as string[][]).flat());
    const single = [...fields].filter(
      (field) => field !== '' && !ofMembers.has(field) && rows(index!).has(`c_${sqlName(field)}`),
    );
    const many = rows(member!).has('open')
      ? `UNION ALL SELECT field, key, count(*) FROM ${member} WHERE open = 1 GROUP BY 1, 2`
      : '';
    const each = single.map(
      (field) => `UNION ALL SELECT '${field}', "c_${sqlName(field)}", count(*) FROM ${index}
        WHERE open = 1 AND "c_${sqlName(field)}" IS NOT NULL GROUP BY 2`,
    );
    const there = all(`SELECT '', '', count(*) AS n FROM ${index} WHERE open = 1 HAVING n > 0
      ${each.join(' ')} ${many}`);
    const sorted = (rows: unknown[]): string[] => rows.map((row) => JSON.stringify(row)).sort();
    expect(sorted(kept)).toEqual(sorted(there));
  }
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
