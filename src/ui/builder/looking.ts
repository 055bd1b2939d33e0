import type { Clock, Looking } from '@/server/queries/clock.ts';

/** Where a clock looks, as queries take it. */
export function lookingOf({ at, tense, seeing, language }: Clock): Looking {
  return { at, past: tense === 'past', seeing, language };
}
