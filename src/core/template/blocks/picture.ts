import { z } from 'zod';
import { defineBlock } from '../definition.ts';
import { classes } from '../html.ts';
import { escapeHtml } from '../../text.ts';
import { valueKindOf } from '../../design/field-values.ts';
import { valuesOf } from '../../design/values.ts';

/** A picture of a media field, at a width in CSS px. */
export const picture = defineBlock({
  block: 'picture',
  label: 'Picture',
  doc: 'A picture of a media field, at a width in CSS px.',
  spec: {
    field: z.string(),
    width: z.int().min(16).max(2400).default(800),
  },
  holds: { field: 'field' },
  compile: ({ field, width, style }, c) => {
    const bound = c.field(field, 'field', (f) => valueKindOf(f) === 'media', 'a picture');
    const open = `<figure${classes('picture', style)}>`;
    return (scope) => {
      const id = valuesOf(scope.own?.values ?? {}, bound?.id ?? '')[0];
      const found = id === undefined ? null : scope.picture(String(id), width);
      if (!found) return '';
      return `${open}<img src="${escapeHtml(found.src)}" srcset="${escapeHtml(found.srcset)}" alt="${escapeHtml(found.alt)}" width="${found.width}" height="${found.height}"></figure>`;
    };
  },
  example: {
    block: { block: 'picture', field: 'photo', width: 320 },
    html: '<figure class="picture"><img src="/media/ab/320.webp" srcset="/media/ab/320.webp 1x, /media/ab/640.webp 2x" alt="A pea" width="320" height="160"></figure>',
  },
});
