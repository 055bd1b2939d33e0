import { kindOf } from '../design/kinds/index.ts';
import type { Field } from '../design/field.ts';
import { valuesOf } from '../design/values.ts';
import { searchKey } from '../text.ts';
import type { ListingRow } from './columns.ts';
import type { Search } from './plan.ts';

/** Words beyond so many are left out of a search. */
const MOST_WORDS = 20;
/** What is searched for has at most so many characters; what is beyond is left out. */
export const LONGEST_SEARCH = 200;

/** What counts as a word: letters, marks, digits, and the private use area. */
export const WORD = /[\p{L}\p{M}\p{N}\p{Co}]+/gu;

/** The words that somebody searches for. */
export function wordsOf(search: string): string[] {
  return (search.match(WORD) ?? []).slice(0, MOST_WORDS);
}

/** A thing that must be found: a word by its beginning, or words beside each other. */
export type Sought = { beginning: string } | { words: string[] };

/**
 * What somebody searches for: all of it must be found, each word by its beginning; those in
 * quotation marks whole and beside each other. Empty where there is no word in it.
 */
export function soughtIn(search: string): Sought[] {
  const parts = [...search.matchAll(/"([^"]*)"|[^"\s]+/gu)].flatMap(([whole, phrase]): Sought[] => {
    const words = wordsOf(phrase ?? whole);
    if (words.length === 0) return [];
    return phrase === undefined ? words.map((beginning) => ({ beginning })) : [{ words }];
  });
  return parts.slice(0, MOST_WORDS);
}

/** The text of a field that is searched: accents and case do not count. */
export function searchedText({ values }: Pick<ListingRow, 'values'>, field: Field): string {
  const kind = kindOf(field);
  return searchKey(
    valuesOf(values, field.id)
      .map((value) => kind.searched(value, field))
      .join(' '),
  );
}

/** Whether a row has all that is searched for. */
export function finds({ text, fields }: Pick<Search, 'text' | 'fields'>, row: ListingRow): boolean {
  const texts = fields.map((field) => wordsIn(searchedText(row, field)));
  return soughtIn(searchKey(text)).every((sought) => texts.some((words) => has(words, sought)));
}

/** By which a row comes before others that were found: 0 where its name has all of it, else 1. */
export function matchOf(search: Search, row: ListingRow): number {
  const { naming, text } = search;
  return naming && finds({ text, fields: [naming] }, row) ? 0 : 1;
}

function wordsIn(text: string): string[] {
  return text.match(WORD) ?? [];
}

function has(words: readonly string[], sought: Sought): boolean {
  if ('beginning' in sought) return words.some((word) => word.startsWith(sought.beginning));
  const { words: wanted } = sought;
  return words.some((_, i) => wanted.every((word, n) => words[i + n] === word));
}

/**
 * What somebody searches for, as a query of an index of full text (SQLite FTS5, "Full-text Query
 * Syntax"); '' where there is no word in it.
 */
export function soughtQuery(search: string): string {
  return soughtIn(search)
    .map((sought) =>
      'beginning' in sought ? `"${sought.beginning}"*` : `"${sought.words.join(' ')}"`,
    )
    .join(' ');
}
