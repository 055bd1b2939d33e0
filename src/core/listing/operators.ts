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
  'between',
  'within-last',
  'within-next',
  'this',
  'on-this-day',
  ...PRESENCE,
] as const;

/** The operators each family of kinds takes, in the order screens offer them. */
export const OPERATORS_OF: Record<FilterFamily, readonly Operator[]> = {
  text: ['is', 'is-not', 'any-of', 'none-of', 'contains', 'starts-with', 'has-word', ...PRESENCE],
  number: [
    'is',
    'is-not',
    'any-of',
    'none-of',
    'less-than',
    'at-most',
    'more-than',
    'at-least',
    'between',
    ...PRESENCE,
  ],
  yesno: ['is', 'is-not', ...PRESENCE],
  day: DATES,
  instant: DATES,
  choice: ['is', 'is-not', 'any-of', 'none-of', ...PRESENCE],
  members: ['is', 'is-not', 'any-of', 'all-of', 'none-of', ...PRESENCE],
  presence: PRESENCE,
  identity: ['is', 'is-not', 'any-of', 'none-of'],
};

/** Operators as words in a sentence. */
export const OPERATOR_WORDS: Record<Operator, string> = {
  is: 'is',
  'is-not': 'is not',
  contains: 'contains',
  'starts-with': 'starts with',
  'has-word': 'has the word',
  'less-than': 'is less than',
  'at-most': 'is at most',
  'more-than': 'is more than',
  'at-least': 'is at least',
  before: 'is before',
  'on-or-before': 'is on or before',
  after: 'is after',
  'on-or-after': 'is on or after',
  between: 'is between',
  'within-last': 'is within the last',
  'within-next': 'is within the next',
  this: 'is this',
  'on-this-day': 'is on this day of a year',
  'any-of': 'is any of',
  'all-of': 'has all of',
  'none-of': 'is none of',
  blank: 'is blank',
  'not-blank': 'is not blank',
};
