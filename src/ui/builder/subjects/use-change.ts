'use client';

import type { SubjectChange } from '@/core/design/subject-change.ts';
import { counted } from '../format.ts';
import { command } from '../send.ts';
import type { Attempts } from '../use-attempts.ts';

/** Has something done to a set; it can be taken back from the line that says so. */
export type Change = (change: SubjectChange) => Promise<boolean>;

/** Changes the subjects of a set, by its id, and offers to undo it. */
export function changing(set: string, attempt: Attempts['attempt']): Change {
  return (change) =>
    attempt(
      (job) => command('changeSubjects', { set, change }, job),
      ({ at, sentence, moved }) => ({
        words: `${sentence}.${moved > 0 ? ` ${counted(moved, 'address', 'addresses')} moved, and the old ones lead there.` : ''}`,
        undo: { label: 'Undo', run: () => void undoing(set, attempt)(at) },
      }),
    );
}

/** Takes back what was done to a set at an instant. */
export function undoing(
  set: string,
  attempt: Attempts['attempt'],
): (at: number) => Promise<boolean> {
  return (at) =>
    attempt(
      (job) => command('undoSubjects', { set, at }, job),
      (done) => ({ words: `${done.sentence}.` }),
    );
}
