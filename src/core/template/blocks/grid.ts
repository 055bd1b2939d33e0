import { z } from 'zod';
import { blockShape } from '../../design/block.ts';
import { defineBlock } from '../definition.ts';
import { classes, element } from '../html.ts';
import { space, spaceClass } from '../space.ts';

/** Blocks in a grid: so many side by side, and on in the next line; fewer where it is narrow. */
export const grid = defineBlock({
  block: 'grid',
  label: 'Grid',
  doc: 'Blocks side by side and on in the next line; fewer in a line where the page is narrow.',
  spec: {
    /** So many stand in a line where there is room. */
    across: z.int().min(2).max(6).default(3),
    space,
    blocks: z.array(blockShape),
  },
  compile: ({ across, space: apart, blocks, style }, c) => {
    const inner = c.blocks(blocks, 'blocks');
    const attributes = classes('grid', `grid-${across}`, spaceClass(apart), style);
    return (scope) => element('div', attributes, inner(scope));
  },
  example: {
    block: {
      block: 'grid',
      across: 2,
      space: 'wide',
      blocks: [
        { block: 'text', text: 'One' },
        { block: 'text', text: 'Two' },
      ],
    },
    html: '<div class="grid grid-2 space-wide"><p>One</p><p>Two</p></div>',
  },
});
