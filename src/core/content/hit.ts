import { searchKey } from '../text.ts';
import { WORD, wordsOf } from '../listing/search.ts';

/** Where searched words stand in a text, those words between these marks. */
export const HIT_BEGINS = '\u0002';
/** See `HIT_BEGINS`. */
export const HIT_ENDS = '\u0003';

/** So many words are shown, of which so many stand before the first that was searched for. */
const SHOWN = 14;
const BEFORE = 4;
/** A text is looked through up to here. */
const LOOKED_THROUGH = 200_000;

/**
 * The words of a text around the first that begins with a searched one, those marked; null where
 * none does. White space is folded.
 */
export function hitIn(text: string, search: string): string | null {
  const wanted = wordsOf(search).map(searchKey);
  if (wanted.length === 0) return null;
  const pieces = piecesOf(text.slice(0, LOOKED_THROUGH));
  const isHit = (word: string): boolean => {
    const key = searchKey(word);
    return wanted.some((w) => key.startsWith(w));
  };
  const first = pieces.findIndex(({ word }) => isHit(word));
  if (first < 0) return null;
  const from = Math.max(0, first - BEFORE);
  const shown = pieces.slice(from, from + SHOWN);
  const words = shown.map(
    ({ word, rest }) => (isHit(word) ? `${HIT_BEGINS}${word}${HIT_ENDS}` : word) + rest,
  );
  const isCut = from + SHOWN < pieces.length;
  return `${from > 0 ? '…' : ''}${words.join('').trimEnd()}${isCut ? '…' : ''}`;
}

/** The words of a text, each with what stands between it and the next. */
function piecesOf(text: string): { word: string; rest: string }[] {
  const words = [...text.matchAll(WORD)];
  return words.map(({ 0: word, index }, i) => ({
    word,
    rest: text.slice(index + word.length, words[i + 1]?.index).replace(/\s+/gu, ' '),
  }));
}
