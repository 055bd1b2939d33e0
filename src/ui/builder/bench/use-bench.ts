'use client';

import { useState } from 'react';
import type { Issue } from '@/core/issue.ts';
import type { BenchDetail } from '@/server/queries/bench.ts';
import type { Clock } from '@/server/queries/clock.ts';
import type { ReachInput } from '@/server/queries/reach.ts';
import { counted, instantWords } from '../format.ts';
import { exactInstant } from '../instant/instant-field.tsx';
import type { Work } from '../long-work.tsx';
import { type Release, released } from '../release-dialog.tsx';
import { useMay } from '../rights.tsx';
import { command } from '../send.ts';
import { type Said, useAttempts } from '../use-attempts.ts';

/** The question before a release. */
interface Asking {
  release: Release;
  at: string | null;
  title: string;
  action: string;
  when: string;
}

/** What the bench's screen does. */
export interface Bench {
  busy: boolean;
  issues: Issue[];
  said: Said | null;
  work: Work;
  /** Keys of the ticked lines: `edit 3`, `draft ID`. */
  ticked: ReadonlySet<string>;
  tick: (keys: string[], on: boolean) => void;
  /** When the ticked lines are released, as typed; '' for now. */
  when: string;
  setWhen: (value: string) => void;
  asking: Asking | null;
  stopAsking: () => void;
  /** Says what releasing the ticked lines would do, and asks. */
  ask: (at: string | null) => Promise<void>;
  release: () => Promise<void>;
  /** Takes back one's last edit; asks first where others build on it. */
  undo: () => Promise<void>;
  redo: () => Promise<boolean>;
  /** Throws an edit away; asks first where others build on it. */
  discard: (edit: number) => Promise<void>;
  /** What would go together, while that is asked. */
  together: Together | null;
  stopTaking: () => void;
  takeOff: (taking: TakingOff) => Promise<boolean>;
  rebase: (edit: number) => Promise<boolean>;
  undoRelease: (release: number, planned: boolean) => Promise<boolean>;
  /** Whose reach is looked for: the ticked lines; null where none is. */
  reach: ReachInput | null;
}

/** The key of an edit's line, and of a draft's. */
export const editKey = (id: number): string => `edit ${id}`;
export const draftKey = (entry: string): string => `draft ${entry}`;

/** What is ticked on the bench, and what is done with it. */
export function useBench(detail: BenchDetail, clock: Clock): Bench {
  const attempts = useAttempts();
  const mayDesign = useMay('change-design');
  const { attempt, hush } = attempts;
  const [changed, setChanged] = useState<ReadonlyMap<string, boolean>>(new Map());
  const [when, setWhen] = useState('');
  const [asking, setAsking] = useState<Asking | null>(null);
  const [together, setTogether] = useState<Together | null>(null);
  const ticked = tickedOf(detail, changed);
  const chosen = {
    edits: detail.edits.filter(({ id }) => ticked.has(editKey(id))).map(({ id }) => id),
    drafts: detail.drafts
      .filter(({ entry }) => ticked.has(draftKey(entry)))
      .map(({ entry, revision }) => ({ entry, revision })),
  };
  const ask = async (at: string | null): Promise<void> => {
    hush();
    await attempt(
      (job) => command('release', { ...chosen, at, dry: true }, job),
      (release) => {
        setAsking({ release, at, ...question(release, at, clock) });
        return { words: '' };
      },
    );
  };
  const release = async (): Promise<void> => {
    const { at } = asking!;
    setAsking(null);
    await attempt(
      (job) => command('release', { ...chosen, at }, job),
      (done) => {
        setChanged(new Map());
        setWhen('');
        const undo = { label: 'Undo', run: () => void undoRelease(done.release, at !== null) };
        return { words: released(done, clock), ...(mayDesign ? { undo } : {}) };
      },
    );
  };
  const undoRelease = (id: number, planned: boolean): Promise<boolean> =>
    attempt(
      (job) => command('undoRelease', { release: id }, job),
      ({ kept, cancelled }) => ({
        words: cancelled || planned ? CANCELLED : `${TAKEN_BACK}${keptWords(kept.length)}`,
      }),
    );
  return {
    ...attempts,
    said: attempts.said?.words === '' ? null : attempts.said,
    reach: ticked.size === 0 ? null : reachOfChosen(clock, chosen),
    ticked,
    tick: (keys, on) => setChanged(new Map([...changed, ...keys.map((k) => [k, on] as const)])),
    when,
    setWhen,
    asking,
    stopAsking: () => setAsking(null),
    ask,
    release,
    undoRelease,
    together,
    stopTaking: () => setTogether(null),
    ...editActs(attempt, setTogether),
  };
}

type Attempt = ReturnType<typeof useAttempts>['attempt'];

function reachOfChosen(
  { at }: Clock,
  { edits, drafts }: { edits: number[]; drafts: { entry: string }[] },
): ReachInput {
  return { at, steps: [], edits, drafts: drafts.map(({ entry }) => entry) };
}

/** What takes edits off the bench: which command, with what. */
export type TakingOff = { command: 'undoEdit' } | { command: 'discardEdits'; edits: number[] };

/** What goes with an edit that others build on, asked before it goes. */
export interface Together {
  taking: TakingOff;
  sentences: string[];
}

/** What is done with edits alone; `ask` is told what would go together. */
function editActs(
  attempt: Attempt,
  ask: (together: Together | null) => void,
): Pick<Bench, 'undo' | 'redo' | 'discard' | 'rebase' | 'takeOff'> {
  const send = (taking: TakingOff, dry: boolean) =>
    taking.command === 'undoEdit'
      ? command('undoEdit', { dry })
      : command('discardEdits', { edits: taking.edits, dry });
  const bringBack = (edits?: number[]): Promise<boolean> =>
    attempt(
      () => command('redoEdit', edits ? { edits } : {}),
      ({ sentences }) => ({ words: `On the bench again: ${sentences.join('; ')}.` }),
    );
  const takeOff = (taking: TakingOff): Promise<boolean> => {
    ask(null);
    const verb = taking.command === 'undoEdit' ? 'Taken back' : 'Thrown away';
    return attempt(
      () => send(taking, false),
      ({ edits, sentences }) => ({
        words: `${verb}: ${sentences.join('; ')}.`,
        undo: { label: 'Bring back', run: () => void bringBack(edits) },
      }),
    );
  };
  const tryOut = async (taking: TakingOff): Promise<void> => {
    const tried = await send(taking, true);
    if (tried.ok && tried.value.edits.length > 1)
      return ask({ taking, sentences: tried.value.sentences });
    await takeOff(taking);
  };
  return {
    takeOff,
    undo: () => tryOut({ command: 'undoEdit' }),
    discard: (edit) => tryOut({ command: 'discardEdits', edits: [edit] }),
    redo: () => bringBack(),
    rebase: (edit) =>
      attempt(
        () => command('rebaseEdit', { edit }),
        ({ sentence }) => ({ words: `Kept on top: ${sentence}.` }),
      ),
  };
}

const CANCELLED = 'Cancelled; its edits and drafts stand on the bench again.';
const TAKEN_BACK = 'Taken back: what was released before is released again.';

function keptWords(count: number): string {
  if (count === 0) return '';
  return ` ${counted(count, 'entry was', 'entries were')} published anew since, and left as they are.`;
}

/** Whoever looks has their own lines ticked, until they say otherwise. */
function tickedOf(detail: BenchDetail, changed: ReadonlyMap<string, boolean>): Set<string> {
  const lines: [string, boolean][] = [
    ...detail.edits.map((e): [string, boolean] => [editKey(e.id), e.mine && e.issues.length === 0]),
    ...detail.drafts.map((d): [string, boolean] => [draftKey(d.entry), d.mine]),
  ];
  return new Set(lines.filter(([key, own]) => changed.get(key) ?? own).map(([key]) => key));
}

function question(
  { at: starts }: Release,
  at: string | null,
  clock: Clock,
): Pick<Asking, 'title' | 'action' | 'when'> {
  if (at === null)
    return {
      title: 'Release this now?',
      action: 'Release now',
      when: 'It is public at once, and can be undone.',
    };
  const words = instantWords(starts, clock.zone, clock.now);
  return {
    title: `Release this at ${words}?`,
    action: `Release at ${words}`,
    when: `It is public from ${words} on (${clock.zone}), and can be cancelled until then.`,
  };
}

/** The instant typed, exact; null where it stands for none. */
export function typedInstant(bench: Bench, clock: Clock): string | null {
  return exactInstant(bench.when, clock.now, clock.zone);
}
