import { z } from 'zod';
import { defineBlock } from '../definition.ts';
import { classes, element } from '../html.ts';
import { isReference, targetOf } from '../../design/field-values.ts';
import type { Field } from '../../design/field.ts';
import { shownLink } from '../../design/link-value.ts';
import { isSafeLink } from '../../link.ts';
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
      if (field && isReference(field)) c.needs.push([field.id]);
      const shown = (field && linksOf(field)) ?? ((scope: RenderScope) => words(scope) ?? '');
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

/** How the values of a field are drawn as links; null where they lead nowhere. */
function linksOf(field: Field): Render | null {
  const html = isReference(field) ? entryHtml : targetOf(field)?.of === 'link' ? linkHtml : null;
  if (!html) return null;
  return (scope) =>
    valuesOf(scope.own?.values ?? {}, field.id)
      .flatMap((value) => html(value, scope) ?? [])
      .join(', ');
}

/** An entry by name; null where it is not live. */
function entryHtml(id: unknown, scope: RenderScope): string | null {
  const entry = scope.entry(String(id));
  if (!entry) return null;
  const [name, path] = [nameOf(entry), scope.pathOf(entry)];
  return path === null ? escapeHtml(name) : anchor(name, path);
}

function linkHtml(value: unknown, scope: RenderScope): string | null {
  const link = shownLink(value, scope);
  if (!link) return null;
  return isSafeLink(link.href) ? anchor(link.words, link.href) : escapeHtml(link.words);
}

function anchor(words: string, href: string): string {
  return `<a href="${escapeHtml(href)}">${escapeHtml(words)}</a>`;
}
