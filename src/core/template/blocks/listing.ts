import { z } from 'zod';
import { defineBlock, heading } from '../definition.ts';
import { cardList } from '../card-list.ts';
import { classes } from '../html.ts';
import { escapeHtml } from '../../text.ts';

/** A listing's entries as cards: its first page, or the page at hand on the listing's own pages. */
export const listing = defineBlock({
  block: 'listing',
  label: 'Listing',
  doc: 'A listing’s entries as cards: its first page, or the page at hand on the listing’s own pages.',
  spec: {
    listing: z.string(),
    limit: z.int().min(1).max(200).optional(),
    heading,
  },
  holds: { listing: 'listing' },
  compile: ({ listing: key, limit, heading, style }, c) => {
    if (!c.listing(key, 'listing')) return () => '';
    const open = `<section${classes('listing', style)}>${heading ? `<h2>${escapeHtml(heading)}</h2>` : ''}`;
    return (scope) => {
      const shown = scope.listing(key, limit);
      if (!shown) return '';
      const isLifted = heading === undefined && shown === scope.shown;
      const cards = cardList(shown.entries, shown.card, shown.needs, scope, isLifted);
      return `${open}${cards === '' ? `<p class="empty">${escapeHtml(shown.empty)}</p>` : cards}</section>`;
    };
  },
  example: {
    block: { block: 'listing', listing: 'all', heading: 'All' },
    html: '<section class="listing"><h2>All</h2><p class="empty">Nothing here at the moment.</p></section>',
  },
});
