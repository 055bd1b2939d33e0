import type { Connection } from '../db/connection.ts';
import { isDerived, workedOutBy } from '@/core/design/computed.ts';
import type { Field } from '@/core/design/field.ts';
import type { ContentType } from '@/core/design/spec.ts';
import type { CompiledSite } from '@/core/site/compile.ts';
import type { Column } from '@/core/listing/columns.ts';
import type { ListingPlan } from '@/core/listing/plan.ts';
import { fingerprint } from '@/core/fingerprint.ts';
import { type DesignsAhead, plansOf, sitesOf, writtenBy } from './designs-ahead.ts';
import { earlierFields, goneTypes } from './earlier-designs.ts';
import {
  LISTED_COLUMN,
  SHOWN_COLUMN,
  cellColumn,
  indexTable,
  isManyValued,
  memberTable,
  named,
  namesOf,
  quoted,
  readName,
  stored,
} from './index-columns.ts';
import { listingIndex, repeatedColumns, wordsBeside } from './listing-index.ts';
import { keptCounts, keptTable } from './kept-counts.ts';
import { columnsMade } from './schema-memory.ts';
import { statement } from './statement.ts';
import { dropWordTables, searchedFields, wordTables } from './word-tables.ts';
import { typesOf, withFields } from './types-ahead.ts';

const SQL_TYPE: Record<Column['family'], string> = {
  text: 'TEXT',
  number: 'REAL',
  yesno: 'INTEGER',
  day: 'TEXT',
  instant: 'INTEGER',
  choice: 'TEXT',
  members: 'TEXT',
  presence: 'INTEGER',
  identity: 'TEXT',
};

/** The statements that make a type's derived tables. */
function tablesOf(type: ContentType, plans: ListingPlan[]): string[] {
  const table = indexTable(type);
  const types = new Map(
    stored(type).flatMap((c) => namesOf(c).map((name) => [name, sqlType(c, name)])),
  );
  const columns = [...types].map(([name, sql]) => `${name} ${sql}`);
  const declared = (names: readonly string[]): string[] =>
    names.map(
      (name) => `${name} ${types.get(name) ?? (name === SHOWN_COLUMN ? 'TEXT' : 'INTEGER')}`,
    );
  const ofMembers = repeatedColumns(type, plans);
  const repeated = declared(ofMembers).map((column) => `, ${column}`);
  return [
    `CREATE TABLE ${table} (entry TEXT NOT NULL, starts INTEGER NOT NULL, ends INTEGER,
       open INTEGER NOT NULL, revision INTEGER NOT NULL, created INTEGER NOT NULL,
       published INTEGER NOT NULL, updated INTEGER NOT NULL, ${LISTED_COLUMN} INTEGER,
       ${SHOWN_COLUMN} TEXT,
       ${columns.join(', ')},
       PRIMARY KEY (entry, starts)) WITHOUT ROWID`,
    `CREATE TABLE ${memberTable(type)} (field TEXT NOT NULL, key TEXT NOT NULL,
       entry TEXT NOT NULL, starts INTEGER NOT NULL, own INTEGER NOT NULL${repeated.join('')},
       PRIMARY KEY (field, key, entry, starts)) WITHOUT ROWID`,
    ...keptCounts(type, ofMembers),
    ...wordTables(type, searchedFields(type, plans), declared(wordsBeside(plans))),
  ];
}

/** Their indexes by name, with the statements that make them: one for each listing among them. */
function indexesOf(type: ContentType, plans: ListingPlan[]): Map<string, string> {
  const [table, members, own] = [indexTable(type), memberTable(type), named(readName(type))];
  const all = new Map(
    Object.entries({
      [`starts.${own}`]: `${table} (starts)`,
      [`ends.${own}`]: `${table} (ends) WHERE ends IS NOT NULL`,
      // With what tells a row's own members apart, so that these are not looked up one by one.
      [`of.entries.${own}`]: `${members} (entry, starts, own)`,
      [`closing.${own}`]: `${table} (ends) WHERE open = 1`,
      ...(repeatedColumns(type, plans).length === 0
        ? {}
        : { [`closing.members.${own}`]: `${members} (ends) WHERE open = 1` }),
    }).map(([name, on]) => [name, `CREATE INDEX ${quoted(name)} ON ${on}`]),
  );
  for (const plan of plans) {
    const index = listingIndex(plan);
    if (index) all.set(index.name, index.sql);
  }
  return all;
}

function sqlType(column: Column, name: string): string {
  if (name !== cellColumn(column)) return column.family === 'text' ? 'TEXT' : 'INTEGER';
  return isManyValued(column) ? 'INTEGER' : SQL_TYPE[column.family];
}

/** The columns that a type's index table has; none where there is no such table. */
export function madeColumns(connection: Connection, type: ContentType): Set<string> {
  return columnsMade(connection, indexTable(type));
}

/**
 * The index table of a type as a design reads it: fields that no release has given it so far stand
 * in it as blank. Null where no release has the type.
 */
export function tableSeen(connection: Connection, type: ContentType): string | null {
  const made = madeColumns(connection, type);
  if (made.size === 0) return null;
  const missing = stored(type).flatMap((column) =>
    namesOf(column)
      .filter((name) => !made.has(name))
      .map((name) => `, ${isManyValued(column) ? '0' : 'NULL'} AS ${name}`),
  );
  if (missing.length === 0) return indexTable(type);
  return `(SELECT *${missing.join('')} FROM ${indexTable(type)})`;
}

/** What `ensureIndexTables` found and did. */
export interface EnsuredTables {
  /**
   * Ids of the types whose tables were made anew: their rows are gone, and they have no indexes.
   */
  rebuilt: Set<string>;
  /** Each type as its tables have it, by id. */
  types: Map<string, ContentType>;
}

/**
 * Makes the derived tables that designs need anew where their form has changed, and the indexes
 * that are missing. Fields of earlier designs stay in them, so that looking at the past meets no
 * missing column.
 */
export function ensureIndexTables(connection: Connection, designs: DesignsAhead): EnsuredTables {
  const sites = sitesOf(designs);
  const { language } = designs;
  const known = ensuredBy(connection).get(language ?? '');
  if (known && same(known.sites, sites)) return { rebuilt: new Set(), types: known.types };
  const plans = sites.flatMap(plansOf);
  const { site } = writtenBy(designs);
  const rebuilt = new Set<string>();
  let changed = false;
  const types = new Map<string, ContentType>();
  for (const type of typesOf(sites)) {
    const own = plans.filter((p) => p.type.id === type.id);
    const wide = ensureTables(connection, type, own, site);
    types.set(type.id, wide.type);
    if (wide.made) rebuilt.add(type.id);
    else if (ensureIndexes(connection, type, own)) changed = true;
  }
  for (const type of goneTypes(connection, types, 'index', language)) {
    types.set(type.id, ensureTables(connection, type, [], site).type);
    rebuilt.add(type.id);
  }
  // What this transaction made goes with it where it is not kept.
  if (rebuilt.size === 0 && !changed) ensuredBy(connection).set(language ?? '', { sites, types });
  return { rebuilt, types };
}

/**
 * Whether the derived tables that designs need, and their indexes, have the form that this program
 * gives them.
 */
export function haveTheirForm(connection: Connection, designs: DesignsAhead): boolean {
  const sites = sitesOf(designs);
  const plans = sites.flatMap(plansOf);
  return typesOf(sites).every((type) => {
    const own = plans.filter((p) => p.type.id === type.id);
    const form = formOf(type, own, writtenBy(designs).site);
    if (storedForm(connection, type)?.form !== form) return false;
    const there = new Set(indexesThere(connection, type));
    return [...indexesOf(type, own).keys()].every((name) => there.has(name));
  });
}

function storedForm(connection: Connection, type: ContentType): StoredForm | null {
  const sql = 'SELECT value FROM meta WHERE key = ?';
  const stored = statement<string>(connection, sql)
    .pluck()
    .get(`index:${readName(type)}`);
  return stored === undefined ? null : (JSON.parse(stored) as StoredForm);
}

/** Designs whose tables were found as they should be, by connection and language. */
const ENSURED = new WeakMap<
  Connection['driver'],
  Map<string, { sites: CompiledSite[]; types: Map<string, ContentType> }>
>();

function ensuredBy({
  driver,
}: Connection): Map<string, { sites: CompiledSite[]; types: Map<string, ContentType> }> {
  let known = ENSURED.get(driver);
  if (!known) ENSURED.set(driver, (known = new Map()));
  return known;
}

function same(a: readonly unknown[], b: readonly unknown[]): boolean {
  return a.length === b.length && a.every((site, i) => site === b[i]);
}

/** The tables of a type in the form they should have; whether they were made anew. */
function ensureTables(
  connection: Connection,
  type: ContentType,
  plans: ListingPlan[],
  site: Written,
): { type: ContentType; made: boolean } {
  const { driver } = connection;
  const form = formOf(type, plans, site);
  const known = storedForm(connection, type);
  if (known?.form === form) return { type: withFields(type, known.earlier), made: false };
  const earlier = earlierFields(connection, type);
  const widened = withFields(type, earlier);
  const tables = tablesOf(widened, plans).join(';');
  driver.exec(
    `DROP TABLE IF EXISTS ${indexTable(type)}; DROP TABLE IF EXISTS ${memberTable(type)};
       DROP TABLE IF EXISTS ${keptTable(type)}; ${dropWordTables(type)}; ${tables}`,
  );
  statement(
    connection,
    'INSERT INTO meta (key, value) VALUES (?, ?) ON CONFLICT (key) DO UPDATE SET value = excluded.value',
  ).run(
    `index:${readName(type)}`,
    JSON.stringify({ form, earlier, computed: computedBy(type, site) } satisfies StoredForm),
  );
  return { type: widened, made: true };
}

/** Makes the indexes that are missing and drops those that nothing reads any more. */
function ensureIndexes(connection: Connection, type: ContentType, plans: ListingPlan[]): boolean {
  const there = indexesThere(connection, type);
  const wanted = indexesOf(type, plans);
  const statements = [
    ...there.filter((name) => !wanted.has(name)).map((name) => `DROP INDEX ${quoted(name)}`),
    ...[...wanted].flatMap(([name, sql]) => (there.includes(name) ? [] : [sql])),
  ];
  if (statements.length > 0) connection.driver.exec(statements.join(';'));
  return statements.length > 0;
}

/** The names of the indexes of a type's derived tables. */
function indexesThere(connection: Connection, type: ContentType): string[] {
  return statement<string>(
    connection,
    `SELECT name FROM sqlite_master WHERE type = 'index' AND sql IS NOT NULL AND tbl_name IN (?, ?)`,
  )
    .pluck()
    .all(indexTable(type).slice(1, -1), memberTable(type).slice(1, -1));
}

/** What is kept of how a type's tables were made. */
interface StoredForm {
  form: string;
  /** Fields that earlier designs had. */
  earlier: Field[];
  /** What the computed columns hold. */
  computed?: Record<string, string>;
}

/** Raised whenever rows are made otherwise than before. */
const ROWS_AS_OF = 2;

function formOf(type: ContentType, plans: ListingPlan[], site: Written): string {
  const fields = type.fields.map((f) => [f.id, f.kind, f.many, f.options?.map((o) => o.id)]);
  const computed = computedBy(type, site);
  const words = Object.keys(computed).length === 0 ? '' : JSON.stringify(computed);
  return fingerprint(
    `${ROWS_AS_OF}${tablesOf(type, plans).join(';')}${JSON.stringify(fields)}${words}`,
  );
}

/** What the words of computed values depend on besides the entry. */
type Written = Pick<CompiledSite['design']['site'], 'zone' | 'language'>;

/** What the computed columns of a type hold, by field id: by which pattern, for whom. */
function computedBy({ fields }: ContentType, { zone, language }: Written): Record<string, string> {
  return Object.fromEntries(
    fields
      .filter(isDerived)
      .map((field) => [field.id, JSON.stringify([workedOutBy(field, fields), zone, language])]),
  );
}

/** Whether a computed column holds what its field is computed by now. */
export function isComputedAlike(
  connection: Connection,
  type: ContentType,
  { id }: Field,
  site: Written,
): boolean {
  return storedForm(connection, type)?.computed?.[id] === computedBy(type, site)[id];
}

/** Makes the indexes of a type's derived tables, once they have been filled. */
export function makeIndexes(
  { driver }: Connection,
  type: ContentType,
  plans: Iterable<ListingPlan>,
): void {
  const own = [...plans].filter((p) => p.type.id === type.id);
  driver.exec([...indexesOf(type, own).values()].join(';'));
}
