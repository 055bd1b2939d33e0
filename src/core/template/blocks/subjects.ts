import { z } from 'zod';
import { defineBlock, label } from '../definition.ts';
import { classes } from '../html.ts';
import { escapeHtml } from '../../text.ts';
import type { Field } from '../../design/field.ts';
import { targetOf } from '../../design/field-values.ts';
import { subjectLinks } from '../subject-links.ts';

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
    const linkOf = bound && subjectLinks(c.design, bound);
    const title = label ? `<span class="label">${escapeHtml(label)}</span> ` : '';
    const open = `<div${classes('subjects', style)}>${title}`;
    return (scope) => {
      let out = '';
      const shown = new Set<string>();
      const own = bound?.owner(scope)?.own ?? null;
      for (const key of bound?.read(scope) ?? []) {
        const subject = scope.subject(bound!.field.set ?? '', String(key));
        if (!subject || shown.has(subject.key)) continue;
        shown.add(subject.key);
        const address = linkOf!({ subject, key: String(key), own }, scope);
        const name = escapeHtml(subject.name);
        out += address === null ? `<li>${name}</li>` : `<li>${link(address, name)}</li>`;
      }
      return out === '' ? '' : `${open}<ul>${out}</ul></div>`;
    };
  },
  example: {
    block: { block: 'subjects', field: 'traits', label: 'Traits' },
    html: '<div class="subjects"><span class="label">Traits</span> <ul><li><a href="/early">Early</a></li></ul></div>',
  },
});
