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
    const open = `<h${level}${style ? classes(style) : ''}>`;
    const close = `</h${level}>`;
    const plain: Render = (scope) => {
      const html = words(scope);
      return html === null ? '' : open + html + close;
    };
    if (!link) return plain;
    const openLink = `${open}<a href="`;
    const closeLink = `</a>${close}`;
    return (scope) => {
      const path = scope.own && scope.pathOf(scope.own);
      if (!path) return plain(scope);
      const html = words(scope);
      return html === null ? '' : openLink + escapeHtml(path) + '">' + html + closeLink;
    };
  },
  example: {
    block: { block: 'heading', text: '{title}', level: 3, link: true },
    html: '<h3><a href="/seeds/blue-pea">Blue pea</a></h3>',
  },
});
