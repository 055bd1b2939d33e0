import { dateParts } from '../date-parts.ts';
import { one } from '../types.ts';
import { DATES, type PatternFunction } from './definition.ts';

export const year: PatternFunction = {
  name: 'year',
  doc: 'The year, in digits, in the site’s zone.',
  parameters: [{ name: 'date', kinds: DATES, takes: 'one' }],
  returns: () => ({ ...one('number'), plain: true }),
  call: ([value], { zone }) => dateParts(value as string | number, zone).year,
  example: {
    pattern: '{year(sow)}',
    fields: { sow: { kind: 'date', value: '2026-03-09' } },
    result: '2026',
  },
};
