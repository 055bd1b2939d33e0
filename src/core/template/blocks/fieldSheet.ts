import { z } from 'zod';
import { defineBlock } from '../definition.ts';
import { classes, element } from '../html.ts';
import { escapeHtml } from '../../text.ts';

/** Fields with their labels; blank ones are left out. */
export const fieldSheet = defineBlock({
  block: 'fieldSheet',
  label: 'Field sheet',
  doc: 'Fields with their labels; blank ones are left out.',
  spec: {
    fields: z.array(z.string()).min(1),
  },
  compile: ({ fields, style }, c) => {
    const rows = fields.map((key, i) => {
      const field = c.type?.fields.find((f) => f.key === key);
      const words = c.pattern(`{${key}}`, `fields/${i + 1}`);
      return { label: escapeHtml(field?.label ?? key), words };
    });
    const attributes = classes('field-sheet', style);
    return (scope) => {
      let out = '';
      for (const { label, words } of rows) {
        const html = words(scope);
        if (html !== null) out += `<dt>${label}</dt><dd>${html}</dd>`;
      }
      return element('dl', attributes, out);
    };
  },
  example: {
    block: { block: 'fieldSheet', fields: ['title'] },
    html: '<dl class="field-sheet"><dt>Title</dt><dd>Blue pea</dd></dl>',
  },
});
