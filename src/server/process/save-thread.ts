import { Worker } from 'node:worker_threads';
import type { Actor } from '../permit.ts';
import type { DataFolder } from './data-folder.ts';

/** What the thread that saves a site says, each time it is asked for more. */
export type FromSaver = { chunk: Uint8Array } | { done: true } | { failed: string };

/** Saves the site for downloads: each in a thread of its own, one at a time. */
export class Saver {
  private running: Worker | null = null;

  constructor(private readonly data: DataFolder) {}

  /** Whether one is being made. */
  get busy(): boolean {
    return this.running !== null;
  }

  /** The whole site as a ZIP archive, made as it is read. */
  zip(actor: Actor): ReadableStream<Uint8Array> {
    const worker = new Worker(new URL('./saver.js', import.meta.url), {
      workerData: { data: this.data, actor },
    });
    this.running = worker;
    const said = answersOf(worker);
    worker.once('exit', () => (this.running = null));
    return new ReadableStream<Uint8Array>({
      async pull(controller) {
        worker.postMessage('more');
        const answer = await said();
        if ('chunk' in answer) controller.enqueue(answer.chunk);
        else if ('done' in answer) controller.close();
        else controller.error(new Error(answer.failed));
      },
      cancel: () => void worker.terminate(),
    });
  }

  /** Ends what is being made. */
  async stop(): Promise<void> {
    await this.running?.terminate();
  }
}

/** The next thing that a worker says; that it failed where it ends first. */
function answersOf(worker: Worker): () => Promise<FromSaver> {
  let problem: unknown = new Error('Saving was ended.');
  worker.on('error', (error) => (problem = error));
  const gone = new Promise<FromSaver>((resolve) =>
    worker.once('exit', () => resolve({ failed: String(problem) })),
  );
  return () =>
    Promise.race([new Promise<FromSaver>((resolve) => worker.once('message', resolve)), gone]);
}
