import { ok } from '../../issue.ts';
import { nearest } from '../../text.ts';
import type { Field } from '../spec.ts';
import { type FieldType, notA } from './definition.ts';

/** One of prepared options, stored as the option's key. */
export const choice: FieldType = {
  kind: 'choice',
  words: 'a choice',
  valueType: (field) => ({
    kind: 'choice',
    many: field.many,
    label: (value) => labelOf(field, value),
  }),
  parse: (raw, field) => {
    const options = field.options ?? [];
    const text = String(raw).trim();
    const found =
      options.find((o) => o.key === text) ??
      options.find((o) => o.label.toLowerCase() === text.toLowerCase());
    if (found) return ok(found.key);
    const near = nearest(
      text,
      options.map((o) => o.key),
    );
    return notA(
      field,
      `one of ${options.map((o) => o.key).join(', ')}`,
      raw,
      near ? `Did you mean "${near}"?` : 'Use an option, or add this one to the field.',
    );
  },
  family: 'choice',
  sortable: true,
};

function labelOf(field: Field, value: string): string {
  return field.options?.find((o) => o.key === value)?.label ?? value;
}
