'use client';

import { type ReactNode, useState } from 'react';
import type { Issue } from '@/core/issue.ts';
import type { CommandInput, CommandResult } from '@/server/commands/index.ts';
import type { Clock } from '@/server/queries/clock.ts';
import { Dialog } from '@/ui/primitives/dialog.tsx';
import { counted, instantWords } from './format.ts';
import { command } from './send.ts';
import { type Said, useAttempts } from './use-attempts.ts';
import type { Edits } from './use-edits.ts';

type Release = Extract<CommandResult<'releaseEdit'>, { ok: true }>['value'];

/** What releasing a part of the design needs to know. */
interface Edited {
  part: CommandInput<'releaseEdit'>['part'];
  key: string;
  edits: Pick<Edits<object>, 'set' | 'changed' | 'version' | 'drop' | 'rebase'>;
  /** False while something is to be mended, or the clock does not stand at now. */
  allowed: boolean;
  /** What else it does to the site, a line each. */
  reach?: string[];
  clock: Clock;
}

/** Releasing an edited part: its buttons, the question before it, and what came of it. */
export interface ReleaseParts {
  issues: Issue[];
  said: Said | null;
  buttons: ReactNode;
  /** The question, and both versions where somebody else has released another. */
  panel: ReactNode;
}

/**
 * Asks with what it does before an edited part of the design is released; a release can be
 * undone.
 */
export function useRelease({ part, key, edits, allowed, reach = [], clock }: Edited): ReleaseParts {
  const { busy, issues, said, hush, attempt } = useAttempts();
  const [asking, setAsking] = useState<Release | null>(null);
  const input = { part, key, set: edits.set, version: edits.version };
  const told = ({ at, moved, undo, version }: Release): Said => ({
    words: `Released ${instantWords(at, clock.zone, clock.now)}.${moved > 0 ? ` ${counted(moved, 'address', 'addresses')} moved; the former ones lead on.` : ''}`,
    undo: { label: 'Undo', run: () => void takeBack({ ...undo, version }) },
  });
  const takeBack = (inverse: CommandInput<'releaseEdit'>): Promise<boolean> =>
    attempt(
      () => command('releaseEdit', inverse),
      () => ({ words: 'Taken back: what was released before is released again.' }),
    );
  const tryOut = async (): Promise<void> => {
    hush();
    await attempt(
      () => command('releaseEdit', { ...input, dry: true }),
      (value) => {
        setAsking(value);
        return { words: '' };
      },
    );
  };
  const release = async (): Promise<void> => {
    setAsking(null);
    const done = await attempt(() => command('releaseEdit', input), told);
    if (done) edits.drop();
  };
  const buttons = (
    <ReleaseButtons
      changed={edits.changed}
      busy={busy}
      allowed={allowed}
      onDrop={after(edits.drop, hush)}
      onRelease={() => void tryOut()}
    />
  );
  const panel = (
    <>
      {issues.some((i) => i.code === 'changed-since') && (
        <Overtaken onKeep={after(edits.rebase, hush)} onDrop={after(edits.drop, hush)} />
      )}
      <Ask asking={asking} reach={reach} onClose={() => setAsking(null)} onRelease={release} />
    </>
  );
  return { issues, said: said?.words === '' ? null : said, buttons, panel };
}

const after =
  (first: () => void, then: () => void): (() => void) =>
  () => {
    first();
    then();
  };

function ReleaseButtons({
  changed,
  busy,
  allowed,
  onDrop,
  onRelease,
}: {
  changed: boolean;
  busy: boolean;
  allowed: boolean;
  onDrop: () => void;
  onRelease: () => void;
}) {
  return (
    <div className="flex gap-2">
      {changed && (
        <button type="button" className="button" disabled={busy} onClick={onDrop}>
          Undo changes
        </button>
      )}
      <button
        type="button"
        className={changed ? 'button button-main' : 'button'}
        disabled={!changed || busy || !allowed}
        onClick={onRelease}
      >
        {busy ? 'Working …' : 'Release now …'}
      </button>
    </div>
  );
}

/** What is to become of edits begun on what somebody else has changed since. */
function Overtaken({ onKeep, onDrop }: { onKeep: () => void; onDrop: () => void }) {
  return (
    <p className="flex gap-2">
      <button type="button" className="button" onClick={onKeep}>
        Keep mine on top
      </button>
      <button type="button" className="button" onClick={onDrop}>
        Drop mine
      </button>
    </p>
  );
}

/** What a release would do, before it is done. */
function Ask({
  asking,
  reach,
  onClose,
  onRelease,
}: {
  asking: Release | null;
  reach: string[];
  onClose: () => void;
  onRelease: () => Promise<void>;
}) {
  if (!asking) return null;
  const { moved, examples } = asking;
  return (
    <Dialog open onOpenChange={onClose} title="Release this now?">
      <ul className="mt-3 list-disc pl-5">
        <li>
          {moved === 0
            ? 'No address moves.'
            : `${counted(moved, 'address moves', 'addresses move')}; the former ones lead on (308).`}
          <ul className="font-mono text-note text-muted">
            {examples.map(({ from, to }) => (
              <li key={from} className="break-all">{`${from} → ${to}`}</li>
            ))}
          </ul>
        </li>
        {reach.map((line) => (
          <li key={line}>{line}</li>
        ))}
        <li>It is public at once, and can be undone.</li>
      </ul>
      <div className="mt-4 flex gap-2">
        <button type="button" className="button button-main" onClick={() => void onRelease()}>
          Release now
        </button>
        <button type="button" className="button" onClick={onClose}>
          Not yet
        </button>
      </div>
    </Dialog>
  );
}

/**
 * Says that a part cannot be changed while the clock stands elsewhere, and what becomes of
 * unsaved edits.
 */
export function DesignTense({ clock, changed }: { clock: Clock; changed: boolean }) {
  if (clock.tense === 'now') return null;
  return (
    <p className="text-amber-text">
      The design is changed at now only; set the clock to now to edit. What is shown is as of the
      clock{changed ? ', with your unsaved changes, which stay.' : '.'}
    </p>
  );
}
