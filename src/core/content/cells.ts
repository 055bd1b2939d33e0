import type { ContentType } from '../design/spec.ts';
import { kindOf } from '../design/kinds/index.ts';
import { type Values, valuesOf } from '../design/values.ts';
import { type ListingRow, cell, columnsOf, foldText, sortCell } from '../listing/columns.ts';
import { sortKey } from '../listing/sort-key.ts';
import type { Instant } from '../time/interval.ts';

/** An entry as the content table reads it: its newest revision, and what is known of it besides. */
export interface ContentEntry {
  type: ContentType;
  values: Values;
  name: string;
  author: string;
  created: Instant;
  saved: Instant;
  published: Instant | null;
  deleted: Instant | null;
}

/** What is compared and ordered by: a column's name and a value, of lists one each. */
export type ContentCell = [column: string, value: string | number];

/** What searches, filters and orders of the content table read of an entry. */
export interface ContentCells {
  cells: ContentCell[];
  /** Texts as text operators compare them, by column. */
  texts: Record<string, string>;
  /** The words of all its texts but its name: a line for each. */
  words: string;
}

/** Texts are ordered by so many of their first characters. */
export const ORDERED_BY = 80;

/** Reads what the content table needs of an entry. */
export function contentCells(entry: ContentEntry): ContentCells {
  const { type, values } = entry;
  const cells: ContentCell[] = ownCells(entry);
  const texts: Record<string, string> = { '@name': foldText(entry.name) };
  const row = { values } as ListingRow;
  for (const column of columnsOf(type).values()) {
    const { field, family } = column;
    if (!field) continue;
    const value = cell(row, column);
    if (value === null) continue;
    if (family === 'text') texts[field.id] = value as string;
    if (Array.isArray(value)) cells.push(...membersOf(field.id, value as string[]));
    else if (family === 'text' && column.sortable) cells.push([field.id, textOrder(row, column)]);
    else if (family === 'presence' || family === 'text') cells.push([field.id, 1]);
    else cells.push([field.id, sortCell(row, column)!]);
  }
  return { cells, texts, words: wordsOf(type, values) };
}

function ownCells(entry: ContentEntry): ContentCell[] {
  const { type, name, author, created, saved, published, deleted } = entry;
  return [
    ['@name', sortKey(cut(name))],
    ['@type', type.id],
    ['@author', author],
    ['@created', created],
    ['@saved', saved],
    ...(published === null ? [] : [['@published', published] satisfies ContentCell]),
    ...(deleted === null ? [] : [['@deleted', deleted] satisfies ContentCell]),
  ];
}

function membersOf(column: string, keys: string[]): ContentCell[] {
  return [...new Set(keys)].map((key) => [column, key]);
}

function textOrder(row: ListingRow, { field }: { field: { id: string } | null }): string {
  return sortKey(cut(String(valuesOf(row.values, field!.id)[0])));
}

function cut(text: string): string {
  return [...text.slice(0, 2 * ORDERED_BY)].slice(0, ORDERED_BY).join('');
}

/** All words that a search finds, but those of the name. */
function wordsOf(type: ContentType, values: Values): string {
  return type.fields
    .filter((field) => field.key !== type.naming)
    .flatMap((field) =>
      valuesOf(values, field.id).map((value) => kindOf(field).searched(value, field)),
    )
    .filter((words) => words !== '')
    .join('\n');
}
