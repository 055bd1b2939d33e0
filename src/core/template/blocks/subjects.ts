import { z } from 'zod';
import { defineBlock, label } from '../definition.ts';
import { classes, element } from '../html.ts';
import { escapeHtml } from '../../text.ts';
import type { Field } from '../../design/field.ts';
import { targetOf } from '../../design/field-values.ts';
import { valuesOf } from '../../design/values.ts';

const hasSubjects = (field: Field): boolean => targetOf(field)?.of === 'subjects';

/** The tags or categories of an entry, as a list; those that a listing stands for lead there. */
export const subjects = defineBlock({
  block: 'subjects',
  label: 'Subjects',
  doc: 'The tags or categories of an entry, as a list; those that a listing stands for lead there.',
  spec: {
    field: z.string(),
    label,
  },
  compile: ({ field, label, style }, c) => {
    const bound = c.field(field, 'field', hasSubjects, 'tags or a category');
    const attributes =
      classes('subjects', style) + (label ? ` aria-label="${escapeHtml(label)}"` : '');
    return (scope) => {
      let out = '';
      for (const key of valuesOf(scope.own?.values ?? {}, bound?.id ?? '')) {
        const subject = scope.subject(bound!.set ?? '', String(key));
        if (subject) out += `<li>${escapeHtml(subject.name)}</li>`;
      }
      return element('ul', attributes, out);
    };
  },
  example: {
    block: { block: 'subjects', field: 'traits', label: 'Traits' },
    html: '<ul class="subjects" aria-label="Traits"><li>Early</li></ul>',
  },
});
