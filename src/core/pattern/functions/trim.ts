import { toText } from '../to-text.ts';
import { one } from '../types.ts';
import { type PatternFunction, textParameter } from './definition.ts';

export const trim: PatternFunction = {
  name: 'trim',
  doc: 'The text without white space at its ends.',
  parameters: [textParameter('text')],
  returns: () => one('text'),
  call: ([value], scope, [type]) => {
    const text = toText(type!)(value, scope) ?? '';
    return text.trim();
  },
  example: {
    pattern: '{trim(title)}',
    fields: { title: { kind: 'text', value: '  pea ' } },
    result: 'pea',
  },
};
