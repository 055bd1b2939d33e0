import type { Issue } from '@/core/issue.ts';
import type { Clock } from '@/server/queries/clock.ts';
import type { ReachInput } from '@/server/queries/reach.ts';
import type { Steps } from '../design-steps.ts';

/** Whose reach a screen asks for: its unsaved steps; null where there are none, or they are wrong. */
export function reachOf({ at, tense }: Clock, steps: Steps, issues: Issue[]): ReachInput | null {
  if (steps.length === 0 || issues.length > 0 || tense === 'past') return null;
  return { at, steps, edits: [], drafts: [] };
}
