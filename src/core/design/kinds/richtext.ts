import { z } from 'zod';
import { ok } from '../../issue.ts';
import { one } from '../../pattern/types.ts';
import { checkRichText, normalRichText, picturesOf, plainText } from '../../rich-text.ts';
import { MAX_TEXT } from '../../text.ts';
import { type FieldKind, PLAIN, notA } from './definition.ts';
import { LENGTHS, lengthLimits, ordered } from './limits.ts';

/** Text with form: a ProseMirror document. Markdown is read into one. */
export const richtext: FieldKind<'richtext'> = {
  ...PLAIN,
  kind: 'richtext',
  label: 'Rich text',
  words: 'rich text',
  doc: 'Text with headings, links, lists, tables and pictures, such as a story.',
  spoken: ['rich text', 'formatted text'],
  suggestedBy: ['body', 'story', 'text', 'article', 'report', 'log', 'biography'],
  properties: {
    /**
     * The level that the highest heading has on pages; below the page’s own title, where not
     * said.
     */
    topHeading: z.int().min(1).max(3).optional(),
    ...LENGTHS,
  },
  translated: true,
  valueType: () => one('richtext'),
  parse: (raw, field, { richText }) => {
    if (typeof raw === 'string') {
      if (raw.length > MAX_TEXT)
        return notA(field, 'text of at most 2 MB', `${raw.slice(0, 20)}…`, 'Shorten it.');
      return ok(raw.trim() === '' ? null : richText(raw));
    }
    const wrong = checkRichText(raw);
    return wrong === null
      ? ok(normalRichText(raw))
      : notA(field, 'Markdown or a rich text document', raw, wrong);
  },
  asText: (stored) => plainText(stored),
  searched: (stored) => plainText(stored),
  limits: (stored, field) => lengthLimits(plainText(stored), field),
  check: (field, path) => ordered(field, path, [field.minLength, field.maxLength]),
  control: 'rich-text',
  display: (stored) => plainText(stored),
  family: 'presence',
  sortable: false,
  mentions: (stored) => picturesOf(stored).map((key) => ({ of: 'media', key })),
  standIn: () => ({
    type: 'doc',
    content: [
      {
        type: 'paragraph',
        content: [{ type: 'text', text: 'The first paragraph of a story.' }],
      },
    ],
  }),
  automatic: 'body',
  example: {
    field: {},
    raw: { type: 'doc', content: [{ type: 'paragraph', content: [{ type: 'text', text: 'Hi' }] }] },
    stored: {
      type: 'doc',
      content: [{ type: 'paragraph', content: [{ type: 'text', text: 'Hi' }] }],
    },
    printed: {
      type: 'doc',
      content: [{ type: 'paragraph', content: [{ type: 'text', text: 'Hi' }] }],
    },
    shown: 'Hi',
    wrong: { type: 'script' },
  },
};
