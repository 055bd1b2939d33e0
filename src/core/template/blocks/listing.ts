import type { CompileBlock } from '../context.ts';
import { cardList } from '../card-list.ts';
import { classes } from '../html.ts';
import { escapeHtml } from '../../text.ts';

/** A listing's entries as cards: its first page, or the page at hand on the listing's own pages. */
export const listing: CompileBlock<'listing'> = ({ listing: key, limit, heading, style }, c) => {
  if (!c.listing(key, 'listing')) return () => '';
  const open = `<section${classes('listing', style)}>${heading ? `<h2>${escapeHtml(heading)}</h2>` : ''}`;
  return (scope) => {
    const shown = scope.listing(key, limit);
    if (!shown) return '';
    const cards = cardList(shown.entries, shown.card, shown.needs, scope);
    return `${open}${cards === '' ? `<p class="empty">${escapeHtml(shown.empty)}</p>` : cards}</section>`;
  };
};
