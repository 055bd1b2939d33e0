import { one } from '../types.ts';
import type { PatternFunction } from './definition.ts';

export const url: PatternFunction = {
  name: 'url',
  doc: 'The full address of an entry’s page; blank while it has none.',
  parameters: [{ name: 'reference', kinds: ['object'], takes: 'one' }],
  returns: () => one('text'),
  readsPath: true,
  call: ([entry], scope) => scope.urlOf(entry),
  example: { pattern: '{url(entry) ?? "none"}', fields: {}, result: 'none' },
};
