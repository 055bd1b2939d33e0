import type { Actor } from '../permit.ts';
import type { QueryInput, QueryName, QueryResult } from '../queries/index.ts';
import type { OutcomeAnswer } from '../queries/outcomes.ts';
import type { ReaderAnswer, ReaderQuestion } from './reader.ts';
import { type Loss, WorkerThread } from './worker-thread.ts';

const LOST: Record<Loss, string> = {
  crashed: 'The reader stopped while it was asked.',
  stuck: 'The reader took more than a minute and was ended.',
  unavailable: 'The reader does not start.',
};

/**
 * The thread that answers what may take long: screens and site maps. Public pages never wait for
 * it.
 */
export class ReaderThread {
  private constructor(private readonly thread: WorkerThread<ReaderQuestion, ReaderAnswer>) {}

  /** Starts the thread; rejects where the database cannot be opened. */
  static async start(database: string): Promise<ReaderThread> {
    return new ReaderThread(
      await WorkerThread.start<ReaderQuestion, ReaderAnswer>({
        file: new URL('./reader.js', import.meta.url),
        data: { database },
        lost: (loss) => ({ failed: LOST[loss] }),
      }),
    );
  }

  /**
   * Has a query answered; files for the public wait for the screens. @throws Error where it
   * failed: a fault of the program, or a right that is missing
   */
  async ask<N extends QueryName>(name: N, ...input: QueryInput<N>): Promise<QueryResult<N>> {
    const canWait = name === 'publicFile';
    return valueOf(await this.thread.ask({ name, input }, { canWait })) as QueryResult<N>;
  }

  /** What unsaved values or settings would make of the site; `text` is JSON as somebody sent it. */
  async outcome(what: string, actor: Actor, text: string): Promise<OutcomeAnswer> {
    return valueOf(await this.thread.ask({ outcome: what, actor, text })) as OutcomeAnswer;
  }

  /** Ends the thread, at the latest after a time (ms). */
  stop(within: number): Promise<void> {
    return this.thread.stop(within);
  }
}

function valueOf(answer: ReaderAnswer): unknown {
  if ('failed' in answer) throw new Error(answer.failed);
  return answer.value;
}
