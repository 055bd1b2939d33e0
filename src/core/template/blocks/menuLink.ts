import { z } from 'zod';
import { isSafeLink } from '../../link.ts';
import { defineBlock } from '../definition.ts';
import { below, menuItem } from '../menu-item.ts';

/** A link in a menu to a path or an address elsewhere. */
export const menuLink = defineBlock({
  block: 'menuLink',
  label: 'Link',
  doc: 'A path of this site, or an address elsewhere.',
  in: 'menu',
  spec: {
    to: z.string().refine(isSafeLink, 'A link leads to "/path", http(s)://…, mailto:… or tel:….'),
    text: z.string(),
    blocks: below,
  },
  holds: { text: 'pattern' },
  compile: ({ to: href, text, blocks }, c) => {
    const words = c.pattern(text, 'text');
    return menuItem(
      (scope) => {
        const html = words(scope);
        return html === null ? null : { href, words: html };
      },
      c.blocks(blocks, 'blocks'),
    );
  },
  example: {
    block: { block: 'menuLink', to: 'https://peas.example/', text: 'Peas' },
    html: '<li><a href="https://peas.example/">Peas</a></li>',
  },
});
