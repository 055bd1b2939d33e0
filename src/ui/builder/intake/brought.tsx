'use client';

import type { BroughtIn } from '@/server/commands/intake/bring-in.ts';
import { Issues, SaidLine } from '@/ui/primitives/issues.tsx';
import { undone } from '../content/use-bulk-changes.ts';
import { LongWork } from '../long-work.tsx';
import { command } from '../send.ts';
import { useAttempts } from '../use-attempts.ts';
import { BroughtLines } from './brought-lines.tsx';

/** What was brought in just now, and how to take it back. */
export function Brought({ done }: { done: BroughtIn }) {
  const { attempt, busy, issues, said, work } = useAttempts();
  const { change } = done;
  return (
    <>
      <Issues issues={issues} title="Not taken back" answers />
      <SaidLine said={said} />
      <LongWork work={work} />
      {!said && (
        <div
          role="status"
          className="flex flex-col gap-2 border-l-[3px] border-spruce bg-white p-3"
        >
          <p className="font-semibold">
            Brought in.
            {change !== null && (
              <button
                type="button"
                className="button-quiet ml-2"
                disabled={busy}
                onClick={() =>
                  void attempt((job) => command('undoChange', { change }, job), undone)
                }
              >
                Undo
              </button>
            )}
          </p>
          <BroughtLines done={done} would={false} />
        </div>
      )}
    </>
  );
}
