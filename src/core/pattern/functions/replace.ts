import { toText } from '../to-text.ts';
import { one } from '../types.ts';
import { type PatternFunction, textParameter } from './definition.ts';

export const replace: PatternFunction = {
  name: 'replace',
  doc: 'The text with every place of one wording replaced by another; capitals matter.',
  parameters: [textParameter('text'), textParameter('old'), textParameter('new')],
  returns: () => one('text'),
  call: (args, scope, types) => {
    const [text, from, to] = args.map((arg, i) => toText(types[i]!)(arg, scope) ?? '') as [
      string,
      string,
      string,
    ];
    return from === '' ? text : text.replaceAll(from, () => to);
  },
  example: {
    pattern: '{replace(title, "Bean", "Pea")}',
    fields: { title: { kind: 'text', value: 'Blue Bean' } },
    result: 'Blue Pea',
  },
};
