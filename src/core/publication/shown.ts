import type { Instant, Interval } from '../time/interval.ts';
import { covers } from '../time/interval.ts';
import type { LiveInterval, Plan, Revision } from './model.ts';
import { applyPlans, publishedBy } from './plans.ts';

/**
 * What is live of an entry in a language: the revision that its words are read from, the one that
 * everything else is, and whether they are the words of the site's own language.
 */
export interface Shown {
  revision: number;
  shared: number;
  isFallback: boolean;
}

const WIDTH = 2 ** 20;

/** One number for what is shown; where all is of one revision in its own language, that one's. */
export function codeOf({ revision, shared, isFallback }: Shown): number {
  if (!isFallback && shared === revision) return revision;
  return revision + shared * WIDTH + (isFallback ? WIDTH * WIDTH : 0);
}

/** What a number made by `codeOf` stands for. */
export function shownBy(code: number): Shown {
  if (code < WIDTH) return { revision: code, shared: code, isFallback: false };
  const isFallback = code >= WIDTH * WIDTH;
  const rest = isFallback ? code - WIDTH * WIDTH : code;
  return { revision: rest % WIDTH, shared: Math.floor(rest / WIDTH), isFallback };
}

/** What decides what is live of an entry in one of several languages. */
export interface LanguageFacts {
  revisions: readonly Revision[];
  /** The plans in it, and those in all others, each by instant and sequence. */
  plans: readonly Plan[];
  others: readonly Plan[];
  /** What is live in the site's own language, where that stands in; empty where it does not. */
  fallback: readonly (Interval & Pick<LiveInterval, 'revision' | 'sharedRevision'>)[];
}

/** What is live from an instant on; null for nothing. */
export interface ShownFrom {
  at: Instant;
  shown: Shown | null;
  /** Set where the words go on as they were, should they be there: only the rest changes. */
  keeps?: true;
}

/**
 * What is live from each instant on at which that changes, or is published again. Words
 * are as they were published in the language; everything else is as it was published last in any,
 * never older than they are.
 */
export function shownOver(facts: LanguageFacts): ShownFrom[] {
  const { revisions, plans, others, fallback } = facts;
  const bounds = fallback.flatMap(({ from, to }) => (to === null ? [from] : [from, to]));
  const instants = new Set([...[...plans, ...others].map(({ at }) => at), ...bounds]);
  const found: ShownFrom[] = [];
  let own: number | null = null;
  let elsewhere = 0;
  let last = '';
  for (const at of [...instants].sort((a, b) => a - b)) {
    const here = plans.filter((plan) => plan.at === at);
    const isAnew = here.some((plan) => plan.do === 'publish');
    own = applyPlans(own, here, revisions);
    for (const plan of others)
      if (plan.at === at && plan.do === 'publish')
        elsewhere = Math.max(elsewhere, publishedBy(plan, revisions)?.number ?? 0);
    const stands = own === null ? fallback.find((interval) => covers(interval, at)) : undefined;
    const shown: Shown | null =
      own !== null
        ? { revision: own, shared: Math.max(own, elsewhere), isFallback: false }
        : stands
          ? { revision: stands.revision, shared: stands.sharedRevision, isFallback: true }
          : null;
    const told = shown === null ? '' : String(codeOf(shown));
    const keeps = own !== null && !isAnew && last !== '';
    if (told !== last || isAnew) found.push({ at, shown, ...(keeps ? { keeps: true } : {}) });
    last = told;
  }
  return found;
}
