import { z } from 'zod';
import { defineBlock } from '../definition.ts';
import { classes } from '../html.ts';

/** A paragraph made from a pattern; nothing where it is blank. */
export const text = defineBlock({
  block: 'text',
  label: 'Text',
  doc: 'A paragraph made from a pattern; nothing where it is blank.',
  spec: {
    text: z.string(),
  },
  holds: { text: 'pattern' },
  compile: ({ text: source, style }, c) => {
    const words = c.pattern(source, 'text');
    const open = `<p${style ? classes(style) : ''}>`;
    return (scope) => {
      const html = words(scope);
      return html === null ? '' : `${open}${html}</p>`;
    };
  },
  example: { block: { block: 'text', text: 'About {title}' }, html: '<p>About Blue pea</p>' },
});
