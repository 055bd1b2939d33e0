import { z } from 'zod';
import { defineBlock, heading } from '../definition.ts';
import { classes } from '../html.ts';
import { targetOf } from '../../design/field-values.ts';
import type { Field } from '../../design/field.ts';
import type { Values } from '../../design/values.ts';
import { escapeHtml } from '../../text.ts';
import type { RenderScope } from '../context.ts';

const keysOf = ({ fields = [] }: Field): string[] => fields.map((f) => f.key);

/** What stands in a group field, a row for each item; columns that are blank throughout go. */
export const items = defineBlock({
  block: 'items',
  label: 'Items of a group',
  doc: 'What stands in a group field, a row for each item.',
  spec: {
    field: z.string(),
    fields: z.array(z.string()).min(1).optional(),
    heading,
  },
  holds: { field: 'field', fields: 'inner' },
  compile: ({ field, fields: chosen, heading, style }, c) => {
    const isGroup = (f: Field): boolean => targetOf(f)?.of === 'group';
    const bound = c.field(field, 'field', isGroup, 'a group of fields');
    const inner = bound ? c.inGroup(bound.field, field, chosen ?? keysOf(bound.field)) : [];
    const open = `<section${classes('items', style)}>${heading ? `<h2>${escapeHtml(heading)}</h2>` : ''}`;
    return (scope) => {
      const rows = (bound?.read(scope) ?? []).map((values) => {
        const own = { ...scope.own!, values: values as Values };
        const item: RenderScope = scope.of(own);
        return inner.map(({ html }) => html(item));
      });
      const shown = inner.flatMap((_, i) => (rows.some((row) => row[i] !== '') ? [i] : []));
      if (shown.length === 0) return '';
      const head = shown.map((i) => `<th scope="col">${escapeHtml(inner[i]!.label)}</th>`).join('');
      const body = rows
        .map((row) => `<tr>${shown.map((i) => `<td>${row[i]}</td>`).join('')}</tr>`)
        .join('');
      return `${open}<table><thead><tr>${head}</tr></thead><tbody>${body}</tbody></table></section>`;
    };
  },
  example: {
    block: { block: 'items', field: 'rowers', heading: 'Crew' },
    html: '<section class="items"><h2>Crew</h2><table><thead><tr><th scope="col">Name</th><th scope="col">Seat</th></tr></thead><tbody><tr><td>Ann</td><td>1</td></tr><tr><td>Bo</td><td></td></tr></tbody></table></section>',
  },
});
