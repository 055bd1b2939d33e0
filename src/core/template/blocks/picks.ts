import { z } from 'zod';
import { defineBlock, heading } from '../definition.ts';
import { cardList } from '../card-list.ts';
import { classes } from '../html.ts';
import { escapeHtml } from '../../text.ts';

/** The live entries that were picked by hand, in the order of the picks, as cards. */
export const picks = defineBlock({
  block: 'picks',
  label: 'Picks',
  doc: 'The live entries that were picked by hand, in the order of the picks, as cards.',
  spec: {
    picks: z.string(),
    limit: z.int().min(1).max(200).default(12),
    card: z.string().optional(),
    heading,
  },
  holds: { picks: 'picks', card: 'template' },
  compile: ({ picks: key, limit, card, heading, style }, c) => {
    const { render, needs } = c.card(card, 'card');
    if (!c.picks(key, 'picks')) return () => '';
    const open = `<section${classes('picks', style)}>${heading ? `<h2>${escapeHtml(heading)}</h2>` : ''}`;
    return (scope) => {
      const html = cardList(scope.picked(key, limit), render, needs, scope);
      return html === '' ? '' : `${open}${html}</section>`;
    };
  },
  example: {
    block: { block: 'picks', picks: 'favourites', heading: 'Favourites' },
    html: '<section class="picks"><h2>Favourites</h2><ul class="cards"><li><h3><a href="/seeds/red-bean">Red bean</a></h3></li></ul></section>',
  },
});
