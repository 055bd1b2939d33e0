import { z } from 'zod';
import { nameOf } from '../../design/values.ts';
import { escapeHtml } from '../../text.ts';
import { defineBlock } from '../definition.ts';
import { below, menuItem } from '../menu-item.ts';

/** An entry in a menu, while it is live and has a page. */
export const menuEntry = defineBlock({
  block: 'menuEntry',
  label: 'Entry',
  doc: 'The page of an entry, while it is live.',
  in: 'menu',
  spec: {
    /** Its id. */
    entry: z.string().max(200),
    /** Its name where left out. */
    text: z.string().optional(),
    blocks: below,
  },
  holds: { entry: 'entry', text: 'pattern' },
  compile: ({ entry: id, text, blocks }, c) => {
    c.readsEntry(id);
    const words = text === undefined ? null : c.pattern(text, 'text');
    return menuItem(
      (scope) => {
        const entry = scope.entry(id);
        const href = entry && scope.pathOf(entry);
        if (!entry || href === null) return null;
        return { href, words: words?.(scope) ?? escapeHtml(nameOf(entry)) };
      },
      c.blocks(blocks, 'blocks'),
    );
  },
  example: {
    block: { block: 'menuEntry', entry: 'red', text: 'Bean of {site.name}' },
    html: '<li><a href="/seeds/red-bean">Bean of Test site</a></li>',
  },
});
