import type { Issue } from '@/core/issue.ts';
import { raiseBench } from '../../store/write.ts';
import { type CommandContext, Refused } from '../definition.ts';
import { deriveMany } from '../derive-entry.ts';
import type { Before } from './definition.ts';

/** So often entries that cannot have their addresses are left out, before all of it is refused. */
const ROUNDS = 6;

/** What was done: what was so before, and why others were left as they are, by id. */
export interface DoneToAll {
  done: Map<string, Before>;
  left: Map<string, readonly Issue[]>;
}

/** Undoes what was done so far, for others to be left out. */
class LeaveOut extends Error {
  constructor(readonly refused: ReadonlyMap<string, readonly Issue[]>) {
    super('leave out');
  }
}

/**
 * Does something to entries, one by one, and derives what follows from all of it. Those that it
 * cannot be done to, by themselves or because of their addresses, are left out; what `act` gives
 * null for is as it was.
 * @throws Refused where it would take others off the site
 */
export function deriveAll(
  context: CommandContext,
  ids: readonly string[],
  act: (id: string) => Before | null,
): DoneToAll {
  const { driver } = context.connection;
  const without = new Map<string, readonly Issue[]>();
  for (let round = 1; ; round++)
    try {
      return driver.transaction(() => doAll(context, ids, { without, act }))();
    } catch (error) {
      if (!(error instanceof LeaveOut) || round === ROUNDS) throw inWords(error);
      for (const [id, issues] of error.refused) without.set(id, issues);
    }
}

function inWords(error: unknown): unknown {
  return error instanceof LeaveOut ? new Refused(...[...error.refused.values()].flat()) : error;
}

function doAll(
  context: CommandContext,
  ids: readonly string[],
  { without, act }: { without: ReadonlyMap<string, readonly Issue[]>; act: (id: string) => Before },
): DoneToAll {
  const done = new Map<string, Before>();
  const left = new Map(without);
  for (const id of ids) {
    if (without.has(id)) continue;
    context.step();
    try {
      const before = act(id);
      if (before !== null) done.set(id, before);
    } catch (error) {
      if (!(error instanceof Refused)) throw error;
      left.set(id, error.issues);
    }
  }
  const refused = deriveMany(context, done);
  if (refused.size > 0) throw new LeaveOut(refused);
  raiseBench(context.connection);
  return { done, left };
}
