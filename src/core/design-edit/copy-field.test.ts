import { expect, test } from 'vitest';
import { fieldSpec } from '../design/spec.ts';
import { copyOfField } from './copy-field.ts';

const names = { id: 'copied', key: 'copied' };

test('a copy has all that is set of a field, under names of its own', () => {
  const given = {
    key: 'ease',
    kind: 'choice',
    options: ['easy', 'hard'],
    section: 'How',
    half: true,
  };
  const field = fieldSpec.parse(given);
  expect(copyOfField(field, names)).toEqual({ ...field, ...names });
});

test('what names others of its type, or is there once, stays behind', () => {
  const field = fieldSpec.parse({
    key: 'inside',
    kind: 'reference',
    sitsWithin: true,
    otherSide: 'pages in it',
    shownIf: { field: 'other' },
    replaces: { field: 'before', kind: 'text' },
  });
  expect(Object.keys(copyOfField(field, names)).sort()).toEqual(
    ['column', 'id', 'key', 'kind', 'label', 'many', 'required', 'translated'].sort(),
  );
});
