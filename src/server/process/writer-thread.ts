import { type Result, refused } from '@/core/issue.ts';
import type { CommandInput, CommandName, CommandResult } from '../commands/index.ts';
import type { Actor } from '../permit.ts';
import type { PlannedWrite } from '../planning/plan-write.ts';
import { type Loss, WorkerThread } from './worker-thread.ts';
import type { WriterQuestion } from './writer.ts';

const LOST: Record<Loss, Result<never>> = {
  crashed: refused({
    code: 'outcome-unknown',
    message: 'The writer stopped while this change was under way; it was made whole or not at all.',
    fix: 'Reload the page to see how things stand, then try again.',
  }),
  stuck: refused({
    code: 'too-long',
    message: 'This change showed no progress for a minute and was ended; nothing was changed.',
    fix: 'Try it in smaller parts. Other changes go on.',
  }),
  unavailable: refused({
    code: 'unavailable',
    message: 'Nothing can be written at the moment: the writer does not start.',
    fix: 'The server’s log says why. It is tried again by itself; your words are kept.',
  }),
};

/** The one thread that writes. */
export class WriterThread {
  private constructor(private readonly thread: WorkerThread<WriterQuestion, Result<unknown>>) {}

  /**
   * Starts the thread; rejects where the database cannot be opened for writing. `patience` in ms.
   */
  static async start(database: string, patience?: number): Promise<WriterThread> {
    return new WriterThread(
      await WorkerThread.start<WriterQuestion, Result<unknown>>({
        file: new URL('./writer.js', import.meta.url),
        data: { database },
        lost: (loss) => LOST[loss],
        ...(patience === undefined ? {} : { patience }),
      }),
    );
  }

  /** Has a command carried out; problems come back as issues. */
  run<N extends CommandName>(
    name: N,
    actor: Actor,
    input: CommandInput<N>,
  ): Promise<CommandResult<N>> {
    return this.send(name, actor, JSON.stringify(input)) as Promise<CommandResult<N>>;
  }

  /**
   * Has a command carried out whose input is JSON as somebody sent it: it is read on the thread.
   * With `few` it is given back as `too-many` where it concerns more than a thousand entries.
   */
  send(
    name: CommandName,
    actor: Actor,
    input: string,
    { few = false } = {},
  ): Promise<Result<unknown>> {
    return this.thread.ask({ name, actor, input, few });
  }

  /** Has a write hold that was worked out on a copy; `overtaken` where it does not fit any more. */
  apply(plan: PlannedWrite): Promise<Result<unknown>> {
    return this.thread.ask({ apply: plan });
  }

  /** Lets the command at hand finish within a time (ms), checkpoints, and ends the thread. */
  stop(within: number): Promise<void> {
    return this.thread.stop(within);
  }
}
