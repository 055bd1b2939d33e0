import fc from 'fast-check';
import { expect, test } from 'vitest';
import { designOf } from '../../../tests/helpers/design.ts';
import { listingSpec } from '../design/listing-spec.ts';
import { type ListingRow, columnsOf } from './columns.ts';
import { evaluateListing } from './evaluate.ts';
import { planListing } from './planner.ts';
import { sharedConditions } from './propose.ts';
import { EMPTY_WORLD } from './resolve.ts';

const design = designOf({
  subjectSets: [{ key: 'family', kind: 'tree' }],
  types: [
    {
      key: 'seed',
      fields: [
        { key: 'title', kind: 'text' },
        { key: 'stock', kind: 'number' },
        { key: 'sow', kind: 'date' },
        { key: 'shade', kind: 'yesno' },
        { key: 'ease', kind: 'choice', options: ['easy', 'hard'] },
        { key: 'family', kind: 'category', set: 'family' },
      ],
    },
  ],
});
const type = design.types[0]!;
const AT = 1000;
const around = (_: string, key: string): string[] => [key, 'legumes'];
const world = {
  ...EMPTY_WORLD,
  keysWithin: (_: string, key: string) =>
    key === 'legumes' ? ['legumes', 'peas', 'beans'] : [key],
};
const row = (entry: string, values: Record<string, unknown>): ListingRow => ({
  ...{ entry, type: type.id, created: 0, published: 0, updated: 0, from: 0, to: null },
  values: Object.fromEntries(
    Object.entries(values).map(([key, value]) => {
      const field = type.fields.find((f) => f.key === key)!;
      const option = field.options?.find((o) => o.key === value);
      return [field.id, option?.id ?? value];
    }),
  ),
});
const proposed = (...rows: ListingRow[]) =>
  sharedConditions(columnsOf(type).values(), rows, around).map(({ field, op, value }) => [
    ...[field, op, value],
  ]);

test('what entries have in common becomes conditions, as narrow as one says it', () => {
  const pea = row('a', {
    title: 'Pea',
    stock: 3,
    sow: '2026-03-01',
    shade: true,
    ease: 'easy',
    family: 'peas',
  });
  const bean = row('b', {
    title: 'Bean',
    stock: 9,
    sow: '2026-03-01',
    shade: true,
    ease: 'hard',
    family: 'beans',
  });
  expect(proposed(pea, bean)).toEqual([
    ['stock', 'between', [3, 9]],
    ['sow', 'is', '2026-03-01'],
    ['shade', 'is', true],
    ['ease', 'any-of', ['easy', 'hard']],
    ['family', 'is', 'legumes'],
  ]);
  expect(proposed(pea, row('c', { title: 'Pea' }))).toEqual([['title', 'is', 'Pea']]);
  expect(proposed()).toEqual([]);
});

test('every condition that is proposed lets all of them in', () => {
  const values = fc.record(
    {
      title: fc.constantFrom('Pea', 'PEA', 'Bean'),
      stock: fc.integer({ min: 0, max: 3 }),
      sow: fc.constantFrom('2026-03-01', '2026-04-01'),
      shade: fc.boolean(),
      ease: fc.constantFrom('easy', 'hard'),
      family: fc.constantFrom('peas', 'beans'),
    },
    { requiredKeys: [] },
  );
  let asked = 0;
  fc.assert(
    fc.property(fc.array(values, { minLength: 1, maxLength: 4 }), (all) => {
      const rows = all.map((own, i) => row(`e${i}`, own));
      for (const where of sharedConditions(columnsOf(type).values(), rows, around)) {
        const listing = listingSpec.parse({ key: 'l', type: 'seed', where });
        const { plan, issues } = planListing(listing, design);
        expect(issues).toEqual([]);
        const others = { isLive: () => true, row: () => null };
        expect(evaluateListing(plan!, rows, AT, world, others)).toHaveLength(rows.length);
        asked += 1;
      }
    }),
  );
  expect(asked).toBeGreaterThan(50);
});
