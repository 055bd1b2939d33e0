import { z } from 'zod';
import { defineBlock } from '../definition.ts';
import { classes } from '../html.ts';
import { valueKindOf } from '../../design/field-values.ts';
import { isPicture } from '../../design/media-formats.ts';
import type { Media } from '../../design/values.ts';
import { escapeHtml } from '../../text.ts';
import { type RenderScope, RATIOS } from '../context.ts';
import { captionHtml, pictureHtml } from '../picture-html.ts';

/** A picture of a media field, at a width in CSS px; a link to what is no picture. */
export const picture = defineBlock({
  block: 'picture',
  label: 'Picture',
  doc: 'A picture of a media field, at a width in CSS px, cut to a shape if wanted; of another file a link to it.',
  spec: {
    field: z.string(),
    width: z.int().min(16).max(2400).default(800),
    /** What it is cut to, around what matters in it: width by height. */
    ratio: z.enum(RATIOS).optional(),
    /** Whether its caption and who made it stand below it. */
    caption: z.boolean().optional(),
  },
  holds: { field: 'field' },
  compile: ({ field, width, ratio, caption, style }, c) => {
    const bound = c.field(field, 'field', (f) => valueKindOf(f) === 'media', 'a picture');
    const open = `<figure${classes('picture', style)}>`;
    return (scope) => {
      const id = bound?.read(scope)[0];
      const medium = id === undefined ? null : scope.media(String(id));
      if (!medium) return '';
      if (!isPicture(medium)) return fileLink(medium, scope, classes('file', style));
      const found = scope.picture(medium, { width, ratio });
      if (!found) return '';
      return `${open}${pictureHtml(found)}${caption ? captionHtml(medium) : ''}</figure>`;
    };
  },
  example: {
    block: { block: 'picture', field: 'photo', width: 320, ratio: '2:1', caption: true },
    html: '<figure class="picture"><img src="/media/ab/320-2x1-50-50" srcset="/media/ab/160-2x1-50-50 160w, /media/ab/320-2x1-50-50 320w, /media/ab/480-2x1-50-50 480w, /media/ab/640-2x1-50-50 640w" sizes="(max-width: 320px) 100vw, 320px" alt="A pea" width="320" height="160"><figcaption>In its pod <small class="credit">Ines Carrow</small></figcaption></figure>',
  },
});

/** A link to a file, by what is said of it; else by its name. */
function fileLink(medium: Media, scope: RenderScope, attributes: string): string {
  const words = medium.caption || medium.alt || medium.id;
  const path = escapeHtml(scope.imageUrl(medium, 0) ?? '');
  return `<p${attributes}><a href="${path}">${escapeHtml(words)}</a></p>`;
}
