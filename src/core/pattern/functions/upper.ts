import { toText } from '../to-text.ts';
import { one } from '../types.ts';
import { type PatternFunction, textParameter } from './definition.ts';

export const upper: PatternFunction = {
  name: 'upper',
  doc: 'The text in capitals, by the rules of the page’s language.',
  parameters: [textParameter('text')],
  returns: () => one('text'),
  call: ([value], scope, [type]) => {
    const text = toText(type!)(value, scope) ?? '';
    return text.toLocaleUpperCase(scope.language);
  },
  example: {
    pattern: '{upper(title)}',
    fields: { title: { kind: 'text', value: 'Blue Pea' } },
    result: 'BLUE PEA',
  },
};
