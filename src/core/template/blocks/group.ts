import { z } from 'zod';
import { blockShape } from '../../design/block.ts';
import { defineBlock, label } from '../definition.ts';
import { classes, element } from '../html.ts';
import { escapeHtml } from '../../text.ts';
import { space, spaceClass } from '../space.ts';

/** Blocks in one element of their own; nothing where all are blank. */
export const group = defineBlock({
  block: 'group',
  label: 'Group',
  doc: 'Blocks in one element of their own; nothing where all are blank.',
  spec: {
    as: z.enum(['div', 'section', 'aside', 'nav', 'header', 'footer']).default('div'),
    space,
    blocks: z.array(blockShape),
    label,
  },
  compile: ({ as, space: apart, blocks, label, style }, c) => {
    const inner = c.blocks(blocks, 'blocks');
    const role = as === 'div' ? ' role="group"' : '';
    const attributes =
      (apart || style ? classes(spaceClass(apart), style) : '') +
      (label ? `${role} aria-label="${escapeHtml(label)}"` : '');
    return (scope) => element(as, attributes, inner(scope));
  },
  example: {
    block: { block: 'group', as: 'aside', label: 'More', blocks: [{ block: 'text', text: 'Hi' }] },
    html: '<aside aria-label="More"><p>Hi</p></aside>',
  },
});
