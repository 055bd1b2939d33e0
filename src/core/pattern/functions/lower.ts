import { toText } from '../to-text.ts';
import { one } from '../types.ts';
import { type PatternFunction, textParameter } from './definition.ts';

export const lower: PatternFunction = {
  name: 'lower',
  doc: 'The text in lower case, by the rules of the page’s language.',
  parameters: [textParameter('text')],
  returns: () => one('text'),
  call: ([value], scope, [type]) => {
    const text = toText(type!)(value, scope) ?? '';
    return text.toLocaleLowerCase(scope.language);
  },
  example: {
    pattern: '{lower(title)}',
    fields: { title: { kind: 'text', value: 'Blue Pea' } },
    result: 'blue pea',
  },
};
