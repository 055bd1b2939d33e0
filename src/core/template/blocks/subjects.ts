import { z } from 'zod';
import { defineBlock, label } from '../definition.ts';
import { classes } from '../html.ts';
import { escapeHtml } from '../../text.ts';
import type { Field } from '../../design/field.ts';
import { targetOf } from '../../design/field-values.ts';

const hasSubjects = (field: Field): boolean => targetOf(field)?.of === 'subjects';

const link = (address: string, name: string): string =>
  `<a href="${escapeHtml(address)}">${name}</a>`;

/** The tags or categories of an entry, as a list; those that a listing stands for lead there. */
export const subjects = defineBlock({
  block: 'subjects',
  label: 'Subjects',
  doc: 'The tags or categories of an entry, as a list; those that a listing stands for lead there.',
  spec: {
    field: z.string(),
    label,
  },
  holds: { field: 'field' },
  compile: ({ field, label, style }, c) => {
    const bound = c.field(field, 'field', hasSubjects, 'tags or a category');
    const listings = bound ? c.listingsOf(bound) : new Map<string, string>();
    const title = label ? `<span class="label">${escapeHtml(label)}</span> ` : '';
    const open = `<div${classes('subjects', style)}>${title}`;
    return (scope) => {
      let out = '';
      const shown = new Set<string>();
      for (const key of bound?.read(scope) ?? []) {
        const subject = scope.subject(bound!.field.set ?? '', String(key));
        if (!subject || shown.has(subject.key)) continue;
        shown.add(subject.key);
        // A listing may name a subject by a key that was merged into another.
        const address = listings.get(subject.key) ?? listings.get(String(key));
        const name = escapeHtml(subject.name);
        out += address === undefined ? `<li>${name}</li>` : `<li>${link(address, name)}</li>`;
      }
      return out === '' ? '' : `${open}<ul>${out}</ul></div>`;
    };
  },
  example: {
    block: { block: 'subjects', field: 'traits', label: 'Traits' },
    html: '<div class="subjects"><span class="label">Traits</span> <ul><li><a href="/early">Early</a></li></ul></div>',
  },
});
