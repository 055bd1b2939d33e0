import type { FieldKind } from './definition.ts';
import { subjectsOf } from './subjects.ts';

/** A subject of a tree, prepared beforehand; stored as its key. */
export const category: FieldKind<'category'> = {
  ...subjectsOf('tree'),
  kind: 'category',
  label: 'Category',
  words: 'a category',
  doc: 'A subject of a prepared tree, such as a plant family.',
  spoken: ['category', 'section'],
  suggestedBy: ['category', 'section'],
  example: {
    field: { set: 'families' },
    raw: 'beans',
    stored: 'beans',
    printed: 'beans',
    shown: 'Beans',
    wrong: [],
  },
};
