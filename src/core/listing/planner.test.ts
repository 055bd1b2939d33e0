import { describe, expect, test } from 'vitest';
import { designOf, typeOf } from '../../../tests/helpers/design.ts';
import { OPERATORS, listingSpec } from '../design/listing-spec.ts';
import { OPERATORS_OF, OPERATOR_WORDS } from './operators.ts';
import { BEGINNING } from '../time/interval.ts';
import { conditionsOf } from './plan.ts';
import { planListing } from './planner.ts';

const design = designOf({
  types: [
    typeOf('seed', [
      { key: 'stock', kind: 'number' },
      { key: 'shade', kind: 'yesno' },
      { key: 'sow', kind: 'date' },
      { key: 'opens', kind: 'datetime' },
      { key: 'ease', kind: 'choice', options: ['easy', 'hard'] },
      { key: 'traits', kind: 'tags', set: 'traits' },
      { key: 'story', kind: 'richtext' },
      { key: 'names', kind: 'text', many: true },
    ]),
  ],
  subjectSets: [{ key: 'traits', kind: 'tags' }],
});
const plan = (parts: object) =>
  planListing(listingSpec.parse({ key: 'l', type: 'seed', ...parts }), design);
const issue = (parts: object) => plan(parts).issues[0];

describe('a condition', () => {
  test.each([
    ['title', 'contains', 'Pea', { kind: 'scalar', value: 'pea' }],
    ['stock', 'more-than', 0, { kind: 'scalar', value: 0 }],
    ['shade', 'is', 'yes', { kind: 'scalar', value: true }],
    ['shade', 'is', false, { kind: 'scalar', value: false }],
    ['sow', 'before', '2026-03-01', { kind: 'day', day: '2026-03-01' }],
    ['sow', 'is', 'today + 3', { kind: 'relative', value: { today: 3 } }],
    ['opens', 'after', 'now - PT2H', { kind: 'relative', value: { now: -7_200_000 } }],
    [
      'opens',
      'is',
      '2026-03-01T08:00',
      { kind: 'instant', instant: Date.parse('2026-03-01T08:00Z') },
    ],
    ['ease', 'any-of', ['easy', 'hard'], { kind: 'keys', keys: ['easy', 'hard'] }],
    ['traits', 'is', 'tall', { kind: 'keys', keys: ['tall'] }],
    ['story', 'not-blank', undefined, { kind: 'none' }],
    ['names', 'blank', undefined, { kind: 'none' }],
    ['entry.published', 'after', 'today - 7', { kind: 'relative', value: { today: -7 } }],
  ])('%s %s %j is understood', (field, op, value, operand) => {
    const { plan: made, issues } = plan({ where: { field, op, value } });
    expect(issues).toEqual([]);
    expect(conditionsOf(made!.filter)).toMatchObject([{ operand }]);
  });

  test.each([
    ['titel', 'is', 'x', 'unknown-field', 'where/field'],
    ['stock', 'contains', 1, 'wrong-operator', 'where/op'],
    ['names', 'is', 'x', 'wrong-operator', 'where/op'],
    ['story', 'contains', 'x', 'wrong-operator', 'where/op'],
    ['stock', 'is', 'many', 'wrong-value', 'where/value'],
    ['stock', 'is', undefined, 'value-missing', 'where/value'],
    ['title', 'is', '', 'value-missing', 'where/value'],
    ['title', 'is', ['a', 'b'], 'value-missing', 'where/value'],
    ['shade', 'is', 'maybe', 'wrong-value', 'where/value'],
    ['sow', 'is', '2026-02-30', 'wrong-value', 'where/value'],
    ['sow', 'before', 'now - PT2H', 'wrong-value', 'where/value'],
    ['sow', 'before', 'today + 36501', 'wrong-value', 'where/value'],
    ['opens', 'before', 'now + P200Y', 'wrong-value', 'where/value'],
    ['ease', 'is', 'easier', 'wrong-value', 'where/value'],
    ['ease', 'any-of', [], 'value-missing', 'where/value'],
    ['traits', 'all-of', undefined, 'value-missing', 'where/value'],
    ['story', 'blank', 'x', 'value-not-wanted', 'where/value'],
    ['sow', 'on-this-day', 'today', 'value-not-wanted', 'where/value'],
    ['stock', 'between', [1], 'value-missing', 'where/value'],
    ['stock', 'between', [1, 'many'], 'wrong-value', 'where/value'],
    ['stock', 'any-of', [], 'value-missing', 'where/value'],
    ['sow', 'within-last', 'a while', 'wrong-value', 'where/value'],
    ['sow', 'within-last', '0 days', 'wrong-value', 'where/value'],
    ['sow', 'within-next', '36 hours', 'wrong-value', 'where/value'],
    ['opens', 'within-next', '36501 days', 'wrong-value', 'where/value'],
    ['sow', 'this', 'decade', 'wrong-value', 'where/value'],
  ])('%s %s %j is refused: %s at %s', (field, op, value, code, path) => {
    expect(issue({ where: { field, op, value } })).toMatchObject({ code, path });
  });

  test('of a field misspelt says which was meant', () => {
    expect(issue({ where: { field: 'stok', op: 'is', value: 1 } })).toMatchObject({
      fix: 'Did you mean "stock"?',
      replacement: 'stock',
    });
  });

  test('deep in groups is named by its place', () => {
    const where = { any: [{ none: [{ field: 'x', op: 'blank' }] }] };
    expect(issue({ where })!.path).toBe('where/any/1/none/1/field');
  });
});

describe('groups', () => {
  const blank = { field: 'title', op: 'blank' };

  test('are read in the order they are written', () => {
    const where = { all: [blank, { any: [{ field: 'stock', op: 'blank' }, blank] }] };
    expect(conditionsOf(plan({ where }).plan!.filter).map((c) => c.column.name)).toEqual([
      'title',
      'stock',
      'title',
    ]);
  });

  test('hold at most 500 conditions', () => {
    const all = (n: number) => ({ where: { all: Array.from({ length: n }, () => blank) } });
    expect(plan(all(500)).issues).toEqual([]);
    expect(issue(all(501))).toMatchObject({ code: 'too-many-conditions', path: 'where' });
  });
});

describe('an order', () => {
  test('has a direction and a place for blanks', () => {
    const { plan: made } = plan({ sort: ['-stock', { field: 'sow', blanks: 'first' }] });
    expect(made!.sort.map(({ descending, blanks }) => [descending, blanks])).toEqual([
      [true, 'last'],
      [false, 'first'],
    ]);
  });

  test.each(['traits', 'story', 'names'])('by %s, which has none, is refused', (field) => {
    expect(issue({ sort: [field] })).toMatchObject({ code: 'not-sortable', path: 'sort/1' });
  });

  test('by a field that is not there is refused', () => {
    expect(issue({ sort: ['title', 'x'] })).toMatchObject({
      code: 'unknown-field',
      path: 'sort/2/field',
    });
  });

  test('has at most 8 keys', () => {
    const sort = Array.from({ length: 9 }, () => 'title');
    expect(listingSpec.safeParse({ key: 'l', type: 'seed', sort }).success).toBe(false);
  });
});

describe('a listing', () => {
  test('of a type that is not there says which was meant', () => {
    expect(issue({ type: 'sead' })).toMatchObject({ path: 'type', fix: 'Did you mean "seed"?' });
  });

  test.each([0, 501, 1.5, 'ten'])('of %s to a page is refused', (pageSize) => {
    expect(listingSpec.safeParse({ key: 'l', type: 'seed', pageSize }).success).toBe(false);
  });

  test.each(['all', '/All', '/a b', '/a/', '//a', ''])('at "%s" is refused', (address) => {
    expect(listingSpec.safeParse({ key: 'l', type: 'seed', address }).success).toBe(false);
  });
});

test('every operator has words, and some family that takes it', () => {
  for (const op of OPERATORS) {
    expect(OPERATOR_WORDS[op]).toMatch(/^[a-z]/);
    expect(Object.values(OPERATORS_OF).some((ops) => ops.includes(op))).toBe(true);
  }
});

describe('entries that stand first', () => {
  test('do so over a stretch of time, in the zone of the site, or always', () => {
    const planned = plan({ pins: ['a', { entry: 'b', from: '2026-03-01T08:00' }] });
    expect(planned.plan!.pins).toEqual([
      { entry: 'a', from: BEGINNING, to: null },
      { entry: 'b', from: Date.parse('2026-03-01T08:00:00Z'), to: null },
    ]);
  });

  test.each([
    [{ entry: 'a', from: 'soon' }, 'wrong-value', 'pins/1/from'],
    [{ entry: 'a', to: '2026-02-31' }, 'wrong-value', 'pins/1/to'],
    [{ entry: 'a', from: '2026-03-01', to: '2026-03-01' }, 'empty-stretch', 'pins/1/to'],
  ])('%j is refused', (pin, code, path) => {
    expect(plan({ pins: [pin] })).toMatchObject({ plan: null, issues: [{ code, path }] });
  });
});
