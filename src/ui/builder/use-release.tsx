'use client';

import { type ReactNode, useState } from 'react';
import type { Issue } from '@/core/issue.ts';
import type { Clock } from '@/server/queries/clock.ts';
import { LongWork } from './long-work.tsx';
import { type Release, ReleaseDialog, released } from './release-dialog.tsx';
import { useMay } from './rights.tsx';
import { command } from './send.ts';
import { type Attempts, type Said, useAttempts } from './use-attempts.ts';
import type { Edits } from './use-edits.ts';

/** What saving a part of the design needs to know. */
interface Edited {
  edits: Pick<Edits<object>, 'steps' | 'changed' | 'drop' | 'settle' | 'rebase'>;
  /** False while the form itself says what is to be mended, or the clock does not stand at now. */
  allowed: boolean;
  /** What the outcome finds wrong with them: nothing is saved before it is mended. */
  found?: Issue[];
  /** What else it does to the site, a line each. */
  reach?: string[];
  clock: Clock;
}

/** Saving an edited part: its buttons, the question before a release, and what came of it. */
export interface ReleaseParts {
  issues: Issue[];
  said: Said | null;
  buttons: ReactNode;
  /** The question, and both versions where somebody else has changed the same. */
  panel: ReactNode;
  /** Does something else of the screen, and tells what came of it in the same place. */
  attempt: Attempts['attempt'];
  busy: boolean;
}

/**
 * An edited part of the design is kept on the bench, or released alone at once, after a question
 * that says what that does. Either can be undone.
 */
export function useRelease({
  edits,
  allowed,
  found = [],
  reach = [],
  clock,
}: Edited): ReleaseParts {
  const { busy, issues, said, hush, work, attempt } = useAttempts();
  const { asking, stopAsking, keep, tryOut, release } = useSaving({ edits, clock, attempt, hush });
  const onDrop = after(edits.drop, hush);
  const buttons = (
    <Buttons
      {...{ busy, onDrop }}
      changed={edits.changed}
      allowed={allowed && found.length === 0}
      onKeep={() => void keep()}
      onRelease={() => void tryOut()}
    />
  );
  const refusals = issues.some(isOvertaken) ? issues : [...issues, ...found.filter(isOvertaken)];
  const panel = (
    <>
      <LongWork work={work} />
      {refusals.some(isOvertaken) && (
        <Overtaken onKeep={after(edits.rebase, hush)} onDrop={onDrop} />
      )}
      {asking && (
        <ReleaseDialog
          {...{ release: asking, reach }}
          onClose={stopAsking}
          onRelease={() => void release()}
        />
      )}
    </>
  );
  return {
    ...{ issues: refusals, buttons, panel, attempt, busy },
    said: said?.words === '' ? null : said,
  };
}

/** What the buttons do, and the question before a release. */
interface Saving {
  asking: Release | null;
  stopAsking: () => void;
  keep: () => Promise<void>;
  tryOut: () => Promise<void>;
  release: () => Promise<void>;
}

function useSaving({
  edits,
  clock,
  attempt,
  hush,
}: Pick<Edited, 'edits' | 'clock'> & Pick<Attempts, 'attempt' | 'hush'>): Saving {
  const [asking, setAsking] = useState<Release | null>(null);
  const edit = { steps: edits.steps };
  const undo = (release: number): Promise<boolean> =>
    attempt(
      (job) => command('undoRelease', { release }, job),
      () => ({ words: 'Taken back: what was released before is released again.' }),
    );
  const takeOff = (id: number): Promise<boolean> =>
    attempt(
      () => command('discardEdits', { edits: [id] }),
      () => ({ words: 'Taken off the bench again.' }),
    );
  const keep = async (): Promise<void> => {
    const done = await attempt(
      () => command('editDesign', edit),
      ({ id, sentence }) => ({
        words: `On the bench: ${sentence}. Nobody else sees it until it is released.`,
        undo: { label: 'Undo', run: () => void takeOff(id) },
      }),
    );
    if (done) edits.settle();
  };
  const tryOut = async (): Promise<void> => {
    hush();
    await attempt(
      (job) => command('release', { edit, dry: true }, job),
      (value) => {
        setAsking(value);
        return { words: '' };
      },
    );
  };
  const release = async (): Promise<void> => {
    setAsking(null);
    const done = await attempt(
      (job) => command('release', { edit }, job),
      (value) => ({
        words: released(value, clock),
        undo: { label: 'Undo', run: () => void undo(value.release) },
      }),
    );
    if (done) edits.settle();
  };
  return { asking, stopAsking: () => setAsking(null), keep, tryOut, release };
}

/** Whether somebody else has changed the same since it was opened. */
export const isOvertaken = ({ code }: Issue): boolean => code === 'changed-since';

const after =
  (first: () => void, then: () => void): (() => void) =>
  () => {
    first();
    then();
  };

function Buttons({
  changed,
  busy,
  allowed,
  onDrop,
  onKeep,
  onRelease,
}: {
  changed: boolean;
  busy: boolean;
  allowed: boolean;
  onDrop: () => void;
  onKeep: () => void;
  onRelease: () => void;
}) {
  const can = changed && !busy && allowed;
  if (!useMay('change-design')) return null;
  return (
    <div className="flex flex-wrap justify-end gap-2">
      <button
        type="button"
        className={`button-quiet ${changed ? '' : 'invisible'}`}
        disabled={busy}
        onClick={onDrop}
      >
        Drop changes
      </button>
      <button type="button" className="button" disabled={!can} onClick={onRelease}>
        {busy ? 'Working …' : 'Release this now …'}
      </button>
      <button
        type="button"
        className={changed ? 'button button-main' : 'button'}
        disabled={!can}
        onClick={onKeep}
      >
        Keep on the bench
      </button>
    </div>
  );
}

/** What is to become of edits that overlap with what somebody else has changed since. */
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

const FOR_BUILDERS = 'You see how the site is made. Builders of the site change it.';

/**
 * Says that a part cannot be changed, by this person or while the clock stands elsewhere, and what becomes of
 * unsaved edits.
 */
export function DesignTense({ clock, changed }: { clock: Clock; changed: boolean }) {
  const may = useMay('change-design');
  if (!may) return <p className="text-amber-text">{FOR_BUILDERS}</p>;
  if (clock.tense === 'now') return null;
  return (
    <p className="text-amber-text">
      The design is changed at now only; set the clock to now to edit. What is shown is as of the
      clock{changed ? ', with your unsaved changes, which stay.' : '.'}
    </p>
  );
}
