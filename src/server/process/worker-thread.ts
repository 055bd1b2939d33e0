import { Worker } from 'node:worker_threads';

/** What stands between a process and one of its threads: a question, or the wish to end. */
export type ToThread<Q> = { question: Q } | 'stop';
/**
 * What a thread says: that it is ready, that its work goes on, or the answer to the question at
 * hand.
 */
export type FromThread<A> = { ready: true } | { step: true } | { answer: A };

/** Why a question got no answer of its own. */
export type Loss = 'crashed' | 'stuck' | 'unavailable';

/** How a thread is kept. */
export interface ThreadOptions<A> {
  file: URL;
  data: unknown;
  /** The answer to a question that got none. */
  lost: (loss: Loss) => A;
  /** How long a question may take without a step shown, ms. */
  patience?: number;
}

interface Asked<Q, A> {
  question: Q;
  resolve: (answer: A) => void;
}

const PATIENCE_MS = 60_000;
const MAX_BACKOFF_MS = 10_000;
/** How long a thread is given to end by itself, ms. */
const STOP_MS = 500;

/**
 * A thread that answers questions one after the other. One that ends or hangs is replaced, with
 * growing pauses; what it was asked is answered as lost, and the next question is served. A first
 * start that fails is fatal.
 */
export class WorkerThread<Q, A> {
  private worker: Worker | null = null;
  private isReady = false;
  private readonly queue: Asked<Q, A>[] = [];
  private atHand: Asked<Q, A> | null = null;
  private failures = 0;
  private stopping = false;
  private lastSign = 0;
  private loss: Loss = 'crashed';
  private readonly watchdog: NodeJS.Timeout;

  private constructor(private readonly options: ThreadOptions<A>) {
    this.watchdog = setInterval(() => this.watch(), 1000).unref();
  }

  /** Starts the thread; rejects where it cannot start. */
  static async start<Q, A>(options: ThreadOptions<A>): Promise<WorkerThread<Q, A>> {
    const thread = new WorkerThread<Q, A>(options);
    await new Promise<void>((resolve, reject) => thread.spawn(resolve, reject));
    return thread;
  }

  /** Has a question answered; one that can wait is asked when no other is left. */
  ask(question: Q, { canWait = false } = {}): Promise<A> {
    return new Promise((resolve) => {
      const asked = { question, resolve };
      if (canWait) this.queue.push(asked);
      else {
        const last = this.queue.findLastIndex((other) => this.urgent.has(other));
        this.urgent.add(asked);
        this.queue.splice(last + 1, 0, asked);
      }
      this.next();
    });
  }
  private readonly urgent = new WeakSet<Asked<Q, A>>();

  /** Lets the question at hand be answered within a time, and ends the thread. */
  async stop(within: number): Promise<void> {
    this.stopping = true;
    clearInterval(this.watchdog);
    const { worker } = this;
    if (!worker) return;
    const gone = new Promise<void>((resolve) => worker.once('exit', () => resolve()));
    worker.postMessage('stop' satisfies ToThread<Q>);
    await Promise.race([gone, pause(within + STOP_MS)]);
    await Promise.race([worker.terminate(), pause(STOP_MS)]);
  }

  private spawn(ready?: () => void, failed?: (error: unknown) => void): void {
    const worker = new Worker(this.options.file, { workerData: this.options.data });
    this.worker = worker;
    this.loss = 'crashed';
    let problem: unknown = new Error('The thread ended before it was ready.');
    worker.on('message', (message: FromThread<A>) => {
      this.lastSign = Date.now();
      if ('answer' in message) this.settle(message.answer);
      else if ('ready' in message) {
        this.isReady = true;
        ready?.();
        this.next();
      }
    });
    worker.on('error', (error) => (problem = error));
    worker.once('exit', () => {
      const started = this.isReady;
      this.isReady = false;
      this.worker = null;
      if (this.atHand) this.settle(this.options.lost(this.loss));
      if (!started && failed) return failed(problem);
      if (!this.stopping) this.again(started);
    });
  }

  /**
   * Starts another thread after a pause; while none can start, what was asked is answered as
   * such.
   */
  private again(started: boolean): void {
    this.failures++;
    if (!started) {
      const waiting = this.queue.splice(0);
      for (const { resolve } of waiting) resolve(this.options.lost('unavailable'));
    }
    const wait = Math.min(MAX_BACKOFF_MS, 100 * 2 ** Math.min(this.failures, 10));
    setTimeout(() => {
      if (!this.stopping) this.spawn();
    }, wait).unref();
  }

  private next(): void {
    if (!this.isReady || this.atHand || this.queue.length === 0) return;
    this.atHand = this.queue.shift()!;
    this.lastSign = Date.now();
    this.worker!.postMessage({ question: this.atHand.question } satisfies ToThread<Q>);
  }

  private settle(answer: A): void {
    const { atHand } = this;
    this.atHand = null;
    if (this.isReady) this.failures = 0;
    atHand?.resolve(answer);
    this.next();
  }

  private watch(): void {
    const { patience = PATIENCE_MS } = this.options;
    if (!this.atHand || Date.now() - this.lastSign < patience) return;
    this.loss = 'stuck';
    void this.worker?.terminate();
  }
}

function pause(ms: number): Promise<void> {
  return new Promise((resolve) => setTimeout(resolve, ms).unref());
}
