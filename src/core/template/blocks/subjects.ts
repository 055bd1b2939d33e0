import type { CompileBlock } from '../context.ts';
import { classes, element } from '../html.ts';
import { escapeHtml } from '../../text.ts';
import { valuesOf } from '../../design/values.ts';

/** The tags or categories of an entry, as a list. */
export const subjects: CompileBlock<'subjects'> = ({ field, label, style }, c) => {
  const bound = c.field(field, 'field', ['tags', 'category']);
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
};
