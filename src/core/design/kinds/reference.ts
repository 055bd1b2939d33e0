import { ok } from '../../issue.ts';
import { one } from '../../pattern/types.ts';
import { type FieldType, notA } from './definition.ts';

/** Another entry, stored as its id. */
export const reference: FieldType = {
  kind: 'reference',
  words: 'a reference',
  valueType: () => one('text'),
  parse: (raw, field) => (typeof raw === 'string' && raw.trim() !== '' ? ok(raw.trim()) : notA(field, 'a reference', raw, 'Give the id of an entry.')),
  family: 'members',
  sortable: false,
};
