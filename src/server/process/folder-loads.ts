import { spawn } from 'node:child_process';
import { existsSync } from 'node:fs';
import { createInterface } from 'node:readline';
import { fileURLToPath } from 'node:url';
import type { Issue, Result } from '@/core/issue.ts';
import type { Trial } from '../commands/load/trial.ts';
import type { DataFolder } from './data-folder.ts';

/** A load is given up after so long, ms. */
const MOST_MS = 30 * 60_000;
const MOST_CHARS = 16 * 1024 * 1024;

/** What was loaded, in numbers. */
export interface LoadedSite {
  entries: number;
  pictures: number;
}

/** What the command line says of a load, as JSON. */
type Said<T> = ({ loaded?: true; tried?: true } & T) | { loaded: false; issues: Issue[] };

interface Watching {
  tell?: (step: string) => void;
  signal?: AbortSignal;
}

/**
 * Site folders loaded by a process of its own, as the command line does, so that the server goes
 * on answering meanwhile; one at a time.
 */
export class FolderLoads {
  private readonly demo = fileURLToPath(new URL('../demo/site', import.meta.url));
  private readonly commandLine = fileURLToPath(new URL('./cli.js', import.meta.url));
  private running = false;

  constructor(private readonly data: DataFolder) {}

  /** Loads the demo that comes with the program. */
  loadDemo(): Promise<Result<LoadedSite>> {
    if (existsSync(this.demo)) return this.load(this.demo);
    return Promise.resolve(failed('The demo is not installed with this program.'));
  }

  /** Puts a folder's site in place of what is there: all of it or nothing. */
  load(folder: string, watching?: Watching): Promise<Result<LoadedSite>> {
    return this.run<LoadedSite>([folder], watching);
  }

  /** Tells what loading a folder would do. */
  try(folder: string, watching?: Watching): Promise<Result<Trial>> {
    return this.run<Trial>([folder, '--dry-run'], watching);
  }

  private async run<T>(words: string[], { tell, signal }: Watching = {}): Promise<Result<T>> {
    if (this.running) return failed('Another site is being loaded just now.');
    this.running = true;
    const all = [this.commandLine, 'load', ...words, '--data', this.data.folder, '--json'];
    const child = spawn(process.execPath, all, {
      stdio: ['ignore', 'pipe', 'pipe'],
      timeout: MOST_MS,
      ...(signal ? { signal } : {}),
    });
    createInterface({ input: child.stderr }).on('line', (line) => tell?.(line));
    try {
      return await new Promise((resolve) => {
        let text = '';
        child.stdout.setEncoding('utf8').on('data', (part: string) => {
          text += part;
          if (text.length > MOST_CHARS) child.kill();
        });
        child.once('error', () => resolve(read<T>('')));
        child.once('close', () => resolve(read<T>(text)));
      });
    } finally {
      this.running = false;
    }
  }
}

function read<T>(text: string): Result<T> {
  try {
    const said = JSON.parse(text) as Said<T>;
    if (said.loaded === false) return { ok: false, issues: (said as { issues: Issue[] }).issues };
    return { ok: true, value: said as T };
  } catch {
    return failed('Loading did not come to an end; nothing was changed.');
  }
}

function failed(message: string): Result<never> {
  const fix = 'Try again in a moment, or `npx bontel load FOLDER` on the command line.';
  return { ok: false, issues: [{ code: 'not-loaded', message, fix }] };
}
