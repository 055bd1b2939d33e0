import { z } from 'zod';
import { defineBlock } from '../definition.ts';
import { compileMarkup } from '../markup.ts';

/** HTML of one's own, with patterns in braces; what could do harm is refused, and never drawn. */
export const markup = defineBlock({
  block: 'markup',
  label: 'Markup',
  doc: 'HTML of one’s own, with patterns in braces; nothing where all that it reads is blank.',
  spec: {
    html: z.string().max(20_000),
  },
  holds: { html: 'pattern' },
  compile: ({ html }, c) => compileMarkup(html, c),
  example: {
    block: { block: 'markup', html: '<p class="note">About <em>{title}</em> &amp; [others]</p>' },
    html: '<p class="note">About <em>Blue pea</em> &amp; [others]</p>',
  },
});
