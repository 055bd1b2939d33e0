import type { PatternFunction } from './definition.ts';

export const first: PatternFunction = {
  name: 'first',
  doc: 'The first of a list.',
  parameters: [{ name: 'list', kinds: 'any', takes: 'list' }],
  returns: ([type]) => ({ ...type!, many: false }),
  call: ([list]) => (list as unknown[]).at(0) ?? null,
  example: {
    pattern: '{first(names)}',
    fields: { names: { kind: 'text', value: ['ash', 'elm'] } },
    result: 'ash',
  },
};
