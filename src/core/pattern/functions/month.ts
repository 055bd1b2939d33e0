import { dateParts } from '../date-parts.ts';
import { one } from '../types.ts';
import { DATES, type PatternFunction } from './definition.ts';

export const month: PatternFunction = {
  name: 'month',
  doc: 'The month as 1 to 12, in the site’s zone.',
  parameters: [{ name: 'date', kinds: DATES, takes: 'one' }],
  returns: () => one('number'),
  call: ([value], { zone }) => dateParts(value as string | number, zone).month,
  example: {
    pattern: '{month(sow)}',
    fields: { sow: { kind: 'date', value: '2026-03-09' } },
    result: '3',
  },
};
