import { z } from 'zod';
import { defineBlock } from '../definition.ts';
import { classes, element } from '../html.ts';
import { isReference } from '../../design/field-values.ts';
import { namesIn } from '../../pattern/names.ts';
import { escapeHtml } from '../../text.ts';
import type { RenderScope } from '../context.ts';
import { linksOf } from '../field-html.ts';

/** Fields with their labels; blank ones are left out, entries are links where they have pages. */
export const fieldSheet = defineBlock({
  block: 'fieldSheet',
  label: 'Field sheet',
  doc: 'Fields with their labels; entries are links where they have pages.',
  spec: {
    fields: z.array(z.string()).min(1),
    /** Where labels stand; hidden ones are read out all the same. */
    labels: z.enum(['beside', 'above', 'hidden']).default('beside'),
  },
  holds: { fields: 'expression' },
  compile: ({ fields, labels, style }, c) => {
    const rows = fields.map((key, i) => {
      const words = c.pattern(`{${key}}`, `fields/${i + 1}`);
      const bound = c.found(key);
      if (bound && isReference(bound.field)) c.reads(bound);
      const links = bound && linksOf(bound.field);
      const shown = (scope: RenderScope): string => {
        if (!links) return words(scope) ?? '';
        const owner = bound.owner(scope);
        return owner ? links(owner) : '';
      };
      const reached = namesIn(`{${key}}`, c.env).at(-1)?.member.label;
      return { label: escapeHtml(reached ?? key), shown };
    });
    const attributes = classes(
      'field-sheet',
      labels === 'beside' ? undefined : `labels-${labels}`,
      style,
    );
    return (scope) => {
      let out = '';
      for (const { label, shown } of rows) {
        const html = shown(scope);
        if (html !== '') out += `<dt>${label}</dt><dd>${html}</dd>`;
      }
      return element('dl', attributes, out);
    };
  },
  example: {
    block: { block: 'fieldSheet', fields: ['title', 'friends'] },
    html: '<dl class="field-sheet"><dt>Title</dt><dd>Blue pea</dd><dt>Friends</dt><dd><a href="/seeds/red-bean">Red bean</a></dd></dl>',
  },
});
