import type { FieldType } from './definition.ts';
import { text } from './text.ts';

/** Text of several lines, without form. */
export const paragraphs: FieldType = {
  ...text,
  kind: 'paragraphs',
  words: 'text of several lines',
  sortable: false,
};
