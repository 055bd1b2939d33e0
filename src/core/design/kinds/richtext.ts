import { z } from 'zod';
import { ok } from '../../issue.ts';
import { one } from '../../pattern/types.ts';
import { namedIn, partsIn, plainText } from '../../rich-text/index.ts';
import { MAX_TEXT } from '../../text.ts';
import { parseText, printText } from '../rich-text-values.ts';
import { textFormOf } from '../text-form.ts';
import { valuesOf } from '../values-of.ts';
import { type FieldKind, PLAIN, notA } from './definition.ts';
import { LENGTHS, lengthLimits, ordered } from './limits.ts';
import { kindOf } from './registry.ts';

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
    /** What it may hold: the key of a form of texts. */
    form: z.string().min(1).max(64).optional(),
    ...LENGTHS,
  },
  translated: true,
  valueType: () => one('richtext'),
  parse: (raw, field, given) => {
    if (typeof raw !== 'string') return parseText(raw, field, given);
    if (raw.length > MAX_TEXT)
      return notA(field, 'text of at most 2 MB', `${raw.slice(0, 20)}…`, 'Shorten it.');
    return raw.trim() === '' ? ok(null) : parseText(given.richText(raw), field, given);
  },
  print: printText,
  asText: (stored) => plainText(stored),
  searched: (stored, field) =>
    [
      plainText(stored),
      ...richtext
        .items(stored, field)
        .flatMap(({ fields, values }) =>
          fields.flatMap((inner) =>
            valuesOf(values, inner.id).map((value) => kindOf(inner).searched(value, inner)),
          ),
        ),
    ]
      .filter((words) => words !== '')
      .join('\n'),
  limits: (stored, field) => lengthLimits(plainText(stored), field),
  check: (field, path, { textForms }) => [
    ...ordered(field, path, [field.minLength, field.maxLength]),
    ...(field.form === undefined || textForms.some(({ key }) => key === field.form)
      ? []
      : [
          {
            code: 'unknown-name',
            path: `${path}/form`,
            message: `There is no form of texts "${field.form}".`,
            fix: 'Name one of the folder text-forms/, or leave it out.',
          },
        ]),
  ],
  control: 'rich-text',
  display: (stored) => plainText(stored),
  family: 'presence',
  sortable: false,
  mentions: (stored) => namedIn(stored),
  items: (stored, field) =>
    partsIn(stored).flatMap(({ type, values }) => {
      const part = textFormOf(field).allParts.find(({ id }) => id === type);
      return part ? [{ fields: part.fields, values }] : [];
    }),
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
