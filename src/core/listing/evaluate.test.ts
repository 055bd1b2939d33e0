import fc from 'fast-check';
import { describe, expect, test } from 'vitest';
import { designOf, typeOf } from '../../../tests/helpers/design.ts';
import { type FilterSpec, listingSpec } from '../design/listing-spec.ts';
import type { Values } from '../design/values.ts';
import type { ListingRow } from './columns.ts';
import { evaluateListing, holds } from './evaluate.ts';
import { orderAt, totalOrder } from './order.ts';
import { failedConditions } from './explain.ts';
import { planListing } from './planner.ts';
import { EMPTY_WORLD, resolveFilter } from './resolve.ts';

const AT = Date.parse('2026-07-01T22:30:00Z'); // 23:30 in Dublin
const design = designOf({
  types: [
    typeOf('seed', [
      { key: 'stock', kind: 'number' },
      { key: 'shade', kind: 'yesno' },
      { key: 'sow', kind: 'date' },
      { key: 'opens', kind: 'datetime' },
      { key: 'ease', kind: 'choice', options: ['hard', 'easy'] },
      { key: 'traits', kind: 'tags', set: 'traits' },
      { key: 'family', kind: 'category', set: 'family' },
      { key: 'friend', kind: 'reference', types: ['seed'] },
    ]),
  ],
  subjectSets: [
    { key: 'traits', kind: 'tags' },
    { key: 'family', kind: 'tree' },
  ],
});
const TYPE = design.types[0]!.id;
const world = {
  ...EMPTY_WORLD,
  keysWithin: (_: string, key: string) => (key === 'legumes' ? ['legumes', 'peas'] : [key]),
  isLive: (id: string) => id !== 'away',
  row: () => null,
};

function planOf(where: FilterSpec | undefined, sort: unknown[] = []) {
  const { plan, issues } = planListing(
    listingSpec.parse({ key: 'l', type: 'seed', where, sort }),
    design,
  );
  expect(issues).toEqual([]);
  return plan!;
}

function row(values: Values, more: Partial<ListingRow> = {}): ListingRow {
  const [from, entry] = [1000, 'x'];
  const times = { created: 0, published: from, updated: from, from, to: null };
  return { entry, type: TYPE, ...times, values, ...more };
}

function passes(where: FilterSpec, values: Values): boolean {
  return evaluateListing(planOf(where), [row(values)], AT, world, world).length === 1;
}

describe('comparisons', () => {
  test.each([
    ['title', 'is', 'PEA', 'pea', true],
    ['title', 'is', 'Péa', 'pea', false],
    ['title', 'contains', 'E', 'Pea', true],
    ['title', 'starts-with', 'pe', 'Pea', true],
    ['title', 'starts-with', 'ea', 'Pea', false],
    ['stock', 'at-most', 3, 3, true],
    ['stock', 'less-than', 3, 3, false],
    ['stock', 'more-than', 3, 10, true],
    ['stock', 'at-least', 3, 2, false],
    ['shade', 'is', true, false, false],
    ['shade', 'is-not', true, false, true],
    ['sow', 'on-or-before', 'today', '2026-07-01', true],
    ['sow', 'before', 'today', '2026-07-01', false],
    ['sow', 'after', 'today + 2', '2026-07-04', true],
    ['opens', 'is', 'today', Date.parse('2026-07-01T22:59:59.999Z'), true],
    ['opens', 'is', 'today', Date.parse('2026-07-01T23:00:00Z'), false],
    ['opens', 'on-or-before', '2026-07-01', Date.parse('2026-07-01T22:59:59.999Z'), true],
    ['opens', 'after', '2026-07-01', Date.parse('2026-07-01T23:00:00Z'), true],
    ['opens', 'before', 'now + PT1H', AT + 3_599_999, true],
    ['opens', 'before', 'now + PT1H', AT + 3_600_000, false],
    ['opens', 'on-or-before', 'now + PT1H', AT + 3_600_000, true],
    ['ease', 'any-of', ['hard'], 'hard', true],
    ['ease', 'none-of', ['hard'], 'hard', false],
    ['traits', 'all-of', ['tall', 'early'], ['early', 'tall'], true],
    ['traits', 'all-of', ['tall', 'early'], ['tall'], false],
    ['traits', 'any-of', ['tall', 'early'], ['tall'], true],
    ['family', 'is', 'legumes', 'peas', true],
    ['family', 'is', 'peas', 'legumes', false],
    ['family', 'none-of', ['legumes'], 'peas', false],
    ['friend', 'is', 'here', 'here', true],
    ['friend', 'is', 'away', 'away', false],
    ['friend', 'blank', undefined, 'away', true],
    ['friend', 'not-blank', undefined, 'here', true],
  ] as const)('%s %s %j: %j gives %s', (field, op, value, own, expected) => {
    const given = value === undefined ? { field, op } : { field, op, value };
    expect(passes(given as FilterSpec, { [field]: own })).toBe(expected);
  });

  test.each([
    ['title', 'x'],
    ['stock', 1],
    ['shade', true],
    ['sow', 'today'],
    ['opens', 'today'],
    ['ease', 'hard'],
    ['traits', 'tall'],
    ['family', 'peas'],
    ['friend', 'here'],
  ])('with a blank %s only "is not" and "is blank" hold', (field, value) => {
    expect(passes({ field, op: 'is', value } as FilterSpec, {})).toBe(false);
    expect(passes({ field, op: 'is-not', value } as FilterSpec, {})).toBe(true);
    expect(passes({ field, op: 'blank' } as FilterSpec, {})).toBe(true);
    expect(passes({ field, op: 'not-blank' } as FilterSpec, {})).toBe(false);
    expect(passes({ field, op: 'blank' } as FilterSpec, { [field]: '' })).toBe(true);
  });

  test('white space alone is blank', () => {
    expect(passes({ field: 'title', op: 'blank' }, { title: ' \t' })).toBe(true);
  });
});

describe('groups', () => {
  const yes = { field: 'title', op: 'blank' } as const;
  const no = { field: 'title', op: 'not-blank' } as const;
  test.each<[string, FilterSpec, boolean]>([
    ['all of nothing', { all: [] }, true],
    ['any of nothing', { any: [] }, false],
    ['none of nothing', { none: [] }, true],
    ['all of both', { all: [yes, no] }, false],
    ['any of both', { any: [no, yes] }, true],
    ['none of both', { none: [no, yes] }, false],
    ['none of what fails', { none: [no, { all: [yes, no] }] }, true],
  ])('%s', (_, where, expected) => {
    expect(passes(where, {})).toBe(expected);
  });
});

describe('order', () => {
  const sorted = (sort: unknown[], rows: Partial<ListingRow>[]): string[] =>
    evaluateListing(
      planOf(undefined, sort),
      rows.map((r) => row(r.values ?? {}, r)),
      AT,
      world,
      world,
    );
  const of = (entry: string, values: Values, created = 0): Partial<ListingRow> => ({
    entry,
    values,
    created,
  });

  test('ends with created, then id', () => {
    expect(sorted([], [of('b', {}, 5), of('c', {}, 1), of('a', {}, 5)])).toEqual(['c', 'a', 'b']);
  });

  test.each([
    ['stock', ['one', 'ten', 'none']],
    ['-stock', ['ten', 'one', 'none']],
    [{ field: 'stock', blanks: 'first' }, ['none', 'one', 'ten']],
    [{ field: 'stock', direction: 'descending', blanks: 'first' }, ['none', 'ten', 'one']],
  ])('by %j puts blanks where it says, whatever the direction', (key, expected) => {
    const rows = [of('ten', { stock: 10 }), of('none', {}), of('one', { stock: 1 })];
    expect(sorted([key], rows)).toEqual(expected);
  });

  test('of choices is that of their options', () => {
    expect(sorted(['ease'], [of('a', { ease: 'easy' }), of('b', { ease: 'hard' })])).toEqual([
      'b',
      'a',
    ]);
  });

  test('is total: swapping two rows swaps the answer, and nothing but itself is equal', () => {
    const rows = fc.record({
      entry: fc.constantFrom('a', 'b', 'c'),
      created: fc.integer({ min: 0, max: 1 }),
      values: fc.record({ stock: fc.option(fc.integer({ min: 0, max: 1 })) }),
    });
    const plan = planOf(undefined, ['-stock']);
    const order = totalOrder(plan, orderAt(plan, AT, world));
    fc.assert(
      fc.property(rows, rows, (a, b) => {
        const [x, y] = [row(a.values, a), row(b.values, b)];
        expect(Math.sign(order(x, y))).toBe(-Math.sign(order(y, x)) + 0);
        if (order(x, y) === 0) expect([x.entry, x.created]).toEqual([y.entry, y.created]);
      }),
    );
  });
});

describe('what is out', () => {
  test('is what does not run at the instant', () => {
    const rows = [
      row({}, { entry: 'ended', from: 0, to: AT }),
      row({}, { entry: 'starts', from: AT, to: AT + 1 }),
      row({}, { entry: 'ahead', from: AT + 1 }),
    ];
    expect(evaluateListing(planOf(undefined), rows, AT, world, world)).toEqual(['starts']);
  });

  const why = (where: FilterSpec, values: Values): string[] => {
    const filter = resolveFilter(planOf(where).filter, AT, 'Europe/Dublin', world);
    return failedConditions(filter, row(values), world).map((c) => c.column.name);
  };

  test('is explained by the conditions that keep it out, and those only', () => {
    const where: FilterSpec = {
      all: [
        { field: 'stock', op: 'more-than', value: 0 },
        {
          any: [
            { field: 'sow', op: 'not-blank' },
            { field: 'shade', op: 'is', value: true },
          ],
        },
        { none: [{ field: 'title', op: 'is', value: 'pea' }] },
      ],
    };
    expect(why(where, { stock: 1, shade: true, title: 'Bean' })).toEqual([]);
    expect(why(where, { stock: 0, shade: true })).toEqual(['stock']);
    expect(why(where, { stock: 1 })).toEqual(['sow', 'shade']);
    expect(why(where, { stock: 0, sow: '2026-01-01', title: 'Pea' })).toEqual(['stock', 'title']);
  });

  test('always has a reason, and what is in never has one', () => {
    const leaf = fc.constantFrom<FilterSpec>(
      { field: 'stock', op: 'more-than', value: 0 },
      { field: 'shade', op: 'is', value: true },
      { field: 'title', op: 'blank' },
    );
    const filters = fc.letrec<{ filter: FilterSpec }>((tie) => ({
      filter: fc.oneof(
        { maxDepth: 3 },
        leaf,
        fc.record({ all: fc.array(tie('filter'), { minLength: 1, maxLength: 3 }) }),
        fc.record({ any: fc.array(tie('filter'), { minLength: 1, maxLength: 3 }) }),
        fc.record({ none: fc.array(tie('filter'), { minLength: 1, maxLength: 3 }) }),
      ),
    })).filter;
    const values = fc.record({
      stock: fc.constantFrom(null, 0, 1),
      shade: fc.constantFrom(null, true, false),
      title: fc.constantFrom('', 'Pea'),
    });
    fc.assert(
      fc.property(filters, values, (where, own) => {
        const filter = resolveFilter(planOf(where).filter, AT, 'Europe/Dublin', world);
        const isIn = holds(filter, row(own), world);
        expect(why(where, own).length === 0).toBe(isIn);
      }),
    );
  });
});
