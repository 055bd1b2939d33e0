import { describe, expect, test } from 'vitest';
import { type Listing, listingSpec } from '@/core/design/listing-spec.ts';
import { planListing } from '@/core/listing/planner.ts';
import { Validity } from '@/core/time/interval.ts';
import { type Files, at, loadFiles } from '../helpers/folder.ts';

const FILES: Files = {
  'subjects/family.json': {
    key: 'family',
    kind: 'tree',
    subjects: [
      { key: 'legumes', name: 'Legumes', below: [{ key: 'beans', name: 'Beans' }] },
      { key: 'roots', name: 'Roots' },
    ],
  },
  'subjects/traits.json': {
    key: 'traits',
    kind: 'tags',
    subjects: [
      { key: 'tall', name: 'Tall' },
      { key: 'early', name: 'Early' },
    ],
  },
  'types/grower.json': { key: 'grower', fields: [{ key: 'name', kind: 'text' }] },
  'types/seed.json': {
    key: 'seed',
    fields: [
      { key: 'title', kind: 'text' },
      { key: 'stock', kind: 'number' },
      { key: 'sow', kind: 'date' },
      { key: 'starts', kind: 'datetime' },
      { key: 'ease', kind: 'choice', options: ['hard', 'easy', 'middling'] },
      { key: 'family', kind: 'category', set: 'family' },
      { key: 'traits', kind: 'tags', set: 'traits' },
      { key: 'grower', kind: 'reference', types: ['grower'] },
      { key: 'shade', kind: 'yesno' },
    ],
  },
  'entries/grower/g.json': { entry: { id: 'g', live: ['2026-01-01/2026-05-01'] }, name: 'Edda' },
  // In Dublin, 23:30Z of 9 May is half past midnight of 10 May.
  'entries/seed.json': [
    {
      entry: { id: 'a', created: '2026-01-03', live: '2026-01-01' },
      title: 'Élan',
      stock: 10,
      sow: '2026-05-10',
      starts: '2026-05-09T23:30:00Z',
      ease: 'easy',
      family: 'beans',
      traits: ['tall', 'early'],
      grower: 'g',
      shade: true,
    },
    {
      entry: { id: 'b', created: '2026-01-02', live: '2026-01-01' },
      title: 'elan',
      stock: 9,
      sow: '2026-05-11',
      starts: '2026-05-10T22:59:59.999Z',
      ease: 'hard',
      family: 'roots',
      traits: ['tall'],
      shade: false,
    },
    {
      entry: { id: 'c', created: '2026-01-01', live: '2026-01-01' },
      title: 'Zebra',
      stock: 0,
      ease: 'middling',
      family: 'legumes',
    },
    { entry: { id: 'd', created: '2026-01-01', live: '2026-01-01' } },
    { entry: { id: 'e', created: '2026-01-01', live: ['2026-01-01/2026-02-01'] }, title: 'Gone' },
  ],
};

async function ids(spec: object, instant = '2026-05-10T12:00:00Z'): Promise<string> {
  const { view } = await loadFiles(FILES);
  const { site, reader } = view.at(at(instant))!;
  const { plan, issues } = planListing(
    listingSpec.parse({ key: 'probe', type: 'seed', ...spec }) as Listing,
    site.design,
  );
  expect(issues).toEqual([]);
  return reader.listing(plan!, new Validity(at(instant)), 0, 50).ids.join(' ');
}

describe('conditions', () => {
  test.each([
    ['live only', undefined, 'c d b a'],
    ['text ignores case', { field: 'title', op: 'is', value: 'ELAN' }, 'b'],
    ['text respects accents', { field: 'title', op: 'contains', value: 'él' }, 'a'],
    ['is not holds for blank', { field: 'title', op: 'is-not', value: 'elan' }, 'c d a'],
    ['numbers compare as numbers', { field: 'stock', op: 'more-than', value: 9 }, 'a'],
    ['zero is not blank', { field: 'stock', op: 'blank' }, 'd'],
    ['at most fails for blank', { field: 'stock', op: 'at-most', value: 9 }, 'c b'],
    ['no is not blank', { field: 'shade', op: 'is', value: false }, 'b'],
    ['today is the zone’s day', { field: 'sow', op: 'is', value: 'today' }, 'a'],
    ['today ± days', { field: 'sow', op: 'on-or-after', value: 'today + 1' }, 'b'],
    [
      'a date-time on a day: by its calendar day in the zone',
      { field: 'starts', op: 'is', value: '2026-05-10' },
      'b a',
    ],
    ['a date-time after today', { field: 'starts', op: 'after', value: 'today' }, ''],
    ['now ± duration is exact', { field: 'starts', op: 'before', value: 'now - PT12H30M' }, ''],
    [
      'now ± duration, one millisecond on',
      { field: 'starts', op: 'on-or-before', value: 'now - PT12H30M' },
      'a',
    ],
    ['a category includes all below', { field: 'family', op: 'is', value: 'legumes' }, 'c a'],
    [
      'a category below does not include the one above',
      { field: 'family', op: 'any-of', value: ['beans', 'roots'] },
      'b a',
    ],
    ['none of holds for blank', { field: 'family', op: 'none-of', value: ['legumes'] }, 'd b'],
    ['all of', { field: 'traits', op: 'all-of', value: ['tall', 'early'] }, 'a'],
    ['a reference that is not live is blank', { field: 'grower', op: 'not-blank' }, ''],
    [
      'none of a group',
      {
        none: [
          { field: 'stock', op: 'more-than', value: 5 },
          { field: 'title', op: 'blank' },
        ],
      },
      'c',
    ],
    ['an empty any lets nobody in', { any: [] }, ''],
    ['any of some numbers', { field: 'stock', op: 'any-of', value: [0, 10] }, 'c a'],
    ['none of some numbers: blank, too', { field: 'stock', op: 'none-of', value: [0, 10] }, 'd b'],
    ['any of some texts', { field: 'title', op: 'any-of', value: ['ZEBRA', 'ELAN'] }, 'c b'],
    ['a word', { field: 'title', op: 'has-word', value: 'elan' }, 'b'],
    ['a word is no part of one', { field: 'title', op: 'has-word', value: 'zeb' }, ''],
    ['between, both ends', { field: 'stock', op: 'between', value: [9, 10] }, 'b a'],
    ['dates between', { field: 'sow', op: 'between', value: ['today', '2026-05-10'] }, 'a'],
    ['within the last days', { field: 'sow', op: 'within-last', value: '1 day' }, 'a'],
    ['within the next days', { field: 'sow', op: 'within-next', value: 'P1D' }, 'b a'],
    ['within the last hours', { field: 'starts', op: 'within-last', value: 'PT12H30M' }, 'a'],
    ['hours are exact', { field: 'starts', op: 'within-last', value: '12 hours' }, ''],
    ['within the next hours', { field: 'starts', op: 'within-next', value: '11 hours' }, 'b'],
    ['this week, from Monday', { field: 'sow', op: 'this', value: 'week' }, 'a'],
    ['this month', { field: 'sow', op: 'this', value: 'month' }, 'b a'],
    ['on this day, in the zone', { field: 'starts', op: 'on-this-day' }, 'b a'],
  ])('%s', async (_, where, expected) => {
    expect(await ids(where === undefined ? {} : { where })).toBe(expected);
  });

  test('a reference counts while its entry is live, to the instant', async () => {
    const where = { field: 'grower', op: 'is', value: 'g' };
    expect(await ids({ where }, '2026-04-30T22:59:59.999Z')).toBe('a');
    expect(await ids({ where }, '2026-04-30T23:00:00Z')).toBe('');
  });
});

describe('orders', () => {
  test.each([
    ['text without accents and case, then accents', ['title'], 'b a c d'],
    ['descending turns the values, and blanks stay last', ['-title'], 'c a b d'],
    [
      'blanks first is absolute',
      [{ field: 'stock', direction: 'descending', blanks: 'first' }],
      'd a b c',
    ],
    ['numbers, not texts', ['stock'], 'c b a d'],
    ['a choice by the order of its options', ['ease'], 'b a c d'],
  ])('%s', async (_, sort, expected) => {
    expect(await ids({ sort })).toBe(expected);
  });

  test('what has no order of its own cannot be sorted by', async () => {
    const { view } = await loadFiles(FILES);
    const { issues } = planListing(
      listingSpec.parse({ key: 'probe', type: 'seed', sort: ['family'] }),
      view.at(at('2026-05-10'))!.site.design,
    );
    expect(issues).toMatchObject([{ code: 'not-sortable', path: 'sort/1' }]);
  });

  test('entry.created orders by created, then id', async () => {
    expect(await ids({ sort: ['-entry.created'] })).toBe('a b c d');
  });
});

test('keys that differ in case alone, or look like names of the store, are kept apart', async () => {
  const type = (key: string): object => ({
    key,
    fields: [
      { key: 'sowFrom', kind: 'number' },
      { key: 'sowfrom', kind: 'number' },
      { key: 'traits', kind: 'choice', many: true, options: ['a', 'ab'] },
    ],
  });
  const keys = ['note', 'noTe', 'entry_note', 'members', 'starts'];
  const files: Files = {};
  for (const key of keys) {
    files[`types/${key}.json`] = type(key);
    files[`listings/${key}.json`] = {
      key,
      type: key,
      where: { field: 'traits', op: 'is', value: 'a' },
      sort: ['sowFrom', 'sowfrom'],
    };
    files[`entries/${key}/x.json`] = {
      entry: { id: `${key}-1`, live: '2026-01-01' },
      sowFrom: 2,
      sowfrom: 1,
      traits: ['a'],
    };
    files[`entries/${key}/y.json`] = {
      entry: { id: `${key}-2`, live: '2026-01-01' },
      sowFrom: 1,
      sowfrom: 2,
      traits: ['a', 'ab'],
    };
  }
  const { view, result } = await loadFiles(files);
  expect(result).toMatchObject({ ok: true });
  const { site, reader } = view.at(at('2026-06-01'))!;
  for (const key of keys)
    expect(
      reader.listing(site.listings.get(key)!, new Validity(at('2026-06-01')), 0, 9).ids,
    ).toEqual([`${key}-2`, `${key}-1`]);
});
