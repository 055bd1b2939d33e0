import type { PatternFunction } from './definition.ts';

export const last: PatternFunction = {
  name: 'last',
  doc: 'The last of a list.',
  parameters: [{ name: 'list', kinds: 'any', takes: 'list' }],
  returns: ([type]) => ({ ...type!, many: false }),
  call: ([list]) => (list as unknown[]).at(-1) ?? null,
  example: {
    pattern: '{last(names)}',
    fields: { names: { kind: 'text', value: ['ash', 'elm'] } },
    result: 'elm',
  },
};
