import fc from 'fast-check';
import type { FilterSpec, Operator } from '@/core/design/listing-spec.ts';
import { OPERATORS_OF } from '@/core/listing/operators.ts';
import { day } from './random-site.ts';

type Value = string | number | boolean | (string | number)[];

const VALUES: Record<string, fc.Arbitrary<Value>> = {
  title: fc.constantFrom('pea', 'PEA', 'ea', 'Zebra', 'é'),
  stock: fc.integer({ min: 0, max: 3 }),
  sow: fc.oneof(
    day.map((d) => d.slice(0, 10)),
    fc.constantFrom('today', 'today - 40', 'today + 31'),
  ),
  starts: fc.oneof(
    day,
    day.map((d) => d.slice(0, 10)),
    fc.constantFrom('today', 'now', 'now - PT36H', 'now + P20D', 'today + 3'),
  ),
  'entry.published': fc.oneof(day, fc.constantFrom('today - 30', 'now - P10D')),
  'entry.shownDate': fc.oneof(day, fc.constantFrom('today - 30', 'now - P10D')),
  shade: fc.boolean(),
  ease: fc.constantFrom('easy', ['easy', 'hard']),
  traits: fc.constantFrom('tall', ['tall', 'early']),
  family: fc.constantFrom('legumes', 'beans', ['beans', 'peas']),
  grower: fc.constantFrom('g0', ['g0', 'g1']),
};
/** The families of the columns that they ask of. */
export const FAMILIES = {
  title: 'text',
  stock: 'number',
  sow: 'day',
  starts: 'instant',
  'entry.published': 'instant',
  'entry.shownDate': 'instant',
  shade: 'yesno',
  ease: 'choice',
  traits: 'members',
  family: 'members',
  grower: 'members',
  photo: 'presence',
} as const;

const NO_VALUE: ReadonlySet<Operator> = new Set(['blank', 'not-blank', 'on-this-day']);

/** What an operator compares with that takes something else than its field holds. */
function valueOf(field: keyof typeof FAMILIES, op: Operator): fc.Arbitrary<Value> {
  const plain = VALUES[field]!;
  const [one, family] = [plain as fc.Arbitrary<string | number>, FAMILIES[field]];
  const days = fc.constantFrom('1 day', '40 days', 'P5W');
  if (op === 'between') return fc.tuple(one, one);
  if (op === 'this') return fc.constantFrom('week', 'month', 'year');
  if (op === 'within-last' || op === 'within-next')
    return family === 'instant' ? fc.oneof(days, fc.constantFrom('36 hours', 'P20DT1S')) : days;
  const isList = family === 'text' || family === 'number';
  return isList && (op === 'any-of' || op === 'none-of')
    ? fc.array(one, { minLength: 1, maxLength: 3 })
    : plain;
}

const condition = fc
  .constantFrom(...(Object.keys(FAMILIES) as (keyof typeof FAMILIES)[]))
  .chain((field) =>
    fc
      .constantFrom(...OPERATORS_OF[FAMILIES[field]])
      .chain((op): fc.Arbitrary<FilterSpec> =>
        NO_VALUE.has(op)
          ? fc.constant({ field, op })
          : valueOf(field, op).map((value) => ({ field, op, value })),
      ),
  );
/** Conditions and groups of them on the fields of varieties of a random site. */
export const anyFilter = fc.letrec<{ filter: FilterSpec }>((tie) => ({
  filter: fc.oneof(
    { maxDepth: 3, depthSize: 'small' },
    condition,
    ...(['all', 'any', 'none'] as const).map((kind) =>
      fc
        .array(tie('filter'), { maxLength: 3 })
        .map((filters) => ({ [kind]: filters }) as unknown as FilterSpec),
    ),
  ),
})).filter;
