import { parentPort, workerData } from 'node:worker_threads';
import { type Staged, stageFolder } from '../uploads/stage-folder.ts';

/** What the thread that reads content from elsewhere is given: where it lies, and where it goes. */
export interface ToStager {
  from: string;
  place: string;
}

/** What it says: each step, and at last what it saw, or that it could not. */
export type FromStager = { step: string } | { staged: Staged } | { failed: string };

const { from, place } = workerData as ToStager;
const say = (message: FromStager): void => parentPort!.postMessage(message);
stageFolder(from, place, { tell: (step) => say({ step }) }).then(
  (staged) => say({ staged }),
  (error: unknown) => {
    const { code } = error as NodeJS.ErrnoException;
    say({ failed: code === 'ENOSPC' ? 'The server’s disk is full.' : String(error) });
  },
);
