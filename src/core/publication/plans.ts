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
    else result = publishedBy(plan, revisions)?.number ?? result;
  }
  return result;
}

/** The first publication after an instant that will have a revision to publish. */
export function nextPublication(
  plans: readonly Plan[],
  revisions: readonly Revision[],
  at: Instant,
): { plan: Plan; revision: Revision } | undefined {
  for (const plan of plans) {
    if (plan.at <= at || plan.do !== 'publish') continue;
    const revision = publishedBy(plan, revisions);
    if (revision) return { plan, revision };
  }
  return undefined;
}
