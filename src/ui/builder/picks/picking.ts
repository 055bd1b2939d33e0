import type { PickLine } from '@/server/queries/picks.ts';
import { command } from '../send.ts';
import type { Attempts, Said } from '../use-attempts.ts';

/** A stretch in picks by its id, and what its entry is called. */
export type Picked = Pick<PickLine, 'id' | 'name'>;

/** When something is to join or leave: local times or instants; null for at once, or never. */
export interface Times {
  from: string | null;
  to: string | null;
}

/** What can be done with picks; each is told, and can be taken back. */
export interface Picking {
  add: (entry: { id: string; name: string }, times?: Times) => void;
  takeOut: (picked: Picked) => void;
  setTimes: (picked: Picked & Pick<PickLine, 'from' | 'to'>, times: Times) => Promise<boolean>;
  /** Moves it right before another one, by its id; last where that is null. */
  move: (picked: Picked, before: number | null) => void;
}

/** Who stands in picks, changed at once: what is done holds from now on. */
export function picking(
  picks: { id: string; label: string },
  attempt: Attempts['attempt'],
): Picking {
  const told = (words: string, undo?: () => void): Said => ({
    words,
    ...(undo ? { undo: { label: 'Undo', run: undo } } : {}),
  });
  const put = (
    input: { entry: string; to: string | null; before: number | null } & Partial<Times>,
    words: string,
    undo?: (id: number) => void,
  ): Promise<boolean> =>
    attempt(
      () => command('pick', { picks: picks.id, ...input }),
      ({ id }) => told(words, undo && (() => undo(id))),
    );
  const takeOut = ({ id, name }: Picked, isUndo = false): Promise<boolean> =>
    attempt(
      () => command('unpick', { id }),
      ({ was, before }) => {
        const to = was.to === null ? null : iso(was.to);
        const back = { entry: was.entry, from: later(was.from), to, before };
        return told(
          `“${name}” is not in ${picks.label} any more.`,
          isUndo ? undefined : () => void put(back, `“${name}” is in ${picks.label} again.`),
        );
      },
    );
  const move = (picked: Picked, before: number | null, isUndo = false): Promise<boolean> =>
    attempt(
      () => command('movePick', { id: picked.id, before }),
      (done) =>
        told(
          isUndo ? `“${picked.name}” is back at its place.` : `“${picked.name}” moved.`,
          isUndo ? undefined : () => void move({ ...picked, id: done.id }, done.before, true),
        ),
    );
  const setTimes: Picking['setTimes'] = (picked, times) =>
    attempt(
      () => command('changePick', { id: picked.id, ...times }),
      ({ was }) => {
        const before = { from: times.from && iso(was.from), to: was.to && iso(was.to) };
        return told(
          `“${picked.name}”: changed when it is in ${picks.label}.`,
          () => void setTimes(picked, { ...before, to: before.to || null }),
        );
      },
    );
  return {
    add: ({ id: entry, name }, times = { from: null, to: null }) =>
      void put(
        { entry, ...times, before: null },
        `“${name}” is in ${picks.label}.`,
        (id) => void takeOut({ id, name }, true),
      ),
    takeOut: (picked) => void takeOut(picked),
    setTimes,
    move: (picked, before) => void move(picked, before),
  };
}

const iso = (at: number): string => new Date(at).toISOString();

/** An instant that still lies ahead; null for one that has passed. */
function later(at: number): string | null {
  return at > Date.now() ? iso(at) : null;
}
