import { describe, expect, test } from 'vitest';
import { designSpec } from '../design/spec.ts';
import { type FilterSpec, listingSpec } from '../design/listing-spec.ts';
import { evaluateListing } from './evaluate.ts';
import { planListing } from './planner.ts';
import { EMPTY_WORLD } from './resolve.ts';
import { standingValues } from './standing-values.ts';

const AT = Date.parse('2026-07-01T12:00:00Z');
const design = designSpec.parse({
  site: { name: 'S', url: 'https://s.example', zone: 'Europe/Dublin', language: 'en' },
  subjectSets: [{ key: 'traits', kind: 'tags' }],
  types: [
    {
      key: 'seed',
      fields: [
        { key: 'title', kind: 'text' },
        { key: 'stock', kind: 'number' },
        { key: 'shade', kind: 'yesno' },
        { key: 'sow', kind: 'date' },
        { key: 'opens', kind: 'datetime' },
        { key: 'ease', kind: 'choice', options: ['easy', 'hard'] },
        { key: 'traits', kind: 'tags', set: 'traits' },
        { key: 'friend', kind: 'reference', types: ['seed'] },
        { key: 'friends', kind: 'reference', types: ['seed'], many: true },
      ],
    },
  ],
});
const world = { ...EMPTY_WORLD, isLive: () => true, row: () => null };

function filled(where: FilterSpec): { values: Record<string, unknown>; stands: boolean } {
  const listing = listingSpec.parse({ key: 'l', type: 'seed', where });
  const plan = planListing(listing, design).plan!;
  const values = standingValues(plan, AT, world);
  const at = { created: AT, published: AT, updated: AT, from: AT, to: null };
  const rows = [{ entry: 'new', type: plan.type.id, ...at, values }];
  return { values, stands: evaluateListing(plan, rows, AT, world, world).length === 1 };
}

describe('a new entry made where a listing stands', () => {
  test.each([
    ['title', 'is', 'Pea', 'Pea'],
    ['title', 'starts-with', 'Pe', 'Pe'],
    ['stock', 'more-than', 0, 1],
    ['stock', 'less-than', 5, 4],
    ['stock', 'at-least', 2, 2],
    ['shade', 'is', 'no', false],
    ['sow', 'on-or-before', 'today', '2026-07-01'],
    ['sow', 'before', 'today', '2026-06-30'],
    ['sow', 'after', 'today + 2', '2026-07-04'],
    ['opens', 'after', 'now', AT + 3_600_000],
    ['opens', 'is', 'today', Date.parse('2026-06-30T23:00:00Z')],
    ['opens', 'after', '2026-07-01', Date.parse('2026-07-01T23:00:00Z')],
    ['ease', 'any-of', ['hard', 'easy'], 'hard'],
    ['traits', 'all-of', ['tall', 'early'], ['tall', 'early']],
    ['traits', 'is', 'tall', ['tall']],
    ['friend', 'is', 'pea', 'pea'],
    ['friends', 'any-of', ['pea', 'bean'], ['pea']],
  ] as const)('%s %s %j has it as %j, and so stands in it', (field, op, value, expected) => {
    const { values, stands } = filled({ field, op, value } as FilterSpec);
    expect(values).toEqual({ [field]: expected });
    expect(stands).toBe(true);
  });

  test('passes two conditions on one field, and the first of alternatives', () => {
    const { values, stands } = filled({
      all: [
        { field: 'stock', op: 'less-than', value: 100 },
        { field: 'stock', op: 'less-than', value: 5 },
        {
          any: [
            { field: 'shade', op: 'is', value: true },
            { field: 'ease', op: 'is', value: 'easy' },
          ],
        },
        { none: [{ field: 'title', op: 'is', value: 'Bean' }] },
      ],
    });
    expect(values).toEqual({ stock: 4, shade: true });
    expect(stands).toBe(true);
  });

  test('has nothing for what cannot be made up', () => {
    expect(filled({ field: 'title', op: 'not-blank' }).values).toEqual({});
    expect(filled({ field: 'ease', op: 'none-of', value: ['hard'] }).values).toEqual({});
  });
});
