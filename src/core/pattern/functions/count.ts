import { one } from '../types.ts';
import type { PatternFunction } from './definition.ts';

export const count: PatternFunction = {
  name: 'count',
  doc: 'How many a list has; 0 for an empty one.',
  parameters: [{ name: 'list', kinds: 'any', takes: 'list' }],
  returns: () => one('number'),
  takesBlank: true,
  call: ([list]) => (list as unknown[]).length,
  example: {
    pattern: '{count(names)}',
    fields: { names: { kind: 'text', value: ['ash', 'elm'] } },
    result: '2',
  },
};
