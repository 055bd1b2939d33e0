import { z } from 'zod';
import { isSpan } from '../time/span.ts';
import { withIds } from './block-ids.ts';
import { key } from './key.ts';
import { filterSpec, withFilterIds } from './listing-spec.ts';

/** What a timing rule does to an entry. */
export const TIMING_DEEDS = ['publish', 'retire'] as const;

/** Instants of an entry itself that a rule may count from, besides its date fields. */
export const TIMING_STARTS = ['entry.created', 'entry.published'] as const;

/** A timing rule: what is done by itself to each entry of a type, and when. */
export const timingRuleSpec = z.strictObject({
  /** Stays when the rule is changed. */
  id: key.optional(),
  do: z.enum(TIMING_DEEDS),
  /** What it counts from: `entry.created`, `entry.published`, or the key of a date field. */
  from: z.string().min(1).max(64),
  /** How much later; with "-" before it, earlier. */
  after: z
    .string()
    .max(64)
    .refine(isSpan, {
      error: (i) =>
        `"${String(i.input).slice(0, 60)}" is no duration (ISO 8601) of at most 100 years, such as P14D or -PT2H.`,
    })
    .default('PT0S'),
  /** Only entries of which this holds then. */
  where: filterSpec.optional(),
});
/** A timing rule as it is stored. */
export type TimingRule = z.output<typeof timingRuleSpec> & { id: string };

/** Rules with ids of their own, and of their conditions. */
export function withRuleIds(rules: readonly z.output<typeof timingRuleSpec>[]): TimingRule[] {
  return withIds(rules, 't').map(({ where, ...rule }) =>
    where === undefined ? rule : { ...rule, where: withFilterIds(where) },
  );
}
