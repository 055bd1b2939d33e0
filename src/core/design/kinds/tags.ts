import type { FieldKind } from './definition.ts';
import { subjectsOf } from './subjects.ts';

/** Subjects of a loose set, made while typing; stored as their keys. */
export const tags: FieldKind<'tags'> = {
  ...subjectsOf('tags'),
  kind: 'tags',
  label: 'Tags',
  words: 'tags',
  doc: 'Any number of subjects of a loose set, such as traits.',
  spoken: ['tags', 'labels'],
  suggestedBy: ['tags', 'keywords', 'topics'],
  alwaysMany: true,
  control: 'tags',
  example: {
    field: { set: 'traits', many: true },
    raw: ' early ',
    stored: 'early',
    printed: 'early',
    shown: 'Early',
    wrong: {},
  },
};
