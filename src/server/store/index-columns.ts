import type { ContentType } from '@/core/design/spec.ts';
import {
  AUTHOR,
  CHANCE,
  type Column,
  LISTED,
  MATCH,
  PLACE,
  columnsOf,
} from '@/core/listing/columns.ts';
import type { SortKey } from '@/core/listing/plan.ts';

/** A content type, in the site's own language or a further one. */
export type TypeRead = Pick<ContentType, 'id' | 'edition'>;

/** What a type is called among those of all languages: "seed", of a further one "seed:de". */
export function readName({ id, edition }: TypeRead): string {
  return edition === undefined ? id : `${id}:${edition}`;
}

/**
 * Name of a type's index table: one row for each live interval, derived, dropped and rebuilt at
 * will.
 */
export function indexTable(type: TypeRead): string {
  return quoted(`index_${named(readName(type))}`);
}

/** Name of the table with the members of a type's many-valued fields. */
export function memberTable(type: TypeRead): string {
  return quoted(`member_${named(readName(type))}`);
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

/** The column with which date an entry says itself that its byline shows. */
export const SHOWN_COLUMN = quoted('entry.shownDate');

/** The column a filter compares, and the one a sort key orders by. */
export function cellColumn(column: Column): string {
  return columnIn('', column);
}

/** As `cellColumn`, of a row. */
export function cellOf(row: string, column: Column): string {
  return columnIn(`${row}.`, column);
}

/**
 * The column a sort key orders by: a sort key or an option's place where that is not the value
 * itself.
 */
export function sortColumn(column: Column): string {
  return sortIn('', column);
}

/** As `sortColumn`, of a row. */
export function sortOf(row: string, column: Column): string {
  return sortIn(`${row}.`, column);
}

/** `of`: what stands before the names of columns. */
function columnIn(of: string, column: Column): string {
  const { field, meta, name, isAbsent, shown } = column;
  if (isAbsent) return 'NULL';
  // Who wrote an entry is looked up: it is no value of a revision.
  if (name === AUTHOR.name) return `(SELECT nullif(author, '') FROM entry WHERE id = ${of}entry)`;
  if (shown)
    return `CASE coalesce(${of}${SHOWN_COLUMN}, '${shown}') WHEN 'published' THEN ${of}published
      WHEN 'updated' THEN ${of}updated END`;
  return `${of}${quoted(meta ?? (field ? `c_${named(field.id)}` : name))}`;
}

function sortIn(of: string, column: Column): string {
  const { family, field, isAbsent } = column;
  return !isAbsent && (family === 'text' || family === 'choice')
    ? `${of}${quoted(`s_${named(field!.id)}`)}`
    : columnIn(of, column);
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
  if (column.shown) return [SHOWN_COLUMN];
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
