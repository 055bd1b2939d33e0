import type { Instant } from '../time/interval.ts';
import type { Plan, Revision } from './model.ts';

/** The newest revision saved at or before an instant; undefined where there is none. */
export function newestSaved(revisions: readonly Revision[], at: Instant): Revision | undefined {
  return revisions.findLast((r) => r.saved <= at);
}

/** The revision a publication at its instant makes live; undefined where it does nothing. */
export function publishedBy(plan: Plan, revisions: readonly Revision[]): Revision | undefined {
  if (plan.revision === null) return newestSaved(revisions, plan.at);
  return revisions.find((r) => r.number === plan.revision && r.saved <= plan.at);
}

/** The live revision number after the plans of one instant, in written order; null for none. */
export function applyPlans(
  live: number | null,
  plans: readonly Plan[],
  revisions: readonly Revision[],
): number | null {
  let result = live;
  for (const plan of plans) {
    if (plan.do === 'retire') result = null;
    else if (!plan.keeps || result !== null)
      result = publishedBy(plan, revisions)?.number ?? result;
  }
  return result;
}

/**
 * What will be live next after an instant: of several acts at one instant the outcome of all of
 * them.
 */
export function nextPublication(
  plans: readonly Plan[],
  revisions: readonly Revision[],
  at: Instant,
): { at: Instant; revision: number } | undefined {
  for (const plan of plans) {
    if (plan.at <= at || plan.do !== 'publish') continue;
    const together = plans.filter((other) => other.at === plan.at);
    const revision = applyPlans(null, together, revisions);
    if (revision !== null) return { at: plan.at, revision };
  }
  return undefined;
}
