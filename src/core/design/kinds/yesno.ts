import { ok } from '../../issue.ts';
import { one } from '../../pattern/types.ts';
import { type FieldType, notA } from './definition.ts';

const WORDS: Record<string, boolean> = { yes: true, no: false, true: true, false: false };

/** Yes or no. */
export const yesno: FieldType = {
  kind: 'yesno',
  words: 'yes or no',
  valueType: () => one('yesno'),
  parse: (raw, field) => {
    const value = typeof raw === 'string' ? WORDS[raw.trim().toLowerCase()] : raw;
    return typeof value === 'boolean'
      ? ok(value)
      : notA(field, 'yes or no', raw, 'Write yes or no.');
  },
  family: 'yesno',
  sortable: true,
};
