import fc from 'fast-check';
import type { FilterSpec } from '@/core/design/listing-spec.ts';
import { OPERATORS_OF } from '@/core/listing/operators.ts';
import { day } from './random-site.ts';

const VALUES: Record<string, fc.Arbitrary<string | number | boolean | (string | number)[]>> = {
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
  shade: 'yesno',
  ease: 'choice',
  traits: 'members',
  family: 'members',
  grower: 'members',
  photo: 'presence',
} as const;

const condition = fc
  .constantFrom(...(Object.keys(FAMILIES) as (keyof typeof FAMILIES)[]))
  .chain((field) =>
    fc
      .constantFrom(...OPERATORS_OF[FAMILIES[field]])
      .chain((op): fc.Arbitrary<FilterSpec> =>
        op === 'blank' || op === 'not-blank'
          ? fc.constant({ field, op })
          : VALUES[field]!.map((value) => ({ field, op, value })),
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
