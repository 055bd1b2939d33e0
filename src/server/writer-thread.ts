import { Worker } from 'node:worker_threads';
import type { CommandInput, CommandName, CommandResult } from './commands/index.ts';
import type { Actor } from './commands/permit.ts';
import type { WriterReply, WriterRequest } from './writer.ts';
import { type Result, refused } from '@/core/issue.ts';

type Pending = { resolve: (result: Result<unknown>) => void };

const MAX_BACKOFF_MS = 10_000;

/** The one thread that writes. Restarts with back-off; a first start that fails is fatal. */
export class WriterThread {
  private worker!: Worker;
  private ready!: Promise<void>;
  private readonly pending = new Map<number, Pending>();
  private next = 1;
  private failures = 0;
  private stopping = false;

  private constructor(private readonly database: string) {}

  /** Starts the thread; rejects where the database cannot be opened for writing. */
  static async start(database: string): Promise<WriterThread> {
    const thread = new WriterThread(database);
    thread.spawn();
    await thread.ready;
    return thread;
  }

  /** Has a command carried out; problems come back as issues. */
  async run<N extends CommandName>(name: N, actor: Actor, input: CommandInput<N>): Promise<CommandResult<N>> {
    await this.ready;
    const id = this.next++;
    return new Promise((resolve) => {
      this.pending.set(id, { resolve: resolve as Pending['resolve'] });
      this.worker.postMessage({ id, name, actor, input } satisfies WriterRequest);
    });
  }

  /** Lets the command at hand finish, checkpoints, and ends the thread. */
  async stop(): Promise<void> {
    this.stopping = true;
    const gone = new Promise((resolve) => this.worker.once('exit', resolve));
    this.worker.postMessage('stop');
    await gone;
  }

  private spawn(): void {
    const worker = new Worker(new URL('./writer.js', import.meta.url), { workerData: { database: this.database } });
    this.worker = worker;
    this.ready = new Promise((resolve, reject) => {
      worker.on('message', (reply: WriterReply) => {
        if ('ready' in reply) {
          this.failures = 0;
          resolve();
        } else this.settle(reply);
      });
      worker.once('error', (error) => reject(error));
    });
    this.ready.catch(() => undefined);
    worker.once('exit', () => this.exited());
  }

  private settle(reply: Exclude<WriterReply, { ready: true }>): void {
    const pending = this.pending.get(reply.id);
    this.pending.delete(reply.id);
    if ('result' in reply) pending?.resolve(reply.result as Result<unknown>);
    else pending?.resolve(refused({ code: 'not-written', ...reply.problem }));
  }

  private exited(): void {
    for (const { resolve } of this.pending.values()) resolve(refused({ code: 'outcome-unknown', message: 'The writer stopped while this change was under way; it was made whole or not at all.', fix: 'Reload the page to see how things stand, then try again.' }));
    this.pending.clear();
    if (this.stopping) return;
    const wait = Math.min(MAX_BACKOFF_MS, 100 * 2 ** this.failures++);
    // Armed here, so that commands sent in the gap wait for the next thread.
    this.ready = new Promise((resolve) => setTimeout(resolve, wait)).then(() => {
      this.spawn();
      return this.ready;
    });
  }
}
