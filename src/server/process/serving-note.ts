import { readFileSync, rmSync, writeFileSync } from 'node:fs';
import { join } from 'node:path';

const noteIn = (folder: string): string => join(folder, 'serving.json');

/**
 * Leaves a note in the data folder, while a server works with it: which process, at which
 * address.
 */
export function noteServing(folder: string, url: string): void {
  writeFileSync(noteIn(folder), JSON.stringify({ pid: process.pid, url }));
}

/** Takes the note away, where it is this process's. */
export function noteStopped(folder: string): void {
  try {
    const { pid } = JSON.parse(readFileSync(noteIn(folder), 'utf8')) as { pid: number };
    if (pid === process.pid) rmSync(noteIn(folder), { force: true });
  } catch {
    // no note, or one that cannot be read: nothing to take away
  }
}
