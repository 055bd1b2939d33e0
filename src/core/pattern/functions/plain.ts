import { plainText } from '../../rich-text.ts';
import { one } from '../types.ts';
import type { PatternFunction } from './definition.ts';

export const plain: PatternFunction = {
  name: 'plain',
  doc: 'All words of a rich text, without its form.',
  parameters: [{ name: 'rich text', kinds: ['richtext'], takes: 'one' }],
  returns: () => one('text'),
  call: ([value]) => plainText(value),
  example: {
    pattern: '{plain(story)}',
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
    result: 'Blue Sweet.',
  },
};
