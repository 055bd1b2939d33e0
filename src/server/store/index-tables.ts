import type { Connection } from '../db/connection.ts';
import type { ContentType } from '@/core/design/spec.ts';
import { type Column, type ListingRow, cell, columnsOf, sortCell } from '@/core/listing/columns.ts';
import type { ListingPlan, SortKey } from '@/core/listing/plan.ts';
import type { Instant } from '@/core/time/interval.ts';
import { fingerprint } from '@/core/site/compile.ts';

/** Name of a type's index table: one row for each live interval, derived, dropped and rebuilt at will. */
export function indexTable(type: ContentType): string {
  return quoted(`index_${type.id}`);
}

/** Name of the table with the members of a type's many-valued fields. */
export function memberTable(type: ContentType): string {
  return quoted(`member_${type.id}`);
}

/** An SQL identifier in quotes. */
export function quoted(name: string): string {
  return `"${name.replaceAll('"', '""')}"`;
}

/** The column a filter compares, and the one a sort key orders by. */
export function cellColumn(column: Column): string {
  return quoted(column.meta ?? `c_${column.field!.id}`);
}

/** The column a sort key orders by: a sort key or an option's place where that is not the value itself. */
export function sortColumn(column: Column): string {
  return column.family === 'text' || column.family === 'choice' ? quoted(`s_${column.field!.id}`) : cellColumn(column);
}

/** Whether a field's members stand in the member table rather than in a column. */
export function isManyValued(column: Column): boolean {
  return column.field !== null && column.field.many && (column.family === 'members' || column.family === 'choice');
}

function stored(type: ContentType): Column[] {
  return [...columnsOf(type).values()].filter((c) => c.field !== null);
}

const SQL_TYPE: Record<Column['family'], string> = { text: 'TEXT', number: 'REAL', yesno: 'INTEGER', day: 'TEXT', instant: 'INTEGER', choice: 'TEXT', members: 'TEXT', presence: 'INTEGER' };

/** The statements that make a type's derived tables, with one index for each listing of the type. */
function ddl(type: ContentType, plans: ListingPlan[]): string[] {
  const table = indexTable(type);
  const columns = stored(type).flatMap((c) => {
    const own = isManyValued(c) ? `${cellColumn(c)} INTEGER` : `${cellColumn(c)} ${SQL_TYPE[c.family]}`;
    return sortColumn(c) === cellColumn(c) ? [own] : [own, `${sortColumn(c)} ${c.family === 'text' ? 'TEXT' : 'INTEGER'}`];
  });
  return [
    `CREATE TABLE ${table} (entry TEXT NOT NULL, starts INTEGER NOT NULL, ends INTEGER, open INTEGER NOT NULL, revision INTEGER NOT NULL, created INTEGER NOT NULL, published INTEGER NOT NULL, updated INTEGER NOT NULL, ${columns.join(', ')}, PRIMARY KEY (entry, starts)) WITHOUT ROWID`,
    `CREATE INDEX ${quoted(`starts_${type.id}`)} ON ${table} (starts)`,
    `CREATE INDEX ${quoted(`ends_${type.id}`)} ON ${table} (ends) WHERE ends IS NOT NULL`,
    `CREATE TABLE ${memberTable(type)} (field TEXT NOT NULL, key TEXT NOT NULL, entry TEXT NOT NULL, starts INTEGER NOT NULL, PRIMARY KEY (field, key, entry, starts)) WITHOUT ROWID`,
    `CREATE INDEX ${quoted(`member_entry_${type.id}`)} ON ${memberTable(type)} (entry, starts)`,
    ...plans.map((plan) => listingIndex(plan)),
  ];
}

/** Fixed values first, then the sort keys in their order, then what makes the order total and the bounds. */
function listingIndex(plan: ListingPlan): string {
  const fixed = plan.filter.kind === 'all' ? plan.filter.filters : [plan.filter];
  const equal = fixed.flatMap((f) => (f.kind === 'condition' && f.op === 'is' && !isManyValued(f.column) && f.operand.kind !== 'relative' && f.column.family !== 'instant' ? [cellColumn(f.column)] : []));
  const order = plan.sort.flatMap((key) => orderTerms(key));
  const rest = fixed.flatMap((f) => (f.kind === 'condition' && !isManyValued(f.column) ? [cellColumn(f.column)] : []));
  const seen = new Set<string>();
  const columns = [...equal, ...order, 'created', 'entry', 'starts', 'ends', ...rest].filter((c) => {
    const name = c.replace(/ DESC$/, '');
    return seen.has(name) ? false : (seen.add(name), true);
  });
  return `CREATE INDEX ${quoted(`listing_${plan.listing.id}`)} ON ${indexTable(plan.type)} (${columns.join(', ')}) WHERE open = 1`;
}

/** The ORDER BY terms of a sort key: where blanks go, then the value. */
export function orderTerms({ column, descending, blanks }: SortKey): string[] {
  const value = sortColumn(column);
  const term = `${value}${descending ? ' DESC' : ''}`;
  return column.meta ? [term] : [`(${value} IS NULL)${blanks === 'first' ? ' DESC' : ''}`, term];
}

/** Makes the derived tables a design needs anew where their form has changed; gives the types whose rows are gone. */
export function ensureIndexTables({ driver }: Connection, types: Iterable<ContentType>, plans: Iterable<ListingPlan>): ContentType[] {
  const changed: ContentType[] = [];
  const all = [...plans];
  const get = driver.prepare('SELECT value FROM meta WHERE key = ?').pluck();
  const set = driver.prepare('INSERT INTO meta (key, value) VALUES (?, ?) ON CONFLICT (key) DO UPDATE SET value = excluded.value');
  for (const type of types) {
    const statements = ddl(type, all.filter((p) => p.type.key === type.key));
    const form = fingerprint(statements.join(';') + JSON.stringify(type.fields.map((f) => [f.id, f.kind, f.many, f.options?.map((o) => o.key)])));
    if (get.get(`index:${type.id}`) === form) continue;
    driver.exec(`DROP TABLE IF EXISTS ${indexTable(type)}; DROP TABLE IF EXISTS ${memberTable(type)}; ${statements.join(';')}`);
    set.run(`index:${type.id}`, form);
    changed.push(type);
  }
  return changed;
}

/** Writes rows into a type's derived tables. */
export function indexWriter({ driver }: Connection, type: ContentType): (row: ListingRow, revision: number, settled: Instant) => void {
  const columns = stored(type);
  const names = columns.flatMap((c) => (sortColumn(c) === cellColumn(c) ? [cellColumn(c)] : [cellColumn(c), sortColumn(c)]));
  const insert = driver.prepare(`INSERT INTO ${indexTable(type)} (entry, starts, ends, open, revision, created, published, updated${names.map((n) => `, ${n}`).join('')}) VALUES (?, ?, ?, ?, ?, ?, ?, ?${', ?'.repeat(names.length)})`);
  const member = driver.prepare(`INSERT OR IGNORE INTO ${memberTable(type)} (field, key, entry, starts) VALUES (?, ?, ?, ?)`);
  return (row, revision, settled) => {
    const values = columns.flatMap((c) => (sortColumn(c) === cellColumn(c) ? [sqlCell(row, c)] : [sqlCell(row, c), sortCell(row, c)]));
    insert.run(row.entry, row.from, row.to, row.to === null || row.to > settled ? 1 : 0, revision, row.created, row.published, row.updated, ...values);
    for (const column of columns) {
      if (isManyValued(column)) for (const key of cell(row, column) as string[]) member.run(column.field!.id, key, row.entry, row.from);
    }
  };
}

function sqlCell(row: ListingRow, column: Column): string | number | null {
  const value = cell(row, column);
  if (isManyValued(column)) return (value as unknown[]).length;
  const single = Array.isArray(value) ? (value[0] ?? null) : value;
  return typeof single === 'boolean' ? Number(single) : (single as string | number | null);
}
