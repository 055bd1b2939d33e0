import { type Instant, type Interval, covers, earlier, nextBound } from '../time/interval.ts';
import type { EntryState } from './model.ts';

/** What state depends on: when revisions were saved, and which intervals show which. */
export interface StateFacts {
  revisions: readonly { number: number; saved: Instant }[];
  intervals: readonly (Interval & { revision: number })[];
}

/** An entry's state as of an instant, and the instant until which it certainly holds. */
export function stateAt(
  { revisions, intervals }: StateFacts,
  at: Instant,
): { state: EntryState; until: Instant | null } {
  let until: Instant | null = null;
  for (const interval of intervals) until = earlier(until, nextBound(interval, at));
  for (const { saved } of revisions) if (saved > at) until = earlier(until, saved);
  return { state: nameState(revisions, intervals, at), until };
}

function nameState(
  revisions: StateFacts['revisions'],
  intervals: StateFacts['intervals'],
  at: Instant,
): EntryState {
  const newest = revisions.reduce((n, r) => (r.saved <= at && r.number > n ? r.number : n), 0);
  if (newest === 0) return 'not yet written';
  const live = intervals.find((interval) => covers(interval, at));
  if (live) return newest > live.revision ? 'live with newer draft' : 'live';
  if (intervals.some(({ from }) => from > at)) return 'scheduled';
  return intervals.length > 0 ? 'retired' : 'draft';
}
