import type { Connection } from '../db/connection.ts';
import type { Field } from '@/core/design/field.ts';
import type { ContentType, Design } from '@/core/design/spec.ts';
import { type Column, type ListingRow, cell, columnsOf, sortCell } from '@/core/listing/columns.ts';
import {
  type Condition,
  type ListingPlan,
  type SortKey,
  conditionsOf,
} from '@/core/listing/plan.ts';
import type { Instant } from '@/core/time/interval.ts';
import { fingerprint } from '@/core/fingerprint.ts';
import { statement } from './statement.ts';

/**
 * Name of a type's index table: one row for each live interval, derived, dropped and rebuilt at
 * will.
 */
export function indexTable(type: ContentType): string {
  return quoted(`index_${named(type.id)}`);
}

/** Name of the table with the members of a type's many-valued fields. */
export function memberTable(type: ContentType): string {
  return quoted(`member_${named(type.id)}`);
}

/** An id as part of an SQL name: SQL names ignore case, ids do not. */
function named(id: string): string {
  return id.replace(/[A-Z]/g, (c) => `$${c.toLowerCase()}`);
}

/** An SQL identifier in quotes. */
export function quoted(name: string): string {
  return `"${name.replaceAll('"', '""')}"`;
}

/** The column a filter compares, and the one a sort key orders by. */
export function cellColumn(column: Column): string {
  return quoted(column.meta ?? `c_${named(column.field!.id)}`);
}

/**
 * The column a sort key orders by: a sort key or an option's place where that is not the value
 * itself.
 */
export function sortColumn(column: Column): string {
  return column.family === 'text' || column.family === 'choice'
    ? quoted(`s_${named(column.field!.id)}`)
    : cellColumn(column);
}

/** Whether a field's members stand in the member table rather than in a column. */
export function isManyValued(column: Column): boolean {
  return (
    column.field !== null &&
    column.field.many &&
    (column.family === 'members' || column.family === 'choice')
  );
}

function stored(type: ContentType): Column[] {
  return [...columnsOf(type).values()].filter((c) => c.field !== null);
}

const SQL_TYPE: Record<Column['family'], string> = {
  text: 'TEXT',
  number: 'REAL',
  yesno: 'INTEGER',
  day: 'TEXT',
  instant: 'INTEGER',
  choice: 'TEXT',
  members: 'TEXT',
  presence: 'INTEGER',
};

/** The statements that make a type's derived tables. */
function tablesOf(type: ContentType, plans: ListingPlan[]): string[] {
  const table = indexTable(type);
  const types = new Map(
    stored(type).flatMap((c) => namesOf(c).map((name) => [name, sqlType(c, name)])),
  );
  const columns = [...types].map(([name, sql]) => `${name} ${sql}`);
  const repeated = repeatedColumns(type, plans)
    .map((name) => `, ${name} ${types.get(name) ?? 'INTEGER'}`)
    .join('');
  return [
    `CREATE TABLE ${table} (entry TEXT NOT NULL, starts INTEGER NOT NULL, ends INTEGER,
       open INTEGER NOT NULL, revision INTEGER NOT NULL, created INTEGER NOT NULL,
       published INTEGER NOT NULL, updated INTEGER NOT NULL, ${columns.join(', ')},
       PRIMARY KEY (entry, starts)) WITHOUT ROWID`,
    `CREATE TABLE ${memberTable(type)} (field TEXT NOT NULL, key TEXT NOT NULL,
       entry TEXT NOT NULL, starts INTEGER NOT NULL${repeated},
       PRIMARY KEY (field, key, entry, starts)) WITHOUT ROWID`,
  ];
}

/** The statements that make their indexes, one for each listing of the type among them. */
function indexesOf(type: ContentType, plans: ListingPlan[]): string[] {
  const table = indexTable(type);
  return [
    `CREATE INDEX ${quoted(`starts.${named(type.id)}`)} ON ${table} (starts)`,
    `CREATE INDEX ${quoted(`ends.${named(type.id)}`)} ON ${table} (ends) WHERE ends IS NOT NULL`,
    `CREATE INDEX ${quoted(`entries.${named(type.id)}`)} ON ${memberTable(type)} (entry, starts)`,
    `CREATE INDEX ${quoted(`closing.${named(type.id)}`)} ON ${table} (ends) WHERE open = 1`,
    ...(repeatedColumns(type, plans).length === 0
      ? []
      : [
          `CREATE INDEX ${quoted(`closing.members.${named(type.id)}`)} ON ${memberTable(type)} (ends) WHERE open = 1`,
        ]),
    ...plans.map((plan) => listingIndex(plan)),
  ];
}

/** The columns of the index table in which a field's value stands. */
function namesOf(column: Column): string[] {
  return sortColumn(column) === cellColumn(column)
    ? [cellColumn(column)]
    : [cellColumn(column), sortColumn(column)];
}

function sqlType(column: Column, name: string): string {
  if (name !== cellColumn(column)) return column.family === 'text' ? 'TEXT' : 'INTEGER';
  return isManyValued(column) ? 'INTEGER' : SQL_TYPE[column.family];
}

/**
 * The condition that a listing is read by: one key of a field with many values, where all entries
 * must have it. The member table then repeats what the listing filters and sorts by, so that its
 * index is read in order instead of looking into every entry.
 */
export function leadingMember(plan: ListingPlan): { condition: Condition; key: string } | null {
  for (const condition of required(plan)) {
    const { column, op, operand } = condition;
    const one = op === 'is' || op === 'any-of' || op === 'all-of';
    if (
      one &&
      operand.kind === 'keys' &&
      operand.keys.length === 1 &&
      isManyValued(column) &&
      isOneKey(column)
    )
      return { condition, key: operand.keys[0]! };
  }
  return null;
}

/**
 * Whether a wanted key stands for itself alone: no categories below it, no liveness of what it
 * names.
 */
function isOneKey({ target }: Column): boolean {
  return target === null || (target.of === 'subjects' && !target.tree);
}

/** The conditions that every entry of a listing fulfils. */
function required({ filter }: ListingPlan): Condition[] {
  const fixed = filter.kind === 'all' ? filter.filters : [filter];
  return fixed.filter((f) => f.kind === 'condition');
}

/**
 * What the member table repeats of the index table: all that listings read by a member filter and
 * sort by.
 */
function repeatedColumns(type: ContentType, plans: ListingPlan[]): string[] {
  const led = plans.filter((plan) => leadingMember(plan) !== null);
  if (led.length === 0) return [];
  const used = led
    .flatMap((plan) => [...conditionsOf(plan.filter), ...plan.sort].map(({ column }) => column))
    .filter((c) => c.field !== null);
  return [
    ...new Set(['ends', 'open', 'created', 'published', 'updated', ...used.flatMap(namesOf)]),
  ];
}

/**
 * Fixed values first, then the sort keys in their order, then what makes the order total and the
 * bounds.
 */
export function listingIndex(plan: ListingPlan): string {
  const leading = leadingMember(plan);
  const fixed = required(plan).filter((c) => c !== leading?.condition && !isManyValued(c.column));
  const equal = fixed.flatMap((c) =>
    c.op === 'is' && c.operand.kind !== 'relative' && c.column.family !== 'instant'
      ? [cellColumn(c.column)]
      : [],
  );
  const order = plan.sort.flatMap((key) => orderTerms(key));
  const rest = fixed.map((c) => cellColumn(c.column));
  const seen = new Set<string>();
  const columns = [
    ...(leading ? ['field', 'key'] : []),
    ...equal,
    ...order,
    'created',
    'entry',
    'starts',
    'ends',
    ...rest,
  ].filter((c) => {
    const name = c.replace(/ DESC$/, '');
    return seen.has(name) ? false : (seen.add(name), true);
  });
  return `CREATE INDEX ${quoted(`listing.${named(plan.listing.id)}`)} ON ${leading ? memberTable(plan.type) : indexTable(plan.type)} (${columns.join(', ')}) WHERE open = 1`;
}

/** Whether the database has the index that a listing, as it is planned, is read by. */
export function hasListingIndex(connection: Connection, plan: ListingPlan): boolean {
  return (
    statement(connection, `SELECT sql FROM sqlite_master WHERE type = 'index' AND name = ?`)
      .pluck()
      .get(`listing.${named(plan.listing.id)}`) === listingIndex(plan)
  );
}

/** The ORDER BY terms of a sort key: where blanks go, then the value. */
export function orderTerms({ column, descending, blanks }: SortKey): string[] {
  const value = sortColumn(column);
  const term = `${value}${descending ? ' DESC' : ''}`;
  return column.meta ? [term] : [`(${value} IS NULL)${blanks === 'first' ? ' DESC' : ''}`, term];
}

/** Whether the member table of a type repeats bounds, so that they are kept in step. */
export function repeatsBounds(type: ContentType, plans: Iterable<ListingPlan>): boolean {
  return (
    repeatedColumns(
      type,
      [...plans].filter((p) => p.type.key === type.key),
    ).length > 0
  );
}

/** What `ensureIndexTables` found and did. */
export interface EnsuredTables {
  /**
   * Keys of the types whose tables were made anew: their rows are gone, and they have no indexes.
   */
  rebuilt: Set<string>;
  /** Each type as its tables have it, by key. */
  types: Map<string, ContentType>;
}

/**
 * Makes the derived tables a design needs anew where their form has changed. Fields of earlier
 * designs stay in them, so that looking at the past meets no missing column.
 */
export function ensureIndexTables(
  { driver }: Connection,
  types: Iterable<ContentType>,
  plans: Iterable<ListingPlan>,
): EnsuredTables {
  const all = [...plans];
  const get = driver.prepare<unknown[], string>('SELECT value FROM meta WHERE key = ?').pluck();
  const set = driver.prepare(
    'INSERT INTO meta (key, value) VALUES (?, ?) ON CONFLICT (key) DO UPDATE SET value = excluded.value',
  );
  const rebuilt = new Set<string>();
  const wide = [...types].map((type): [string, ContentType] => {
    const own = all.filter((p) => p.type.key === type.key);
    const form = formOf(type, own);
    const stored = get.get(`index:${type.id}`);
    const known = stored === undefined ? null : (JSON.parse(stored) as StoredForm);
    if (known?.form === form) return [type.key, withFields(type, known.earlier)];
    const earlier = earlierFields(driver, type);
    const widened = withFields(type, earlier);
    const tables = tablesOf(widened, own).join(';');
    driver.exec(
      `DROP TABLE IF EXISTS ${indexTable(type)}; DROP TABLE IF EXISTS ${memberTable(type)}; ${tables}`,
    );
    set.run(`index:${type.id}`, JSON.stringify({ form, earlier } satisfies StoredForm));
    rebuilt.add(type.key);
    return [type.key, widened];
  });
  return { rebuilt, types: new Map(wide) };
}

/** What is kept of how a type's tables were made. */
interface StoredForm {
  form: string;
  /** Fields that earlier designs had. */
  earlier: Field[];
}

function formOf(type: ContentType, plans: ListingPlan[]): string {
  const fields = type.fields.map((f) => [f.id, f.kind, f.many, f.options?.map((o) => o.id)]);
  const sql = [...tablesOf(type, plans), ...indexesOf(type, plans)].join(';');
  return fingerprint(sql + JSON.stringify(fields));
}

/** Fields that released designs gave a type and that it has no more, as they were last. */
function earlierFields(driver: Connection['driver'], type: ContentType): Field[] {
  const now = new Set(type.fields.map((f) => f.id));
  const specs = driver.prepare('SELECT spec FROM design_version ORDER BY id').pluck().all();
  const found = new Map<string, Field>();
  for (const spec of specs as string[])
    for (const { id, fields } of (JSON.parse(spec) as Design).types)
      if (id === type.id) for (const f of fields) if (!now.has(f.id)) found.set(f.id, f);
  return [...found.values()];
}

/** A type with more fields; their keys may be in use by others now. */
function withFields(type: ContentType, more: readonly Field[]): ContentType {
  const renamed = more.map((f) => ({ ...f, key: `#${f.id}` }));
  return more.length === 0 ? type : { ...type, fields: [...type.fields, ...renamed] };
}

/** Makes the indexes of a type's derived tables, once they have been filled. */
export function makeIndexes(
  { driver }: Connection,
  type: ContentType,
  plans: Iterable<ListingPlan>,
): void {
  driver.exec(
    indexesOf(
      type,
      [...plans].filter((p) => p.type.key === type.key),
    ).join(';'),
  );
}

/** Writes rows into a type's derived tables. */
export function indexWriter(
  { driver }: Connection,
  type: ContentType,
  plans: Iterable<ListingPlan>,
): (row: ListingRow, revision: number, settled: Instant) => void {
  const columns = stored(type);
  const own = [...plans].filter((p) => p.type.key === type.key);
  const names = [...FIXED, ...columns.flatMap(namesOf)];
  const insert = driver.prepare(insertSql('INSERT', indexTable(type), names));
  const writeMembers = memberWriter(driver, type, own, names);
  return (row, revision, settled) => {
    const open = row.to === null || row.to > settled ? 1 : 0;
    const { entry, from, to, created, published, updated } = row;
    const values = columns.flatMap((c) =>
      sortColumn(c) === cellColumn(c) ? [sqlCell(row, c)] : [sqlCell(row, c), sortCell(row, c)],
    );
    const all = [entry, from, to, open, revision, created, published, updated, ...values];
    insert.run(...all);
    writeMembers(row, all);
  };
}

/** The columns that every index table begins with. */
const FIXED = ['entry', 'starts', 'ends', 'open', 'revision', 'created', 'published', 'updated'];

function insertSql(how: string, table: string, names: string[]): string {
  return `${how} INTO ${table} (${names.join(', ')}) VALUES (${names.map(() => '?').join(', ')})`;
}

/**
 * Writes the members of a row's many-valued fields, with what the member table repeats of the
 * row.
 */
function memberWriter(
  driver: Connection['driver'],
  type: ContentType,
  plans: ListingPlan[],
  names: string[],
): (row: ListingRow, all: unknown[]) => void {
  const many = stored(type).filter(isManyValued);
  const led = new Set(plans.flatMap((plan) => leadingMember(plan)?.condition.column.name ?? []));
  const repeated = repeatedColumns(type, plans);
  const places = repeated.map((name) => names.indexOf(name));
  const none = repeated.map(() => null);
  const into = ['field', 'key', 'entry', 'starts', ...repeated];
  const insert = driver.prepare(insertSql('INSERT OR IGNORE', memberTable(type), into));
  return (row, all) => {
    for (const column of many) {
      const more = led.has(column.name) ? places.map((i) => all[i]) : none;
      for (const key of cell(row, column) as string[])
        insert.run(column.field!.id, key, row.entry, row.from, ...more);
    }
  };
}

function sqlCell(row: ListingRow, column: Column): string | number | null {
  const value = cell(row, column);
  if (isManyValued(column)) return (value as unknown[]).length;
  const single = Array.isArray(value) ? (value[0] ?? null) : value;
  return typeof single === 'boolean' ? Number(single) : (single as string | number | null);
}
