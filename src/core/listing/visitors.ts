import type { Field } from '../design/field.ts';
import type { Column } from './columns.ts';

/** The parameters of an address for what is searched for, and for the order. */
export const SEARCH_PARAMETER = 'q';
/** See `SEARCH_PARAMETER`. */
export const ORDER_PARAMETER = 'order';
const NARROWING: ReadonlySet<string> = new Set(['choice', 'yesno', 'members']);
const SEARCHED: ReadonlySet<string> = new Set(['text', 'paragraphs', 'richtext']);

/** Whether visitors can narrow a list by the values of a column. */
export function isNarrowing({ family, target }: Column): boolean {
  return NARROWING.has(family) && target?.of !== 'media' && target?.of !== 'people';
}

/** Whether visitors can search the words of a field. */
export function isSearchable({ kind }: Pick<Field, 'kind'>): boolean {
  return SEARCHED.has(kind);
}
