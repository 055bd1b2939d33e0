import { existsSync, rmSync } from 'node:fs';
import { join } from 'node:path';
import { Worker } from 'node:worker_threads';
import { type Result, ok, refused } from '@/core/issue.ts';
import { type Staged, stageFile } from '../uploads/stage-folder.ts';
import type { FromStager, ToStager } from './stager.ts';

/** What uploads are known by; nothing else names a place. */
const UPLOAD = /^[0-9a-f-]{36}$/;

interface Watching {
  tell: (step: string) => void;
  signal: AbortSignal;
}

/** Content from elsewhere that was sent, read into a file each, until it is brought in. */
export class BringIns {
  private readonly root: string;

  /** Keeps them below the data folder; what a former process left there is thrown away. */
  constructor(readonly dataFolder: string) {
    this.root = join(dataFolder, 'bring-in');
    rmSync(this.root, { recursive: true, force: true });
  }

  /** Reads what lies in a folder, in a thread of its own; ends where whoever asked goes away. */
  look(id: string, from: string, { tell, signal }: Watching): Promise<Result<Staged>> {
    return new Promise((resolve) => {
      const given: ToStager = { from, place: this.placeOf(id) };
      const worker = new Worker(new URL('./stager.js', import.meta.url), { workerData: given });
      let result = failed('Reading did not come to an end.');
      const end = (): void => void worker.terminate();
      signal.addEventListener('abort', end);
      worker.on('message', (message: FromStager) => {
        if ('step' in message) tell(message.step);
        else if ('staged' in message) result = ok(message.staged);
        else result = failed(message.failed);
      });
      worker.on('error', (error) => console.error(error));
      worker.once('exit', () => {
        signal.removeEventListener('abort', end);
        if (signal.aborted) this.discard(id);
        resolve(result);
      });
    });
  }

  /** The file that something was read into; null where it is not there any more. */
  stageOf(id: string): string | null {
    if (!UPLOAD.test(id)) return null;
    const file = stageFile(this.placeOf(id));
    return existsSync(file) ? file : null;
  }

  /** Throws away what was read. */
  discard(id: string): void {
    if (UPLOAD.test(id)) rmSync(this.placeOf(id), { recursive: true, force: true });
  }

  private placeOf(id: string): string {
    return join(this.root, id);
  }
}

function failed(message: string): Result<Staged> {
  return refused({ code: 'not-read', message, fix: 'Nothing was changed. Try again in a moment.' });
}
