'use client';

import { useRouter } from 'next/navigation';
import { Issues, SaidLine } from '@/ui/primitives/issues.tsx';
import { entryHref } from '../format.ts';
import { command } from '../send.ts';
import { useClockParameters } from '../shell/use-clock.ts';
import { useAttempts } from '../use-attempts.ts';

/** Says what was just deleted, and brings it back. */
export function DeletedLine({ deleted }: { deleted: { id: string; name: string } }) {
  const router = useRouter();
  const { keep } = useClockParameters();
  const { attempt, issues } = useAttempts();
  const restore = async (): Promise<void> => {
    const done = await attempt(
      () => command('restoreEntry', { entry: deleted.id }),
      () => ({ words: 'It is back.' }),
    );
    if (done) router.push(keep(entryHref(deleted.id)));
  };
  return (
    <div className="px-6 pb-2">
      <SaidLine
        said={{
          words: `“${deleted.name}” is deleted; its past can still be looked at.`,
          undo: { label: 'Undo', run: () => void restore() },
        }}
      />
      <Issues issues={issues} title="Not brought back" answers />
    </div>
  );
}
