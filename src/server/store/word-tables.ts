import type { Field } from '@/core/design/field.ts';
import type { ContentType } from '@/core/design/spec.ts';
import type { ListingPlan, Search } from '@/core/listing/plan.ts';
import { soughtQuery } from '@/core/listing/search.ts';
import { searchKey } from '@/core/text.ts';
import type { Connection } from '../db/connection.ts';
import { type TypeRead, indexTable, named, quoted, readName } from './index-columns.ts';
import { askedOf } from './listing-index.ts';
import { columnsMade } from './schema-memory.ts';
import { statement } from './statement.ts';

/**
 * Name of the table with the words of a type's index rows that visitors search, of those that are
 * open.
 */
export function wordTable(type: TypeRead): string {
  return quoted(`words_${named(readName(type))}`);
}

/** Name of the index of full text over them. */
export function foundTable(type: TypeRead): string {
  return quoted(`found_${named(readName(type))}`);
}

/** The column with the words of a field. */
export function wordColumn({ id }: Field): string {
  return quoted(`w_${named(id)}`);
}

/** The fields of a type whose words are searched in any of some listings, by their ids. */
export function searchedFields(type: ContentType, plans: Iterable<ListingPlan>): Field[] {
  const fields = new Map<string, Field>();
  for (const plan of plans)
    if (plan.type.id === type.id)
      for (const field of plan.visitor?.search ?? []) fields.set(field.id, field);
  return [...fields.values()].sort((a, b) => (a.id < b.id ? -1 : 1));
}

/**
 * The statements that make a type's tables of words, which follow its index table by triggers: what
 * is not open any more is not found. None where nothing is searched.
 */
export function wordTables(
  type: ContentType,
  fields: readonly Field[],
  /** What searched lists filter and sort by, as columns are declared. */
  beside: readonly string[],
): string[] {
  if (fields.length === 0) return [];
  const [words, found, index] = [wordTable(type), foundTable(type), indexTable(type)];
  const columns = fields.map(wordColumn);
  const of = (row: string): string => columns.map((c) => `${row}.${c}`).join(', ');
  const trigger = (name: string, on: string, run: string): string =>
    `CREATE TRIGGER ${quoted(`words.${name}.${named(readName(type))}`)} AFTER ${on} BEGIN ${run}; END`;
  const take = `DELETE FROM ${words} WHERE entry = old.entry AND starts = old.starts`;
  return [
    `CREATE TABLE ${words} (id INTEGER PRIMARY KEY, entry TEXT NOT NULL, starts INTEGER NOT NULL,
       ${[...beside, ...columns.map((c) => `${c} TEXT`)].join(', ')}, UNIQUE (entry, starts))`,
    `CREATE VIRTUAL TABLE ${found} USING fts5(${columns.join(', ')}, content=${words},
       content_rowid='id', tokenize='unicode61 remove_diacritics 0', prefix='2 3')`,
    trigger(
      'come',
      `INSERT ON ${words}`,
      `INSERT INTO ${found} (rowid, ${columns.join(', ')}) VALUES (new.id, ${of('new')})`,
    ),
    trigger(
      'go',
      `DELETE ON ${words}`,
      `INSERT INTO ${found} (${found}, rowid, ${columns.join(', ')})
         VALUES ('delete', old.id, ${of('old')})`,
    ),
    trigger('leave', `DELETE ON ${index}`, take),
    trigger('end', `UPDATE OF open ON ${index} WHEN new.open = 0`, take),
    trigger(
      'bound',
      `UPDATE OF ends ON ${index} WHEN new.open = 1`,
      `UPDATE ${words} SET ends = new.ends WHERE entry = new.entry AND starts = new.starts`,
    ),
  ];
}

/** The statements that take a type's tables of words away. */
export function dropWordTables(type: TypeRead): string {
  return `DROP TABLE IF EXISTS ${wordTable(type)}; DROP TABLE IF EXISTS ${foundTable(type)}`;
}

/** Whether the words that are searched for in a list are there to be searched. */
export function hasWords(connection: Connection, type: TypeRead, { fields }: Search): boolean {
  const made = columnsMade(connection, wordTable(type));
  return fields.every((field) => made.has(wordColumn(field)));
}

/** Whether the table of words has all that a list filters and sorts by. */
export function hasAllBeside(connection: Connection, plan: ListingPlan): boolean {
  const made = columnsMade(connection, wordTable(plan.type));
  return askedOf([plan]).every((name) => made.has(name) || made.has(quoted(name)));
}

/** What is searched for in some fields, as a query of the index of full text (SQLite FTS5). */
export function wordQuery(text: string, fields: readonly Field[]): string {
  return `{${fields.map(wordColumn).join(' ')}} : (${soughtQuery(searchKey(text))})`;
}

/** Merges the index of full text, so that nothing is left in it of what is gone. */
export function mergeWords(connection: Connection, type: TypeRead): void {
  const sql = "SELECT 1 FROM sqlite_master WHERE type = 'table' AND name = ?";
  const found = foundTable(type);
  if (!statement(connection, sql).get(found.slice(1, -1))) return;
  connection.driver.exec(`INSERT INTO ${found} (${found}) VALUES ('optimize')`);
}
