'use client';

import { type ReactNode, useState } from 'react';
import type { Issue, Result } from '@/core/issue.ts';
import type { DesignEdit } from '@/server/commands/release-design.ts';
import type { Clock } from '@/server/queries/clock.ts';
import { instantWords } from './format.ts';

/** What releasing a part of the design needs to know. */
interface Edited {
  part: DesignEdit['part'];
  saved: { key: string };
  spec: unknown;
  /** Undoes what is not saved. */
  undo: () => void;
  /** False while something is to be mended, or the clock does not stand at now. */
  allowed: boolean;
  /** Said after "Released …". */
  then?: string;
  clock: Clock;
  release: (edit: DesignEdit) => Promise<Result<{ at: number }>>;
}

/** Saving and releasing an edited part of the design: its buttons, and what came of it. */
export function useRelease({
  part,
  saved,
  spec,
  undo,
  allowed,
  then = '',
  clock,
  release,
}: Edited): { changed: boolean; issues: Issue[]; said: string | null; buttons: ReactNode } {
  const [issues, setIssues] = useState<Issue[]>([]);
  const [said, setSaid] = useState<string | null>(null);
  const [busy, setBusy] = useState(false);
  const changed = JSON.stringify(spec) !== JSON.stringify(saved);
  const save = async (): Promise<void> => {
    setBusy(true);
    const result = await release({ part, key: saved.key, spec }).catch(() => null);
    setBusy(false);
    setIssues(
      result === null
        ? [
            {
              code: 'unreachable',
              message: 'The server cannot be reached; nothing was changed.',
              fix: 'Try again in a moment.',
            },
          ]
        : result.ok
          ? []
          : result.issues,
    );
    setSaid(
      result?.ok
        ? `Released ${instantWords(result.value.at, clock.zone, clock.now)}.${then}`
        : null,
    );
  };
  const buttons = (
    <div className="flex gap-2">
      {changed && (
        <button type="button" className="button" disabled={busy} onClick={undo}>
          Undo changes
        </button>
      )}
      <button
        type="button"
        className={changed ? 'button button-main' : 'button'}
        disabled={!changed || busy || !allowed}
        onClick={() => void save()}
      >
        {busy ? 'Releasing …' : 'Save and release now'}
      </button>
    </div>
  );
  return { changed, issues, said, buttons };
}
