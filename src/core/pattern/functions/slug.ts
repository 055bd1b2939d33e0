import { slugText } from '../slug.ts';
import { toText } from '../to-text.ts';
import { one } from '../types.ts';
import { type PatternFunction, textParameter } from './definition.ts';

export const slug: PatternFunction = {
  name: 'slug',
  doc: 'The text as it would stand in an address: plain letters, digits and hyphens.',
  parameters: [textParameter('text')],
  returns: () => one('text'),
  call: ([value], scope, [type]) => slugText(toText(type!)(value, scope) ?? '', scope.language),
  example: {
    pattern: '{slug(title)}',
    fields: { title: { kind: 'text', value: 'Crème & Co.' } },
    result: 'creme-co',
  },
};
