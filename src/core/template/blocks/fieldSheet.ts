import { z } from 'zod';
import { defineBlock } from '../definition.ts';
import { classes, element } from '../html.ts';
import { isReference } from '../../design/field-values.ts';
import type { Field } from '../../design/field.ts';
import { nameOf, valuesOf } from '../../design/values.ts';
import { namesIn } from '../../pattern/names.ts';
import { escapeHtml } from '../../text.ts';
import type { Render, RenderScope } from '../context.ts';

/** Fields with their labels; blank ones are left out, entries are links where they have pages. */
export const fieldSheet = defineBlock({
  block: 'fieldSheet',
  label: 'Field sheet',
  doc: 'Fields with their labels; entries are links where they have pages.',
  spec: {
    fields: z.array(z.string()).min(1),
  },
  holds: { fields: 'expression' },
  compile: ({ fields, style }, c) => {
    const rows = fields.map((key, i) => {
      const field = c.type?.fields.find((f) => f.key === key);
      const words = c.pattern(`{${key}}`, `fields/${i + 1}`);
      const links = field && isReference(field);
      if (links) c.needs.push([field.id]);
      const shown = links ? linksOf(field) : (scope: RenderScope) => words(scope) ?? '';
      const reached = namesIn(`{${key}}`, c.env).at(-1)?.member.label;
      return { label: escapeHtml(reached ?? key), shown };
    });
    const attributes = classes('field-sheet', style);
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

/** The entries that are live, by name. */
function linksOf(field: Field): Render {
  return (scope) =>
    valuesOf(scope.own?.values ?? {}, field.id)
      .flatMap((id) => {
        const entry = scope.entry(String(id));
        if (!entry) return [];
        const [name, path] = [escapeHtml(nameOf(entry)), scope.pathOf(entry)];
        return path === null ? name : `<a href="${escapeHtml(path)}">${name}</a>`;
      })
      .join(', ');
}
