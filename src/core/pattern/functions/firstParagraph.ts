import { firstOf } from '../../rich-text.ts';
import { one } from '../types.ts';
import type { PatternFunction } from './definition.ts';

export const firstParagraph: PatternFunction = {
  name: 'firstParagraph',
  doc: 'The words of the first paragraph.',
  parameters: [{ name: 'rich text', kinds: ['richtext'], takes: 'one' }],
  returns: () => one('text'),
  call: ([value]) => firstOf(value, 'paragraph'),
  example: {
    pattern: '{firstParagraph(story)}',
    fields: {
      story: {
        kind: 'richtext',
        value: {
          type: 'doc',
          content: [
            { type: 'heading', attrs: { level: 2 }, content: [{ type: 'text', text: 'Blue' }] },
            { type: 'paragraph', content: [{ type: 'text', text: 'Sweet.' }] },
          ],
        },
      },
    },
    result: 'Sweet.',
  },
};
