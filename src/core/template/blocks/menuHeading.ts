import { z } from 'zod';
import { defineBlock } from '../definition.ts';
import { below, listHtml } from '../menu-item.ts';

/** Words above other items of a menu; left out where none of those is live. */
export const menuHeading = defineBlock({
  block: 'menuHeading',
  label: 'Heading',
  doc: 'Words above other items; left out while none of them is live.',
  in: 'menu',
  spec: {
    text: z.string(),
    blocks: below,
  },
  holds: { text: 'pattern' },
  compile: ({ text, blocks }, c) => {
    const words = c.pattern(text, 'text');
    const inner = c.blocks(blocks, 'blocks');
    return (scope) => {
      const items = inner(scope);
      const html = items === '' ? null : words(scope);
      return html === null ? '' : `<li><span>${html}</span>${listHtml(items)}</li>`;
    };
  },
  example: {
    block: {
      block: 'menuHeading',
      text: 'Seeds',
      blocks: [
        { block: 'menuEntry', entry: 'red' },
        { block: 'menuEntry', entry: 'gone-by-now' },
      ],
    },
    html: '<li><span>Seeds</span><ul><li><a href="/seeds/red-bean">Red bean</a></li></ul></li>',
  },
});
