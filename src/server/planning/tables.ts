import type { Connection } from '../db/connection.ts';
import { quoted } from '../store/index-columns.ts';
import { languagesMade, tablesIn } from '../store/language-tables.ts';
import type { MovedInstant } from './own-instants.ts';

/** A table whose rows a planned write may change, and how its rows are told apart. */
export interface PlannedTable {
  /** In quotes. */
  name: string;
  /** What a row is known by: its number, or its primary key. */
  key: string[];
  /** Columns that change where a row is changed in place. */
  changes: string[];
  /** The columns that rows are put in by, where that spares looking around in a large index. */
  order?: string;
  /** The table whose numbers its column `id` holds, its own ones included. */
  numbersOf?: string;
  /** Whether the database numbers its rows by itself, in a column `id` that nothing names. */
  isNumbered?: boolean;
}

/** Numbers that a table had when it was copied, and by how much those that came since are moved. */
export interface Numbering {
  /** The highest when it was copied. */
  last: number;
  /** How many others have taken since. */
  moved: number;
}

/** The highest number of a row of each table, by its name. */
export function lastNumbers(
  { driver }: Connection,
  tables: readonly PlannedTable[],
): Map<string, number> {
  const known = tables.filter(({ key }) => key[0] === 'rowid');
  return new Map(
    known.map(({ name }) => {
      const sql = `SELECT coalesce(max(rowid), 0) FROM main.${name}`;
      return [name, driver.prepare<unknown[], number>(sql).pluck().get()!] as const;
    }),
  );
}

/** The table of a plan's file that holds the rows of a table that are to be put in. */
export function putTable({ name }: PlannedTable): string {
  return quoted(`put ${name}`);
}

/** The table of a plan's file that holds what changes in place, and which rows it changes. */
export function changedTable({ name }: PlannedTable): string {
  return quoted(`changed ${name}`);
}

/** What knows rows by their key, of those that a plan notes; whole rows, or changed in place. */
export function notedKeys({ name, key }: PlannedTable, schema: string, whole: 0 | 1): string {
  return `SELECT ${key.map((_, i) => `k${i + 1}`).join(', ')} FROM ${schema}.changed_row
    WHERE of = '${name}' AND whole = ${whole}`;
}

const ROW = ['rowid'];
const STORED: PlannedTable[] = [
  { name: 'address', key: ROW, changes: ['ends'], order: 'path' },
  { name: 'live_interval', key: ROW, changes: ['ends'] },
  { name: 'refusal', key: ROW, changes: [] },
  {
    name: 'entry',
    key: ROW,
    changes: ['published', 'author', 'deleted', 'purged', 'newest', 'unpublished'],
  },
  { name: 'revision', key: ROW, changes: [] },
  {
    name: 'reference_edge',
    key: ['target', 'field', 'entry', 'revision'],
    changes: [],
    order: 'target, field, entry, revision',
  },
  { name: 'bulk_change', numbersOf: 'bulk_change', key: ROW, changes: ['undone'] },
  { name: 'subject', key: ROW, changes: ['ends', 'position'] },
  { name: 'planned_change', numbersOf: 'planned_change', key: ROW, changes: [] },
  { name: 'by_hand', numbersOf: 'by_hand', key: ROW, changes: ['ends'] },
  { name: 'pick', numbersOf: 'pick', key: ROW, changes: ['ends', 'position'] },
  { name: 'media', key: ROW, changes: ['ends'] },
  { name: 'source', key: ROW, changes: ['name', 'mapping', 'person', 'at'] },
  { name: 'starter', key: ROW, changes: ['name', 'filled', 'author', 'saved'] },
  { name: 'brought', key: ROW, changes: ['entry', 'revision', 'print'] },
  { name: 'design_version', numbersOf: 'design_version', key: ROW, changes: ['spec', 'edits'] },
  {
    name: 'newest',
    numbersOf: 'newest',
    key: ROW,
    changes: ['type', 'name', 'texts', 'words'],
  },
  {
    name: 'newest_cell',
    numbersOf: 'newest',
    key: ['field', 'value', 'id'],
    changes: [],
    order: 'field, value, id',
  },
  {
    name: 'state_stretch',
    numbersOf: 'newest',
    key: ['state', 'ends', 'starts', 'id'],
    changes: [],
    order: 'state, ends, starts, id',
  },
  {
    name: 'design_edit',
    numbersOf: 'design_edit',
    key: ROW,
    changes: ['state', 'release', 'undone'],
  },
];

/** Columns that may hold the instant of the write itself, or one that is counted from it. */
const INSTANTS = new Set([
  'starts',
  'ends',
  'at',
  'saved',
  'made',
  'undone',
  'published',
  'deleted',
  'purged',
  'updated',
  'value',
]);

/** The tables of a database whose rows a planned write may change: derived ones included. */
export function plannedTables(connection: Connection): PlannedTable[] {
  const further = languagesMade(connection).flatMap((language) => {
    const { live, address, refusal } = tablesIn(language);
    const names = new Map([
      ['live_interval', live],
      ['address', address],
      ['refusal', refusal],
    ]);
    return STORED.flatMap((table) => {
      const name = names.get(table.name);
      return name === undefined ? [] : [{ ...table, name }];
    });
  });
  const derived = connection.driver
    .prepare<unknown[], string>(
      `SELECT name FROM sqlite_master WHERE type = 'table'
         AND (name LIKE 'index\\_%' ESCAPE '\\' OR name LIKE 'member\\_%' ESCAPE '\\'
           OR name LIKE 'words\\_%' ESCAPE '\\')
         ORDER BY name`,
    )
    .pluck()
    .all();
  return [...STORED, ...further, ...derived.map((name) => derivedTable(connection, name))];
}

function derivedTable(connection: Connection, name: string): PlannedTable {
  if (name.startsWith('words_'))
    return { name: quoted(name), key: ['entry', 'starts'], changes: [], isNumbered: true };
  const columns = columnsOf(connection, 'main', quoted(name));
  return {
    name: quoted(name),
    key: name.startsWith('index_') ? ['entry', 'starts'] : ['field', 'key', 'entry', 'starts'],
    changes: ['ends', 'open'].filter((column) => columns.includes(column)),
  };
}

/** The names of a table's columns, in their order. */
export function columnsOf({ driver }: Connection, schema: string, table: string): string[] {
  const bare = table.replace(/^"|"$/g, '').replaceAll('""', '"');
  return driver
    .prepare<unknown[], string>('SELECT name FROM pragma_table_info(?, ?)')
    .pluck()
    .all(bare, schema);
}

/** A column's value of `p`, with instants as they are by the write in place of the planned ones. */
export function movedValue(column: string, instants: readonly MovedInstant[]): string {
  const value = `p.${quoted(column)}`;
  if (!INSTANTS.has(column)) return value;
  const cases = instants.map(({ planned, at }) => `WHEN ${planned} THEN ${at}`);
  return `CASE ${value} ${cases.join(' ')} ELSE ${value} END`;
}
