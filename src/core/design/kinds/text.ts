import { ok } from '../../issue.ts';
import { one } from '../../pattern/types.ts';
import { type FieldType, notA } from './definition.ts';

/** A line of text. */
export const text: FieldType = {
  kind: 'text',
  words: 'text',
  valueType: () => one('text'),
  parse: (raw, field) => {
    if (typeof raw === 'string') return ok(raw);
    if (typeof raw === 'number' || typeof raw === 'boolean') return ok(String(raw));
    return notA(
      field,
      'text',
      raw,
      'Write it as text, in quotes where YAML would read it as something else.',
    );
  },
  family: 'text',
  sortable: true,
};
