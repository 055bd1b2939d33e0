import type { ContentType } from '@/core/design/spec.ts';
import type { Column } from '@/core/listing/columns.ts';
import {
  LISTED_COLUMN,
  type TypeRead,
  cellColumn,
  indexTable,
  isManyValued,
  memberTable,
  named,
  quoted,
  readName,
  stored,
} from './index-columns.ts';
import { literal } from './listing-index.ts';

/**
 * Name of the table that says how many open rows of a type there are, and how many have each key of
 * a field; apart by whether they say themselves that lists show them. Triggers keep it, so that the
 * total of a list does not cost more the longer the list is.
 */
export function keptTable(type: TypeRead): string {
  return quoted(`kept_${named(readName(type))}`);
}

/** Whether it is kept how many rows have each key of a field with one value. */
export function isKept(column: Column): boolean {
  const { family, field, isAbsent } = column;
  const isKeyed = family === 'members' || family === 'choice' || family === 'yesno';
  return isKeyed && field !== null && !isAbsent && !isManyValued(column);
}

/** Stands for rows that say nothing of lists: a key cannot be blank. */
const UNSAID = 2;

/** Rows of all keys. */
const ALL = { field: '', key: '' };

/**
 * The statements that make it, with its triggers. `repeated`: what the member table repeats of its
 * rows, where lists are read by members.
 */
export function keptCounts(type: ContentType, repeated: readonly string[]): string[] {
  const single = stored(type).filter(isKept);
  const keyOf = (row: string): string => {
    const each = single.map(
      (column) => `UNION ALL SELECT ${literal(column.field!.id)}, ${row}.${cellColumn(column)}`,
    );
    return `SELECT ${literal(ALL.field)} AS field, ${literal(ALL.key)} AS key ${each.join(' ')}`;
  };
  const ofMember = (row: string): string => `SELECT ${row}.field AS field, ${row}.key AS key`;
  return [
    `CREATE TABLE ${keptTable(type)} (field TEXT NOT NULL, key NOT NULL, listed INTEGER NOT NULL,
       n INTEGER NOT NULL, PRIMARY KEY (field, key, listed)) WITHOUT ROWID`,
    ...triggers(type, indexTable(type), keyOf, LISTED_COLUMN),
    ...(repeated.length === 0
      ? []
      : triggers(
          type,
          memberTable(type),
          ofMember,
          repeated.includes(LISTED_COLUMN) ? LISTED_COLUMN : null,
        )),
  ];
}

/** Triggers that count the rows of a table as they open and close. */
function triggers(
  type: TypeRead,
  table: string,
  keysOf: (row: string) => string,
  listed: string | null,
): string[] {
  const change = (row: string, by: string): string =>
    `INSERT INTO ${keptTable(type)} (field, key, listed, n)
       SELECT field, key, ${listed === null ? UNSAID : `coalesce(${row}.${listed}, ${UNSAID})`}, ${by}
       FROM (${keysOf(row)}) WHERE key IS NOT NULL
       ON CONFLICT (field, key, listed) DO UPDATE SET n = n + excluded.n`;
  const trigger = (name: string, on: string, run: string): string =>
    `CREATE TRIGGER ${quoted(`kept.${name}.${table.slice(1, -1)}`)} AFTER ${on} BEGIN ${run}; END`;
  return [
    trigger('come', `INSERT ON ${table} WHEN new.open = 1`, change('new', '1')),
    trigger('go', `DELETE ON ${table} WHEN old.open = 1`, change('old', '-1')),
    trigger(
      'end',
      `UPDATE OF open ON ${table} WHEN old.open = 1 AND new.open = 0`,
      change('old', '-1'),
    ),
  ];
}

/** The column of what is kept in which a member stands. */
export const MEMBER = 'member';

/** What is kept of a type as rows with a column and how many have it: SQL, and its parameter. */
export function keptRows(type: TypeRead, column: Column | null): { sql: string; param: string } {
  const key = column && isKept(column) ? cellColumn(column) : MEMBER;
  const sql = `(SELECT key AS ${key}, nullif(listed, ${UNSAID}) AS ${LISTED_COLUMN}, n
    FROM ${keptTable(type)} WHERE field = ?) AS r`;
  return { sql, param: column === null ? ALL.field : column.field!.id };
}
