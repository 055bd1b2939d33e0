import { expect, test } from 'vitest';
import { designOf } from '../../../tests/helpers/design.ts';
import { duplicateStep } from './duplicate.ts';
import { applyEdit, invertEdit } from './edit.ts';

const DESIGN = designOf({
  types: [
    {
      key: 'page',
      address: '/pages/{title}',
      template: 'page',
      seo: { title: '{title}!' },
      fields: [
        { key: 'title', kind: 'text', required: true },
        { key: 'inside', kind: 'reference', types: ['page', 'other'], sitsWithin: true },
      ],
    },
    { key: 'other', address: '/{title}', fields: [{ key: 'title', kind: 'text' }] },
  ],
  templates: [{ key: 'page', kind: 'page', type: 'page', blocks: [] }],
});
const NAMES = { id: 'n1', key: 'notice', label: 'Notice', plural: 'Notices' };

test('a type made like another has its fields and rules, and pages and a tree of its own', () => {
  const done = applyEdit(DESIGN, { steps: [duplicateStep(DESIGN, DESIGN.types[0]!, NAMES)] });
  if (!done.ok) throw new Error(JSON.stringify(done.issues));
  const { types } = done.value.design;
  expect(types.map(({ key }) => key)).toEqual(['page', 'notice', 'other']);
  expect(types[1]).toMatchObject({
    ...NAMES,
    address: '/notices/{title}',
    seo: { title: '{title}!' },
  });
  expect(types[1]!.template).toBeUndefined();
  expect(types[1]!.fields[1]!.types).toEqual(['notice', 'other']);
  const back = applyEdit(done.value.design, invertEdit(done.value.edit));
  expect(back.ok && JSON.stringify(back.value.design)).toBe(JSON.stringify(DESIGN));
});

test('one whose pages begin with a value keeps its pattern', () => {
  const step = duplicateStep(DESIGN, DESIGN.types[1]!, NAMES);
  expect((step as { part: { address?: string } }).part.address).toBe('/{title}');
});
