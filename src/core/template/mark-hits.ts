import { type Sought, WORD, soughtIn } from '../listing/search.ts';
import { searchKey } from '../text.ts';
import type { Render } from './context.ts';

/** Tags, and characters that are written as such: what is no text of its own. */
const MARKUP = /(<[^>]*>|&#?\w+;)/;

/** A card in which words that were searched for are marked. */
export function markingHits(card: Render, search: string): Render {
  const sought = soughtIn(searchKey(search));
  return (scope) => markHits(card(scope), sought);
}

/** HTML of ours with the words marked that were searched for: in its texts, not in drawings. */
export function markHits(html: string, sought: readonly Sought[]): string {
  let drawings = 0;
  return html
    .split(MARKUP)
    .map((piece, i) => {
      if (i % 2 === 1) {
        if (piece.startsWith('<svg')) drawings += 1;
        if (piece.startsWith('</svg')) drawings -= 1;
        return piece;
      }
      return drawings > 0 ? piece : marked(piece, sought);
    })
    .join('');
}

function marked(text: string, sought: readonly Sought[]): string {
  return text.replace(WORD, (word) => {
    const key = searchKey(word);
    const isHit = sought.some((s) =>
      'beginning' in s ? key.startsWith(s.beginning) : s.words.includes(key),
    );
    return isHit ? `<mark>${word}</mark>` : word;
  });
}
