import { z } from 'zod';
import { valueKindOf } from '../../design/field-values.ts';
import { formatNumber } from '../../pattern/to-text.ts';
import { escapeHtml } from '../../text.ts';
import { defineBlock, label } from '../definition.ts';
import { classes } from '../html.ts';

/** A number in the language's form, with a label before it and words after it. */
export const number = defineBlock({
  block: 'number',
  label: 'Number',
  doc: 'A number in the language’s form, with a label before it and words after it.',
  spec: {
    field: z.string(),
    /** How many decimals are shown; as many as there are where left out. */
    decimals: z.int().min(0).max(10).optional(),
    label,
    /** Words after it: a unit. */
    after: z.string().optional(),
  },
  holds: { field: 'field' },
  compile: ({ field, decimals, label, after, style }, c) => {
    const bound = c.field(field, 'field', (f) => valueKindOf(f) === 'number', 'a number');
    const before = label ? `<span class="label">${escapeHtml(label)}</span> ` : '';
    const open = `<p${classes('number', style)}>${before}`;
    const close = `${after ? ` ${escapeHtml(after)}` : ''}</p>`;
    return (scope) => {
      const value = bound?.read(scope)[0];
      if (typeof value !== 'number') return '';
      const words = escapeHtml(formatNumber(value, scope.language, decimals));
      return `${open}<data value="${value}">${words}</data>${close}`;
    };
  },
  example: {
    block: { block: 'number', field: 'weight', decimals: 1, label: 'Weight', after: 'g' },
    html: '<p class="number"><span class="label">Weight</span> <data value="1250">1,250.0</data> g</p>',
  },
});
