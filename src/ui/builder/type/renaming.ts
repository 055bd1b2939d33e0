import { command } from '../send.ts';
import type { Attempts } from '../use-attempts.ts';
import { toldOnBench } from './told-on-bench.ts';

/**
 * Gives a part of the design another key: an edit of its own on the bench, by which all that names
 * the part follows.
 */
export function renaming(
  attempt: Attempts['attempt'],
): (part: string, was: string, now: string) => void {
  return (part, was, now) => {
    // The address of a type's screen goes by its key.
    const screenOf = (key: string): string =>
      part.split('/').length === 2 ? `/build/types/${key}` : '';
    const told = toldOnBench(attempt, { to: screenOf(now), from: screenOf(was), replaces: true });
    void attempt(
      () => command('editDesign', { steps: [{ do: 'rename', part, was, now }] }),
      (done) => ({
        ...told(done),
        words: `On the bench: ${done.sentence}. What reads it follows.`,
      }),
    );
  };
}
