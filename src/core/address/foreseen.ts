import type { TracedPart } from '../pattern/compile.ts';
import type { Instant } from '../time/interval.ts';
import type { BuiltPath } from './build.ts';
import type { AddressRules } from './rules.ts';

/** An entry that is dealt another address, before it is known which. */
export interface Foreseen {
  entry: string;
  at: Instant;
}

/** The rules of the design that holds at an instant. */
export type RulesAt = (at: Instant) => AddressRules;

/** An unnumbered path with the pieces it was put together from. */
export interface ExplainedBase {
  built: BuiltPath;
  parts: TracedPart[];
}
