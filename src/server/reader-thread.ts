import type { QueryInput, QueryName, QueryResult } from './queries/index.ts';
import type { ReaderAnswer, ReaderQuestion } from './reader.ts';
import { WorkerThread } from './worker-thread.ts';

/** The thread that answers what may take long: screens and site maps. Public pages never wait for it. */
export class ReaderThread {
  private constructor(private readonly thread: WorkerThread<ReaderQuestion, ReaderAnswer>) {}

  /** Starts the thread; rejects where the database cannot be opened. */
  static async start(database: string): Promise<ReaderThread> {
    return new ReaderThread(
      await WorkerThread.start<ReaderQuestion, ReaderAnswer>(
        new URL('./reader.js', import.meta.url),
        { database },
        { failed: 'The reader stopped while it was asked.' },
      ),
    );
  }

  /** Has a query answered. @throws Error where it failed: a fault of the program, or a right that is missing. */
  async ask<N extends QueryName>(name: N, ...input: QueryInput<N>): Promise<QueryResult<N>> {
    const answer = await this.thread.ask({ name, input });
    if ('failed' in answer) throw new Error(answer.failed);
    return answer.value as QueryResult<N>;
  }

  /** Ends the thread. */
  stop(): Promise<void> {
    return this.thread.stop();
  }
}
