import { expect, test } from 'vitest';
import { designSpec } from '../design/spec.ts';
import { readersOf } from './readers.ts';

const DESIGN = designSpec.parse({
  site: { name: 'Club', url: 'https://club.example', zone: 'UTC', language: 'en' },
  types: [
    {
      key: 'boat',
      address: '/boats/{name}',
      seo: { title: '{name}[ of {built}]' },
      fields: [
        { key: 'name', kind: 'text' },
        { key: 'built', kind: 'number' },
        { key: 'spare', kind: 'text' },
        { key: 'about', kind: 'computed', pattern: '{name}, {built}' },
      ],
    },
    {
      key: 'crew',
      fields: [
        { key: 'title', kind: 'text' },
        { key: 'rows', kind: 'reference', types: ['boat'] },
        { key: 'built', kind: 'number' },
        { key: 'said', kind: 'computed', pattern: '{title} in {rows.built}' },
      ],
    },
  ],
  listings: [{ key: 'old', type: 'boat', sort: ['built'], where: { field: 'built', op: 'blank' } }],
  templates: [
    {
      key: 'boat-page',
      kind: 'page',
      type: 'boat',
      blocks: [{ block: 'text', text: '{built}' }],
    },
  ],
});

test('what reads a field is counted and named, through references too', () => {
  const { lines, ...counts } = readersOf(DESIGN, 'types/boat/fields/built');
  expect(counts).toEqual({ patterns: 4, listings: 1, templates: 1 });
  expect(lines).toEqual([
    'Boat: title rule',
    'Boat, About',
    'Crew, Said',
    'listing Old: order',
    'listing Old, built',
    'template Boat page, text',
  ]);
});

test('a field of the same name elsewhere is another one, and one that nothing reads has none', () => {
  const none = { patterns: 0, listings: 0, templates: 0, lines: [] };
  expect(readersOf(DESIGN, 'types/crew/fields/built')).toEqual(none);
  expect(readersOf(DESIGN, 'types/boat/fields/spare')).toEqual(none);
  expect(readersOf(DESIGN, 'types/boat/fields/nothing')).toEqual(none);
});

test('what names a type is told', () => {
  expect(readersOf(DESIGN, 'types/boat')).toMatchObject({
    listings: 1,
    templates: 1,
    lines: ['Crew, Rows', 'listing Old: type', 'template Boat page: type'],
  });
});
