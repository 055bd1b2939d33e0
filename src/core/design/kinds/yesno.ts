import { ok } from '../../issue.ts';
import { one } from '../../pattern/types.ts';
import { type FieldKind, PLAIN, notA } from './definition.ts';

const WORDS = new Map([
  ['yes', true],
  ['no', false],
  ['true', true],
  ['false', false],
]);

/** Yes or no. */
export const yesno: FieldKind<'yesno'> = {
  ...PLAIN,
  kind: 'yesno',
  label: 'Yes or no',
  words: 'yes or no',
  doc: 'One of two answers, such as whether something is in stock.',
  spoken: ['yes or no', 'yes/no', 'tick'],
  valueType: () => one('yesno'),
  parse: (raw, field) => {
    const value = typeof raw === 'string' ? WORDS.get(raw.trim().toLowerCase()) : raw;
    return typeof value === 'boolean'
      ? ok(value)
      : notA(field, 'yes or no', raw, 'Write yes or no.');
  },
  asText: (stored) => (stored === true ? 'yes' : 'no'),
  control: 'yes-no',
  display: (stored) => (stored === true ? 'yes' : 'no'),
  family: 'yesno',
  sortable: true,
  standIn: () => true,
  example: { field: {}, raw: 'Yes', stored: true, printed: true, shown: 'yes', wrong: 'perhaps' },
};
