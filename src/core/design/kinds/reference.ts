import { ok } from '../../issue.ts';
import { one } from '../../pattern/types.ts';
import { type FieldType, notA } from './definition.ts';

/** Another entry, stored as its id. */
export const reference: FieldType = {
  kind: 'reference',
  words: 'a reference',
  valueType: () => one('text'),
  parse: (raw, field) => {
    const id = typeof raw === 'number' ? String(raw) : typeof raw === 'string' ? raw.trim() : '';
    return id === '' ? notA(field, 'a reference', raw, 'Give the id of an entry.') : ok(id);
  },
  family: 'members',
  sortable: false,
};
