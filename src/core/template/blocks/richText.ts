import { z } from 'zod';
import { defineBlock } from '../definition.ts';
import { classes, element } from '../html.ts';
import { valueKindOf } from '../../design/field-values.ts';
import { richTextHtml } from '../rich-text-html.ts';

/** A rich text field, with its form. */
export const richText = defineBlock({
  block: 'richText',
  label: 'Rich text',
  doc: 'A rich text field, with its form.',
  spec: {
    field: z.string(),
  },
  holds: { field: 'field' },
  compile: ({ field, style }, c) => {
    const bound = c.field(field, 'field', (f) => valueKindOf(f) === 'richtext', 'rich text');
    const attributes = classes('rich-text', style);
    return (scope) =>
      element(
        'div',
        attributes,
        richTextHtml(scope.own?.values[bound?.id ?? ''], scope, bound?.topHeading),
      );
  },
  example: {
    block: { block: 'richText', field: 'story' },
    html: '<div class="rich-text"><p>Once.</p></div>',
  },
});
