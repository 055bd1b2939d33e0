import { expect, test } from 'vitest';
import { designOf } from '../../../tests/helpers/design.ts';
import { applyEdit, invertEdit } from './edit.ts';
import { removalOfType } from './removal.ts';

const title = { key: 'title', kind: 'text' };
const design = designOf({
  types: [
    { key: 'boat', address: '/boats/{title}', template: 'boat-page', fields: [title] },
    { key: 'race', fields: [title] },
  ],
  listings: [
    { key: 'fleet', label: 'Fleet', type: 'boat', address: '/fleet', sort: ['title'] },
    { key: 'races', type: 'race', sort: ['title'] },
  ],
  templates: [{ key: 'boat-page', kind: 'page', type: 'boat', blocks: [] }],
});

test('a type goes with the listings and templates that are of it alone, and comes back with them', () => {
  const { steps, goes } = removalOfType(design, 'boat');
  expect(goes).toEqual(['listing Fleet', 'template Boat page']);
  const done = applyEdit(design, { steps });
  if (!done.ok) throw new Error(JSON.stringify(done.issues));
  const after = done.value.design;
  expect(after.types.map(({ key }) => key)).toEqual(['race']);
  expect([...after.listings, ...after.templates].map(({ key }) => key)).toEqual(['races']);
  expect(applyEdit(after, invertEdit(done.value.edit))).toMatchObject({ value: { design } });
});

test('a type that something else leads to stays, and it is said what does', () => {
  const crew = {
    key: 'crew',
    fields: [title, { key: 'boat', kind: 'reference', types: ['boat'] }],
  };
  const led = designOf({ types: [...design.types, crew] });
  const done = applyEdit(led, { steps: removalOfType(led, 'boat').steps });
  expect(done.ok ? [] : done.issues.map(({ path }) => path)).toContain('types/crew/fields/boat');
});
