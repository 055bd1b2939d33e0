import { mkdtempSync, rmSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';

let folder: string | null = null;

/** A folder for what is made while a site folder is read; it goes when the process ends. */
export function scratchFolder(): string {
  if (folder !== null) return folder;
  const made = mkdtempSync(join(tmpdir(), 'bontel-media-'));
  process.once('exit', () => rmSync(made, { recursive: true, force: true }));
  return (folder = made);
}
