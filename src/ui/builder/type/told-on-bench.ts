import { command } from '../send.ts';
import type { Attempts, Said } from '../use-attempts.ts';

/**
 * What is said of an edit that leads to another screen; taken off the bench again, it leads back.
 * Paths: `to` that screen, `from` this one.
 */
export function toldOnBench(
  attempt: Attempts['attempt'],
  { to, from, replaces }: { to: string; from: string; replaces?: true },
): (done: { id: number; sentence: string }) => Said {
  const leadTo = (path: string): Said['leadsTo'] =>
    to === from ? undefined : { path, ...(replaces ? { replaces } : {}) };
  const takeBack = (id: number): Promise<boolean> =>
    attempt(
      () => command('discardEdits', { edits: [id] }),
      () => ({ words: 'Taken off the bench again.', leadsTo: leadTo(from) }),
    );
  return ({ id, sentence }) => ({
    words: `On the bench: ${sentence}.`,
    undo: { label: 'Undo', run: () => void takeBack(id) },
    leadsTo: leadTo(to),
  });
}
