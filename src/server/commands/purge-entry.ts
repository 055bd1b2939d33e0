import { eq } from 'drizzle-orm';
import { z } from 'zod';
import { readKey } from '@/core/forecast/read-set.ts';
import type { Connection } from '../db/connection.ts';
import { entry } from '../db/schema.ts';
import { type TypeRead, indexTable, memberTable } from '../store/index-columns.ts';
import { languagesMade, tablesIn } from '../store/language-tables.ts';
import { statement } from '../store/statement.ts';
import { mergeWords } from '../store/word-tables.ts';
import { raiseBench, raisePublic } from '../store/write.ts';
import { type CommandContext, Refused, command } from './definition.ts';
import { deriveEntries } from './derive-entry.ts';
import { picksChanged } from './picks/picks-of.ts';

/**
 * Takes away for good all that was stored of an entry, its past included. What is left says that
 * there was one, and which addresses lead nowhere by it: they answer 410 at any instant.
 */
export const purgeEntry = command({
  deed: 'purge',
  input: z.strictObject({ entry: z.string().max(200) }),
  about: ({ entry: id }) => [{ of: 'entry', id }],
  run(context, { entry: id }) {
    const { connection, at } = context;
    const { type, deleted } = there(connection, id);
    const changed = keysOf(connection, id, type);
    connection.tables
      .update(entry)
      .set({ deleted: deleted ?? at, purged: at, newest: 0, author: '' })
      .where(eq(entry.id, id))
      .run();
    leavePicks(context, id);
    for (const table of ['revision', 'planned_change', 'by_hand'])
      statement(connection, `DELETE FROM ${table} WHERE entry = ?`).run(id);
    deriveEntries(context, [id]);
    takeRows(connection, id, type);
    // Whose addresses were built on it has them without it from now on.
    deriveEntries(context, builtOn(context, id));
    raisePublic(connection, changed);
    raiseBench(connection);
    return { entry: id, at };
  },
});

/** An entry, deleted or not, of which something is left. @throws Refused */
function there({ tables }: Connection, id: string): typeof entry.$inferSelect {
  const row = tables.select().from(entry).where(eq(entry.id, id)).get();
  if (row && row.purged === null) return row;
  throw new Refused({
    code: 'unknown-entry',
    message: row ? 'Nothing is left of this entry.' : 'There is no such entry.',
    fix: 'Go back to Content and choose one.',
  });
}

/** What readers may have seen otherwise: the entry, its type’s lists, and all paths it ever held. */
function keysOf(connection: Connection, id: string, type: string): string[] {
  const paths = [undefined, ...languagesMade(connection)].flatMap((language) => {
    const sql = `SELECT DISTINCT path FROM ${tablesIn(language).address} WHERE entry = ?`;
    return statement<string>(connection, sql).pluck().all(id);
  });
  return [readKey.entry(id), readKey.type(type), readKey.pages, ...paths.map(readKey.path)];
}

function leavePicks(context: CommandContext, id: string): void {
  const sql = 'DELETE FROM pick WHERE entry = ? RETURNING picks';
  const left = statement<string>(context.connection, sql).pluck().all(id);
  for (const picks of new Set(left)) picksChanged(context, picks);
}

function builtOn({ connection, site }: CommandContext, id: string): string[] {
  const fields = JSON.stringify([...site.addresses.referenceFields.values()].flat());
  const sql = `SELECT DISTINCT entry FROM reference_edge
    WHERE target = ? AND field IN (SELECT value FROM json_each(?))`;
  return statement<string>(connection, sql).pluck().all(id, fields);
}

/** Takes away what was derived, the past included; of addresses it stays who held them when. */
function takeRows(connection: Connection, id: string, type: string): void {
  const run = (sql: string): void => void statement(connection, sql).run(id);
  const languages = [undefined, ...languagesMade(connection)];
  for (const language of languages) {
    const { live, address, refusal } = tablesIn(language);
    run(`UPDATE ${address} SET role = 'purged', base = path WHERE entry = ?`);
    const read = { id: type, ...(language === undefined ? {} : { edition: language }) };
    for (const table of [live, refusal, ...derivedTables(connection, read)])
      run(`DELETE FROM ${table} WHERE entry = ?`);
    mergeWords(connection, read);
  }
  run('UPDATE entry SET published = NULL, unpublished = 1 WHERE id = ?');
  run('DELETE FROM reference_edge WHERE entry = ?');
  for (const table of ['newest_cell', 'state_stretch'])
    run(`DELETE FROM ${table} WHERE id = (SELECT id FROM newest WHERE entry = ?)`);
  run('DELETE FROM newest WHERE entry = ?');
  // The index of full text only notes that a row is gone, until its parts are merged.
  connection.driver.exec("INSERT INTO newest_words (newest_words) VALUES ('optimize')");
}

/** The tables that listings of a type are read from, where they have been made. */
function derivedTables(connection: Connection, type: TypeRead): string[] {
  const sql = "SELECT 1 FROM sqlite_master WHERE type = 'table' AND ? = '\"' || name || '\"'";
  const isMade = statement(connection, sql);
  return [indexTable(type), memberTable(type)].filter((table) => isMade.get(table));
}
