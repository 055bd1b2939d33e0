import { Worker } from 'node:worker_threads';

/** What stands between a process and one of its threads: a question with its number, or the wish to end. */
export type ToThread<Q> = { id: number; question: Q } | 'stop';
/** What a thread says: that it is ready, or the answer to a question. */
export type FromThread<A> = { ready: true } | { id: number; answer: A };

const MAX_BACKOFF_MS = 10_000;

/** A thread that answers questions in turn. Restarts with back-off; a first start that fails is fatal. */
export class WorkerThread<Q, A> {
  private worker!: Worker;
  private ready!: Promise<void>;
  private readonly pending = new Map<number, (answer: A) => void>();
  private next = 1;
  private failures = 0;
  private stopping = false;

  private constructor(
    private readonly file: URL,
    private readonly data: unknown,
    private readonly lost: A,
  ) {}

  /** Starts the thread; rejects where it cannot start. `lost` answers what it was asked when it ended early. */
  static async start<Q, A>(file: URL, data: unknown, lost: A): Promise<WorkerThread<Q, A>> {
    const thread = new WorkerThread<Q, A>(file, data, lost);
    thread.spawn();
    await thread.ready;
    return thread;
  }

  /** Has a question answered. */
  async ask(question: Q): Promise<A> {
    await this.ready;
    const id = this.next++;
    return new Promise((resolve) => {
      this.pending.set(id, resolve);
      this.worker.postMessage({ id, question } satisfies ToThread<Q>);
    });
  }

  /** Lets the question at hand be answered, and ends the thread. */
  async stop(): Promise<void> {
    this.stopping = true;
    const gone = new Promise((resolve) => this.worker.once('exit', resolve));
    this.worker.postMessage('stop' satisfies ToThread<Q>);
    await gone;
  }

  private spawn(): void {
    const worker = new Worker(this.file, { workerData: this.data });
    this.worker = worker;
    this.ready = new Promise((resolve, reject) => {
      worker.on('message', (message: FromThread<A>) => {
        if ('ready' in message) {
          this.failures = 0;
          resolve();
        } else this.settle(message.id, message.answer);
      });
      worker.once('error', (error) => reject(error));
    });
    this.ready.catch(() => undefined);
    worker.once('exit', () => this.exited());
  }

  private settle(id: number, answer: A): void {
    this.pending.get(id)?.(answer);
    this.pending.delete(id);
  }

  private exited(): void {
    for (const id of [...this.pending.keys()]) this.settle(id, this.lost);
    if (this.stopping) return;
    const wait = Math.min(MAX_BACKOFF_MS, 100 * 2 ** this.failures++);
    // Armed here, so that what is asked in the gap waits for the next thread.
    this.ready = new Promise((resolve) => setTimeout(resolve, wait)).then(() => {
      this.spawn();
      return this.ready;
    });
  }
}
