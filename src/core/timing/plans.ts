import type { Plan, Revision } from '../publication/model.ts';
import { type Instant, type Interval, earlier } from '../time/interval.ts';
import type { CompiledRule, Looked } from './rules.ts';

/** The rules of a type while a design holds. */
export interface RulesOver extends Interval {
  rules: readonly CompiledRule[];
}

/** What rules are asked of: an entry with all that was saved of it, by number. */
export interface Ruled {
  entry: string;
  created: Instant;
  revisions: readonly Revision[];
}

/** Publications by rules apply after what people asked for at the same instant. */
const AFTER_PEOPLE = 1_000_000;

/**
 * The publications that rules ask for, by instant: each reads the newest revision that is saved by
 * the instant at which it acts, in the design of then.
 */
export function publicationsByRules(
  { entry, created, revisions }: Ruled,
  over: readonly RulesOver[],
): Plan[] {
  const plans = over.flatMap(({ from, to, rules }) =>
    rules.flatMap((rule, place) => {
      if (rule.do !== 'publish') return [];
      return revisions.flatMap(({ values, saved }, i): Plan[] => {
        const looked = { entry, created, published: null, values };
        const at = rule.instant(looked);
        const ends = Math.min(to ?? Infinity, revisions[i + 1]?.saved ?? Infinity);
        if (at === null || at < Math.max(from, saved) || at >= ends) return [];
        const sequence = AFTER_PEOPLE + place;
        return rule.holds(looked, at) ? [{ at, sequence, do: 'publish', revision: null }] : [];
      });
    }),
  );
  return plans.sort((a, b) => a.at - b.at || a.sequence - b.sequence);
}

/**
 * When what is live is retired by a rule, after an instant: rules read the revision that is live.
 * What began when its time had passed already stays.
 */
export function endingByRules(
  looked: Looked,
  { live, after }: { live: Instant; after: Instant },
  over: readonly RulesOver[],
): Instant | null {
  let first: Instant | null = null;
  for (const { from, to, rules } of over)
    for (const rule of rules) {
      const at = rule.do === 'retire' ? rule.instant(looked) : null;
      if (at === null || at <= Math.max(after, live) || at < from || at >= (to ?? Infinity))
        continue;
      if (rule.holds(looked, at)) first = earlier(first, at);
    }
  return first;
}
