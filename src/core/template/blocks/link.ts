import { z } from 'zod';
import { defineBlock } from '../definition.ts';
import { classes } from '../html.ts';
import { isSafeLink } from '../../link.ts';

/**
 * A link to a path or address; only its words where the target is blank or of a scheme that links
 * do not take.
 */
export const link = defineBlock({
  block: 'link',
  label: 'Link',
  doc: 'A link to a path or address; only its words where the target is blank or of a scheme that links do not take.',
  spec: {
    to: z.string(),
    text: z.string(),
  },
  holds: { to: 'pattern', text: 'pattern' },
  compile: ({ to, text, style }, c) => {
    const target = c.pattern(to, 'to', 'attribute');
    const words = c.pattern(text, 'text');
    const attributes = style ? classes(style) : '';
    return (scope) => {
      const html = words(scope);
      if (html === null) return '';
      const href = target(scope)?.trim();
      if (href === undefined || !isSafeLink(href)) return `<span${attributes}>${html}</span>`;
      return `<a href="${href}"${attributes}>${html}</a>`;
    };
  },
  example: {
    block: { block: 'link', to: '/help', text: 'Help' },
    html: '<a href="/help">Help</a>',
  },
});
