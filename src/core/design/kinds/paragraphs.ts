import type { FieldKind } from './definition.ts';
import { text } from './text.ts';

/** Text of several lines, without form. */
export const paragraphs: FieldKind<'paragraphs'> = {
  ...text,
  kind: 'paragraphs',
  label: 'Paragraphs',
  words: 'text of several lines',
  doc: 'Text of several lines without headings, links or pictures, such as a summary.',
  spoken: ['paragraphs', 'long text', 'lines'],
  suggestedBy: ['summary', 'lead', 'intro', 'about', 'abstract', 'notes', 'quote', 'remarks'],
  names: false,
  fromText: (words) => words,
  control: 'lines',
  sortable: false,
  standIn: () => 'A sentence or two that say what this is about.',
  example: {
    field: {},
    raw: 'One line.\nAnother.',
    stored: 'One line.\nAnother.',
    printed: 'One line.\nAnother.',
    shown: 'One line.\nAnother.',
    wrong: { a: 1 },
  },
};
