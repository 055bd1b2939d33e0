import { dateParts } from '../date-parts.ts';
import { one } from '../types.ts';
import { DATES, type PatternFunction } from './definition.ts';

export const day: PatternFunction = {
  name: 'day',
  doc: 'The day of the month, in the site’s zone.',
  parameters: [{ name: 'date', kinds: DATES, takes: 'one' }],
  returns: () => one('number'),
  call: ([value], { zone }) => dateParts(value as string | number, zone).day,
  example: {
    pattern: '{day(sow)}',
    fields: { sow: { kind: 'date', value: '2026-03-09' } },
    result: '9',
  },
};
