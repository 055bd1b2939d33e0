import type { ContentType } from '@/core/design/spec.ts';
import { CHANCE, type Column, LISTED, MATCH, PLACE, columnsOf } from '@/core/listing/columns.ts';
import type { SortKey } from '@/core/listing/plan.ts';

/**
 * Name of a type's index table: one row for each live interval, derived, dropped and rebuilt at
 * will.
 */
export function indexTable(type: Pick<ContentType, 'id'>): string {
  return quoted(`index_${named(type.id)}`);
}

/** Name of the table with the members of a type's many-valued fields. */
export function memberTable(type: Pick<ContentType, 'id'>): string {
  return quoted(`member_${named(type.id)}`);
}

/** An id as part of an SQL name: SQL names ignore case, ids do not. */
export function named(id: string): string {
  return id.replace(/[A-Z]/g, (c) => `$${c.toLowerCase()}`);
}

/** An SQL identifier in quotes. */
export function quoted(name: string): string {
  return `"${name.replaceAll('"', '""')}"`;
}

/** The column with what an entry says itself of being shown in lists. */
export const LISTED_COLUMN = cellColumn(LISTED);

/** The column a filter compares, and the one a sort key orders by. */
export function cellColumn(column: Column): string {
  const { field, meta, name, isAbsent } = column;
  if (isAbsent) return NOTHING;
  return quoted(meta ?? (field ? `c_${named(field.id)}` : name));
}

/**
 * The column a sort key orders by: a sort key or an option's place where that is not the value
 * itself.
 */
export function sortColumn(column: Column): string {
  if (column.isAbsent) return NOTHING;
  return column.family === 'text' || column.family === 'choice'
    ? quoted(`s_${named(column.field!.id)}`)
    : cellColumn(column);
}

/** What stands for a column that a type's table does not have. */
const NOTHING = 'NULL';

/** A column of a row in SQL. */
export function ofRow(row: string, column: string): string {
  return column === NOTHING ? NOTHING : `${row}.${column}`;
}

/** Whether every row has a value of a column. */
export function isNeverBlank(column: Column): boolean {
  return column.meta !== null || NEVER_BLANK.has(column);
}

const NEVER_BLANK: ReadonlySet<Column> = new Set([PLACE, MATCH, CHANCE]);

/** Whether a field's members stand in the member table rather than in a column. */
export function isManyValued(column: Column): boolean {
  return (
    column.field !== null &&
    column.field.many &&
    (column.family === 'members' || column.family === 'choice')
  );
}

/** The columns of a type that stand in its derived tables. */
export function stored(type: ContentType): Column[] {
  return [...columnsOf(type).values()].filter((c) => c.field !== null);
}

/** The columns of the index table in which a field's value stands. */
export function namesOf(column: Column): string[] {
  return sortColumn(column) === cellColumn(column)
    ? [cellColumn(column)]
    : [cellColumn(column), sortColumn(column)];
}

/** The terms of a sort key as an index has them: where blanks go, then the value. */
export function orderTerms({ column, descending, blanks, from }: SortKey): string[] {
  // What is another every day stands in no index.
  if (column.isAbsent || from !== undefined || column === CHANCE) return [];
  const value = sortColumn(column);
  const term = `${value}${descending ? ' DESC' : ''}`;
  return isNeverBlank(column)
    ? [term]
    : [`(${value} IS NULL)${blanks === 'first' ? ' DESC' : ''}`, term];
}
