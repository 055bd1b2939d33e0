import type { CommandInput, CommandName, CommandResult } from './commands/index.ts';
import type { Actor } from './commands/permit.ts';
import type { WriterQuestion } from './writer.ts';
import { WorkerThread } from './worker-thread.ts';
import { type Result, refused } from '@/core/issue.ts';

const LOST = refused({
  code: 'outcome-unknown',
  message: 'The writer stopped while this change was under way; it was made whole or not at all.',
  fix: 'Reload the page to see how things stand, then try again.',
});

/** The one thread that writes. */
export class WriterThread {
  private constructor(private readonly thread: WorkerThread<WriterQuestion, Result<unknown>>) {}

  /** Starts the thread; rejects where the database cannot be opened for writing. */
  static async start(database: string): Promise<WriterThread> {
    return new WriterThread(
      await WorkerThread.start<WriterQuestion, Result<unknown>>(
        new URL('./writer.js', import.meta.url),
        { database },
        LOST,
      ),
    );
  }

  /** Has a command carried out; problems come back as issues. */
  run<N extends CommandName>(
    name: N,
    actor: Actor,
    input: CommandInput<N>,
  ): Promise<CommandResult<N>> {
    return this.thread.ask({ name, actor, input }) as Promise<CommandResult<N>>;
  }

  /** Lets the command at hand finish, checkpoints, and ends the thread. */
  stop(): Promise<void> {
    return this.thread.stop();
  }
}
