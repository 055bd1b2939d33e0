import { spawn } from 'node:child_process';
import { mkdirSync, readFileSync, rmSync, writeFileSync } from 'node:fs';
import { dirname, join } from 'node:path';
import { fileURLToPath } from 'node:url';
import { openDatabase } from '@/server/db/connection.ts';
import { listFiles } from '@/server/files/read-folder.ts';
import { type PerfRow, reported } from './measure.ts';

const root = fileURLToPath(new URL('..', import.meta.url));

/** Saving 100,000 entries as files, and loading them, against writing files and rows alone. */
export async function measureSaving(data: string, cache: string): Promise<PerfRow[]> {
  const [folder, bare, again] = ['saved', 'bare', 'again'].map((name) => join(cache, name));
  for (const path of [folder!, bare!, again!]) rmSync(path, { recursive: true, force: true });
  try {
    const saved = await measured('save', folder!, '--data', data);
    const written = writeAgain(folder!, bare!);
    const loaded = await measured('load', folder!, '--data', again!);
    const inserted = insertAgain(again!);
    console.log(
      `  saved in ${saved.seconds.toFixed(1)} s (${saved.peak} MB at most), files alone ` +
        `${written.toFixed(1)} s; loaded in ${loaded.seconds.toFixed(1)} s (${loaded.peak} MB), ` +
        `rows alone ${inserted.toFixed(1)} s`,
    );
    return [
      reported('save 100,000 entries / the same files written alone', saved.seconds / written),
      reported('load them / the same rows inserted alone', loaded.seconds / inserted),
    ];
  } finally {
    for (const path of [folder!, bare!, again!]) rmSync(path, { recursive: true, force: true });
  }
}

/** Runs a command of the built command line: how long, and how much memory at most. */
function measured(...args: string[]): Promise<{ seconds: number; peak: number }> {
  const from = performance.now();
  const child = spawn(process.execPath, [join(root, 'dist/cli.js'), ...args], { stdio: 'ignore' });
  let peak = 0;
  const watch = setInterval(() => {
    try {
      const status = readFileSync(`/proc/${child.pid}/status`, 'utf8');
      peak = Math.max(peak, Number(/VmHWM:\s+(\d+)/.exec(status)?.[1] ?? 0));
    } catch {
      // it has ended
    }
  }, 100);
  return new Promise((resolve, reject) => {
    child.once('exit', (code) => {
      clearInterval(watch);
      if (code !== 0) return reject(new Error(`bontel ${args[0]} ended with ${code}.`));
      const seconds = (performance.now() - from) / 1000;
      resolve({ seconds, peak: Math.round(peak / 1024) });
    });
  });
}

/** Writes a folder's files once more, at once; seconds. */
function writeAgain(folder: string, target: string): number {
  const files = listFiles(folder).files.map(
    (path) => [path, readFileSync(join(folder, path))] as const,
  );
  const from = performance.now();
  for (const [path, content] of files) {
    mkdirSync(dirname(join(target, path)), { recursive: true });
    writeFileSync(join(target, path), content);
  }
  return (performance.now() - from) / 1000;
}

/** Inserts a database's rows into another of the same form, with their indexes; seconds. */
function insertAgain(data: string): number {
  const target = join(data, 'rows.db');
  const connection = openDatabase(target);
  const { driver } = connection;
  driver.prepare('ATTACH ? AS site').run(join(data, 'site.db'));
  const tables = [
    'person',
    'entry',
    'revision',
    'planned_change',
    'by_hand',
    'live_interval',
    'address',
    'reference_edge',
  ];
  const from = performance.now();
  driver.exec(
    `BEGIN; ${tables.map((t) => `INSERT INTO main.${t} SELECT * FROM site.${t};`).join(' ')} COMMIT`,
  );
  const seconds = (performance.now() - from) / 1000;
  connection.close();
  return seconds;
}
