import { z } from 'zod';
import { defineBlock } from '../definition.ts';
import type { Render } from '../context.ts';
import { classes } from '../html.ts';
import { escapeHtml } from '../../text.ts';

/** A heading; with `link` it leads to the entry's page. */
export const heading = defineBlock({
  block: 'heading',
  label: 'Heading',
  doc: 'A heading, which may lead to the entry’s page.',
  spec: {
    text: z.string(),
    level: z.int().min(1).max(6).default(2),
    link: z.boolean().default(false),
  },
  holds: { text: 'pattern' },
  compile: ({ text, level, link, style }, c) => {
    const words = c.pattern(text, 'text');
    const attributes = style ? classes(style) : '';
    const open = `<h${level}${attributes}>`;
    // Looks as ever, and counts as what it is below (WAI-ARIA 1.2, aria-level).
    const lifted = level > 2 ? `<h${level}${attributes} aria-level="${level - 1}">` : open;
    const close = `</h${level}>`;
    const plain: Render = (scope) => {
      const html = words(scope);
      return html === null ? '' : (scope.lifted ? lifted : open) + html + close;
    };
    if (!link) return plain;
    const closeLink = `</a>${close}`;
    return (scope) => {
      const path = scope.own && scope.pathOf(scope.own);
      if (!path) return plain(scope);
      const html = words(scope);
      if (html === null) return '';
      const begun = scope.lifted ? lifted : open;
      return begun + '<a href="' + escapeHtml(path) + '">' + html + closeLink;
    };
  },
  example: {
    block: { block: 'heading', text: '{title}', level: 3, link: true },
    html: '<h3><a href="/seeds/blue-pea">Blue pea</a></h3>',
  },
});
