import type { FilterFamily } from '../design/kinds/definition.ts';
import type { Operator } from '../design/listing-spec.ts';

const PRESENCE = ['blank', 'not-blank'] as const;
const DATES = [
  'is',
  'is-not',
  'before',
  'on-or-before',
  'after',
  'on-or-after',
  ...PRESENCE,
] as const;

/** The operators each family of kinds takes, in the order screens offer them. */
export const OPERATORS_OF: Record<FilterFamily, readonly Operator[]> = {
  text: ['is', 'is-not', 'contains', 'starts-with', ...PRESENCE],
  number: ['is', 'is-not', 'less-than', 'at-most', 'more-than', 'at-least', ...PRESENCE],
  yesno: ['is', 'is-not', ...PRESENCE],
  day: DATES,
  instant: DATES,
  choice: ['is', 'is-not', 'any-of', 'none-of', ...PRESENCE],
  members: ['is', 'is-not', 'any-of', 'all-of', 'none-of', ...PRESENCE],
  presence: PRESENCE,
};

/** Operators as words in a sentence. */
export const OPERATOR_WORDS: Record<Operator, string> = {
  is: 'is',
  'is-not': 'is not',
  contains: 'contains',
  'starts-with': 'starts with',
  'less-than': 'is less than',
  'at-most': 'is at most',
  'more-than': 'is more than',
  'at-least': 'is at least',
  before: 'is before',
  'on-or-before': 'is on or before',
  after: 'is after',
  'on-or-after': 'is on or after',
  'any-of': 'is any of',
  'all-of': 'has all of',
  'none-of': 'is none of',
  blank: 'is blank',
  'not-blank': 'is not blank',
};
