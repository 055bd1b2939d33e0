import { toText } from '../to-text.ts';
import { one } from '../types.ts';
import { type PatternFunction, textParameter } from './definition.ts';

export const join: PatternFunction = {
  name: 'join',
  doc: 'The members of a list with a wording between them.',
  parameters: [{ name: 'list', kinds: 'any', takes: 'list' }, textParameter('between')],
  returns: () => one('text'),
  call: ([list, between], scope, [type]) => {
    const single = toText({ ...type!, many: false });
    return (list as unknown[])
      .flatMap((value) => single(value, scope) ?? [])
      .join(String(between ?? ''));
  },
  example: {
    pattern: '{join(names, " + ")}',
    fields: { names: { kind: 'text', value: ['ash', 'elm'] } },
    result: 'ash + elm',
  },
};
