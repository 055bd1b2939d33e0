/** Words beyond so many are left out of a search. */
const MOST_WORDS = 20;

/** What the index takes for a word: letters, marks, digits, and the private use area. */
export const WORD = /[\p{L}\p{M}\p{N}\p{Co}]+/gu;

/** The words that somebody searches for. */
export function wordsOf(search: string): string[] {
  return (search.match(WORD) ?? []).slice(0, MOST_WORDS);
}

/**
 * What somebody searches for, as a query of the full-text index (SQLite FTS5, "Full-text Query
 * Syntax"): all words, each by its beginning; those in quotation marks beside each other. Null where
 * there is no word in it.
 */
export function searchQuery(search: string): string | null {
  const parts = [...search.matchAll(/"([^"]*)"|[^"\s]+/gu)].flatMap(([whole, phrase]) => {
    const words = wordsOf(phrase ?? whole);
    if (words.length === 0) return [];
    return phrase === undefined ? words.map((word) => `"${word}"*`) : [`"${words.join(' ')}"`];
  });
  return parts.length === 0 ? null : parts.slice(0, MOST_WORDS).join(' ');
}
