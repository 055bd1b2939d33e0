import { limitText } from '../../text.ts';
import { toText } from '../to-text.ts';
import { one } from '../types.ts';
import { type PatternFunction, textParameter } from './definition.ts';

export const limit: PatternFunction = {
  name: 'limit',
  doc: 'The text cut after a whole word, so that with “…” it has at most so many characters.',
  parameters: [textParameter('text'), { name: 'length', kinds: ['number'], takes: 'one' }],
  returns: () => one('text'),
  call: ([value, n], scope, [type]) =>
    limitText((toText(type!)(value, scope) ?? '').trim(), Math.floor(Number(n))),
  example: {
    pattern: '{limit(title, 12)}',
    fields: { title: { kind: 'text', value: 'Climbing blue bean' } },
    result: 'Climbing…',
  },
};
