import { describe, expect, test } from 'vitest';
import type { Values } from '@/core/design/values.ts';
import { newEntry } from '@/server/queries/entry.ts';
import { type Files, type TestSite, at, loadFiles } from '../helpers/folder.ts';
import { entry } from '../helpers/notes.ts';
import { ANN } from '../helpers/seeds.ts';

const NOW = at('2026-07-02');
const always = [{ from: '2026-01-01', to: null }];
const boat = (id: string, more: object): object => ({ ...entry(id, id, always), ...more });

/** Boats of a class in a harbour; harbours' pages list those of theirs, boats' those alike. */
const HARBOUR: Files = {
  'subjects/rigs.json': { key: 'rigs', kind: 'tags', subjects: [{ key: 'gaff', name: 'Gaff' }] },
  'types/harbour.json': {
    key: 'harbour',
    address: '/harbours/{title}',
    fields: [{ key: 'title', kind: 'text' }],
  },
  'types/boat.json': {
    key: 'boat',
    address: '/boats/{title}',
    fields: [
      { key: 'title', kind: 'text' },
      { key: 'class', kind: 'choice', options: ['dinghy', 'smack'] },
      { key: 'rig', kind: 'tags', set: 'rigs' },
      { key: 'built', kind: 'date' },
      { key: 'harbour', kind: 'reference', types: ['harbour'] },
    ],
  },
  'listings/moored.json': {
    ...{ key: 'moored', type: 'boat' },
    where: { field: 'harbour', op: 'is', value: { page: 'entry' } },
  },
  'listings/alike.json': {
    ...{ key: 'alike', type: 'boat' },
    where: {
      all: [
        { field: 'class', op: 'is', value: { page: 'class' } },
        { field: 'rig', op: 'any-of', value: { page: 'rig' } },
      ],
    },
  },
  'listings/by-rig.json': {
    ...{ key: 'by-rig', label: 'By rig', type: 'boat', address: '/rigs', each: { by: 'rig' } },
    where: { field: 'class', op: 'is', value: 'smack' },
  },
  'listings/by-year.json': {
    ...{ key: 'by-year', label: 'By year', type: 'boat', address: '/years' },
    each: { by: 'built', per: 'year' },
  },
  'entries/harbour/old-quay.json': entry('old-quay', 'Old Quay', always),
  'entries/boat/heron.json': boat('heron', { class: 'smack', rig: ['gaff'], built: '1931-05-02' }),
};

type Here = { on?: string; each?: string };

/** What a new boat begins with that is to stand somewhere: its values by the keys of their fields. */
const beginning =
  ({ view }: TestSite) =>
  (listing: string, more: Here = {}): [string, Values] => {
    const found = newEntry(view, ANN, 'boat', NOW, { here: { listing, ...more } })!;
    const { fields } = found.type;
    const filled = fields.flatMap(({ id, key }) => {
      const value = found.values[id];
      return value === undefined || value === null ? [] : [[key, value] as const];
    });
    return [found.like!.name, Object.fromEntries(filled)];
  };

describe('what is added at a list begins with what makes it stand there', () => {
  test('on the page of an entry with which the list compares: as that has it', async () => {
    const begun = beginning(await loadFiles(HARBOUR));
    expect(begun('moored', { on: 'old-quay' })).toEqual(['Moored', { harbour: 'old-quay' }]);
    const [, alike] = begun('alike', { on: 'heron' });
    expect(alike).toEqual({ class: 'smack', rig: ['gaff'] });
  });

  test('on the page of a value: with that value, and what the list asks of all', async () => {
    const begun = beginning(await loadFiles(HARBOUR));
    expect(begun('by-rig', { each: 'gaff' })).toEqual([
      'By rig: Gaff',
      { class: 'smack', rig: ['gaff'] },
    ]);
    expect(begun('by-year', { each: '1931' })).toEqual(['By year: 1931', { built: '1931-01-01' }]);
  });

  test('without what is not there, or has no page', async () => {
    const begun = beginning(await loadFiles(HARBOUR));
    expect(begun('moored', { on: 'nobody' })).toEqual(['Moored', {}]);
    expect(begun('by-rig', { each: 'lug' })).toEqual(['By rig', { class: 'smack' }]);
    expect(begun('by-year', { each: 'x-y' })).toEqual(['By year', {}]);
  });
});
