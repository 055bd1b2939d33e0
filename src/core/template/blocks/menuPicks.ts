import { z } from 'zod';
import { nameOf } from '../../design/values.ts';
import { escapeHtml } from '../../text.ts';
import { defineBlock } from '../definition.ts';
import { itemHtml } from '../menu-item.ts';

/** Entries that were picked for a menu, in their order: they join and leave from their own form. */
export const menuPicks = defineBlock({
  block: 'menuPicks',
  label: 'Picks',
  doc: 'The live entries of picks, in their order: entries join them from their own form.',
  in: 'menu',
  spec: {
    picks: z.string(),
    limit: z.int().min(1).max(200).default(50),
  },
  holds: { picks: 'picks' },
  compile: ({ picks: key, limit }, c) => {
    if (!c.picks(key, 'picks')) return () => '';
    return (scope) => {
      let out = '';
      for (const entry of scope.picked(key, limit)) {
        const href = scope.pathOf(entry);
        if (href !== null) out += itemHtml(href, escapeHtml(nameOf(entry)), '', scope);
      }
      return out;
    };
  },
  example: {
    block: { block: 'menuPicks', picks: 'favourites' },
    html: '<li><a href="/seeds/red-bean">Red bean</a></li>',
  },
});
