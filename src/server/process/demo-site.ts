import { execFile } from 'node:child_process';
import { existsSync } from 'node:fs';
import { fileURLToPath } from 'node:url';
import { promisify } from 'node:util';
import type { Issue, Result } from '@/core/issue.ts';
import type { DataFolder } from './data-folder.ts';

const run = promisify(execFile);
const MOST_MS = 120_000;
const MOST_BYTES = 16 * 1024 * 1024;

/** What the command line says of a load, as JSON. */
type Said = { loaded: true; entries: number } | { loaded: false; issues: Issue[] };

/** The demo that comes with the program, loaded by a process of its own as the command line does. */
export class DemoSite {
  private readonly folder = fileURLToPath(new URL('../demo/site', import.meta.url));
  private readonly commandLine = fileURLToPath(new URL('./cli.js', import.meta.url));
  private running: Promise<Result<{ entries: number }>> | null = null;

  constructor(private readonly data: DataFolder) {}

  /** Loads it, once however often it is asked for meanwhile; tells how many entries it has. */
  load(): Promise<Result<{ entries: number }>> {
    this.running ??= this.loaded().finally(() => (this.running = null));
    return this.running;
  }

  private async loaded(): Promise<Result<{ entries: number }>> {
    if (!existsSync(this.folder)) return failed('The demo is not installed with this program.');
    const { commandLine, folder, data } = this;
    const words = [commandLine, 'load', folder, '--data', data.folder, '--json'];
    const options = { timeout: MOST_MS, maxBuffer: MOST_BYTES };
    try {
      const { stdout } = await run(process.execPath, words, options);
      return read(stdout);
    } catch (error) {
      return read((error as { stdout?: string }).stdout ?? '');
    }
  }
}

function read(text: string): Result<{ entries: number }> {
  try {
    const said = JSON.parse(text) as Said;
    if (!said.loaded) return { ok: false, issues: said.issues };
    return { ok: true, value: { entries: said.entries } };
  } catch {
    return failed('Loading the demo did not come to an end.');
  }
}

function failed(message: string): Result<never> {
  const fix = 'Try `npx bontel load demo/site` in the folder of the program.';
  return { ok: false, issues: [{ code: 'not-loaded', message, fix }] };
}
