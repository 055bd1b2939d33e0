import { useRouter } from 'next/navigation';
import { command } from '../send.ts';
import type { Attempts } from '../use-attempts.ts';

/**
 * Gives a part of the design another key: an edit of its own on the bench, by which all that names
 * the part follows.
 */
export function useRenaming(
  attempt: Attempts['attempt'],
): (part: string, was: string, now: string) => void {
  const router = useRouter();
  const takeBack = (id: number): Promise<boolean> =>
    attempt(
      () => command('discardEdits', { edits: [id] }),
      () => ({ words: 'Taken off the bench again.' }),
    );
  return (part, was, now) =>
    void attempt(
      () => command('editDesign', { steps: [{ do: 'rename', part, was, now }] }),
      ({ id, sentence }) => ({
        words: `On the bench: ${sentence}. What reads it follows.`,
        undo: { label: 'Undo', run: () => void takeBack(id) },
      }),
    ).then((done) => {
      // The address of a type's screen goes by its key.
      if (done && part.split('/').length === 2) router.replace(`/build/types/${now}`);
    });
}
