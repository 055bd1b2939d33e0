import type Database from 'better-sqlite3';
import { type Design, designSpec } from '@/core/design/spec.ts';

/** The one account there was before persons had ids. */
const ACCOUNT = { id: 'builder', name: 'Builder' };

/**
 * Gives persons ids, has entries name their types by id, and writes the ids of all parts into the
 * designs that are stored: before, they were made at every reading.
 */
export function toPersonsAndIds(driver: Database.Database): void {
  persons(driver);
  const designs = driver.prepare('SELECT id, spec FROM design_version ORDER BY id').all() as {
    id: number;
    spec: string;
  }[];
  const write = driver.prepare('UPDATE design_version SET spec = ? WHERE id = ?');
  const rename = driver.prepare('UPDATE entry SET type = ? WHERE type = ?');
  const types = new Map<string, string>();
  for (const { id, spec } of designs) {
    const design: Design = designSpec.parse(JSON.parse(spec));
    write.run(JSON.stringify(design), id);
    for (const type of design.types) types.set(type.key, type.id);
  }
  for (const [key, id] of types) if (id !== key) rename.run(id, key);
}

/** Whoever wrote went by name: the account's is told apart, the others' names become their ids. */
function persons(driver: Database.Database): void {
  driver.exec(`
    INSERT OR IGNORE INTO person (id, name)
      SELECT author, author FROM entry UNION SELECT author, author FROM revision
      UNION SELECT author, author FROM design_version;
    UPDATE OR REPLACE person SET id = '${ACCOUNT.id}' WHERE id = '${ACCOUNT.name}';
    UPDATE planned_change SET person = '${ACCOUNT.id}'
      WHERE person NOT IN ('', 'command-line') AND person NOT IN (SELECT id FROM person);
  `);
  for (const table of ['entry', 'revision', 'design_version'])
    driver.prepare(`UPDATE ${table} SET author = ? WHERE author = ?`).run(ACCOUNT.id, ACCOUNT.name);
}
