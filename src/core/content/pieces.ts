import { diffArrays, diffWordsWithSpace } from 'diff';

/** A stretch of words that two versions share, or that only one of them has. */
export interface Piece {
  is: 'same' | 'gone' | 'new';
  words: string;
}

/** More changes than this are told as a whole: finding the fewest of many takes long. */
const MOST_EDITS = 2000;

/** How two lists of rows differ, row by row. */
export function rowPieces(was: string[], is: string[]): Piece[] {
  const parts = diffArrays(was, is, { maxEditLength: MOST_EDITS });
  if (!parts) return whole(was.join('\n'), is.join('\n'));
  return parts.flatMap(({ value, added, removed }) =>
    value.map((words): Piece => ({ is: added ? 'new' : removed ? 'gone' : 'same', words })),
  );
}

/** How two texts differ, word by word. */
export function wordPieces(was: string, is: string): Piece[] {
  const parts = diffWordsWithSpace(was, is, { maxEditLength: MOST_EDITS });
  if (!parts) return whole(was, is);
  return parts.map(({ value, added, removed }): Piece => ({
    is: added ? 'new' : removed ? 'gone' : 'same',
    words: value,
  }));
}

/** Two texts of which nothing is compared. */
export function whole(was: string, is: string): Piece[] {
  const all: Piece[] = [
    { is: 'gone', words: was },
    { is: 'new', words: is },
  ];
  return all.filter(({ words }) => words !== '');
}
