import type { Connection } from '../db/connection.ts';
import { quoted } from './index-columns.ts';
import { bySchema } from './schema-memory.ts';
import { statement } from './statement.ts';

/** The derived tables of a language, as SQL names them. */
export interface LanguageTables {
  live: string;
  address: string;
  refusal: string;
}

const OWN = ['live_interval', 'address', 'refusal'] as const;

/** Those of the site's own language. */
const OWN_TABLES: LanguageTables = named('');
const known = new Map<string, LanguageTables>([['', OWN_TABLES]]);

/** The derived tables of a further language, by its id, or of the site's own. */
export function tablesIn(language: string | undefined): LanguageTables {
  const found = known.get(language ?? '') ?? named(language!);
  known.set(language ?? '', found);
  return found;
}

/** The same to be read, where a language may have no tables so far: nothing stands in them. */
export function tablesRead(connection: Connection, language: string | undefined): LanguageTables {
  if (language === undefined || languagesMade(connection).includes(language))
    return tablesIn(language);
  const { live, address, refusal } = OWN_TABLES;
  const none = (table: string): string => `(SELECT * FROM ${table} WHERE false)`;
  return { live: none(live), address: none(address), refusal: none(refusal) };
}

function named(language: string): LanguageTables {
  const [live, address, refusal] = OWN.map((name) => nameIn(language, name));
  return { live: live!, address: address!, refusal: refusal! };
}

function nameIn(language: string, name: string): string {
  return language === '' ? name : quoted(`${name}:${language}`);
}

/** Ids of the further languages that have tables, be they those of the site still or not. */
export function languagesMade(connection: Connection): string[] {
  return bySchema(connection, 'languages', () =>
    statement<string>(
      connection,
      `SELECT substr(name, 15) FROM sqlite_master
         WHERE type = 'table' AND name GLOB 'live_interval:*' ORDER BY name`,
    )
      .pluck()
      .all(),
  );
}

/** Makes the derived tables of a further language, of the form that those of the site's own have. */
export function makeTablesIn(connection: Connection, language: string): void {
  const sql = statement<string>(
    connection,
    `SELECT sql FROM sqlite_master WHERE tbl_name = ? AND sql IS NOT NULL ORDER BY type DESC`,
  ).pluck();
  for (const name of OWN)
    for (const made of sql.all(name))
      connection.driver.exec(
        made.replaceAll(/[`"](\w+)[`"]/g, (whole, word: string) =>
          word.startsWith(name) ? quoted(`${word}:${language}`) : whole,
        ),
      );
}

/** Takes the derived tables of all further languages away. */
export function dropLanguageTables(connection: Connection): void {
  for (const language of languagesMade(connection))
    for (const table of Object.values(tablesIn(language)) as string[])
      connection.driver.exec(`DROP TABLE IF EXISTS ${table}`);
}
