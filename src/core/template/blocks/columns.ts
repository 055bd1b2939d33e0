import { z } from 'zod';
import { blockShape } from '../../design/block.ts';
import { defineBlock } from '../definition.ts';
import { classes } from '../html.ts';

/** Blocks side by side; one under the other where the page is narrow. */
export const columns = defineBlock({
  block: 'columns',
  label: 'Columns',
  doc: 'Blocks side by side; one under the other where the page is narrow.',
  spec: {
    columns: z.array(z.array(blockShape)).min(1).max(6),
  },
  compile: ({ columns: inner, style }, c) => {
    const all = inner.map((blocks, i) => c.blocks(blocks, `columns/${i + 1}`));
    const open = `<div${classes('columns', `columns-${inner.length}`, style)}>`;
    return (scope) => {
      const html = all.map((column) => column(scope));
      if (html.every((h) => h === '')) return '';
      return `${open}${html.map((h) => `<div class="column">${h}</div>`).join('')}</div>`;
    };
  },
  example: {
    block: { block: 'columns', columns: [[{ block: 'text', text: 'One' }], []] },
    html: '<div class="columns columns-2"><div class="column"><p>One</p></div><div class="column"></div></div>',
  },
});
