import {
  copyFileSync,
  existsSync,
  mkdirSync,
  readFileSync,
  readdirSync,
  renameSync,
  rmSync,
  rmdirSync,
  statSync,
  writeFileSync,
} from 'node:fs';
import { basename, dirname, join, resolve } from 'node:path';
import { DatabaseProblem } from '../db/problem.ts';
import { listFiles } from '../files/read-folder.ts';
import type { SavedFile } from './saved-file.ts';

/** What saving did to a folder. */
export interface SavedFolder {
  files: number;
  /** Files that were not there before or held something else. */
  written: number;
  removed: number;
}

const LAST = 'history.yaml';

/**
 * Writes a saved site into a folder. One that is new appears when it is whole; one that holds a
 * site saved before is brought up to date: only what differs is written, what is not of the site
 * any more goes, README.md and names that begin with a dot stay. `history.yaml` goes first and
 * comes last: without it a folder was not saved to the end, and does not load.
 * @throws DatabaseProblem where the folder holds something else, or cannot be written
 */
export function saveToFolder(
  files: Iterable<SavedFile>,
  folder: string,
  tell: (count: number) => void = () => undefined,
): SavedFolder {
  try {
    if (!existsSync(folder) || readdirSync(folder).length === 0)
      return saveNew(files, folder, tell);
    if (!existsSync(join(folder, LAST)) && !existsSync(join(folder, UNFINISHED)))
      throw notSavedBefore(folder);
    return update(files, folder, tell);
  } catch (error) {
    const { code = '' } = error as NodeJS.ErrnoException;
    if (error instanceof DatabaseProblem || !/^E[A-Z]+$/.test(code)) throw error;
    throw unwritable(folder, error as NodeJS.ErrnoException);
  }
}

/** Stands in a folder while it is being brought up to date. */
const UNFINISHED = '.bontel-saving';

function saveNew(
  files: Iterable<SavedFile>,
  folder: string,
  tell: (count: number) => void,
): SavedFolder {
  const whole = resolve(folder);
  const parts = `${whole}.saving-${process.pid}`;
  removeLeftovers(whole);
  let count = 0;
  try {
    for (const { path, content } of files) {
      put(join(parts, path), content);
      tell((count += 1));
    }
    if (existsSync(folder)) rmdirSync(folder);
    renameSync(parts, folder);
  } catch (error) {
    rmSync(parts, { recursive: true, force: true });
    throw error;
  }
  return { files: count, written: count, removed: 0 };
}

/** What savings that were killed have left beside a folder. */
function removeLeftovers(folder: string): void {
  const [place, name] = [dirname(folder), basename(folder)];
  if (!existsSync(place)) return;
  for (const other of readdirSync(place)) {
    const pid = other.startsWith(`${name}.saving-`) && Number(other.split('-').at(-1));
    if (pid && !isRunning(pid)) rmSync(join(place, other), { recursive: true });
  }
}

function isRunning(pid: number): boolean {
  try {
    process.kill(pid, 0);
    return true;
  } catch (error) {
    return (error as NodeJS.ErrnoException).code === 'EPERM';
  }
}

function update(
  files: Iterable<SavedFile>,
  folder: string,
  tell: (count: number) => void,
): SavedFolder {
  writeFileSync(join(folder, UNFINISHED), '');
  const former = join(folder, LAST);
  const history = existsSync(former) ? readFileSync(former, 'utf8') : null;
  rmSync(former, { force: true });
  const stale = new Set(listFiles(folder).files);
  const result: SavedFolder = { files: 0, written: 0, removed: 0 };
  for (const { path, content } of files) {
    stale.delete(path);
    const target = join(folder, path);
    const same = path === LAST ? content === history : holds(target, content);
    if (!same || path === LAST) {
      if (path === LAST) removeAll(folder, stale);
      put(`${target}.new`, content);
      renameSync(`${target}.new`, target);
    }
    if (!same) result.written += 1;
    tell((result.files += 1));
  }
  stale.delete('README.md');
  result.removed = stale.size;
  rmSync(join(folder, UNFINISHED));
  return result;
}

function holds(file: string, content: SavedFile['content']): boolean {
  const found = statSync(file, { throwIfNoEntry: false });
  if (!found?.isFile()) return false;
  if (typeof content === 'string')
    return found.size === content.length && readFileSync(file, 'latin1') === content;
  return (
    found.size === statSync(content.copyOf).size &&
    readFileSync(file).equals(readFileSync(content.copyOf))
  );
}

function put(file: string, content: SavedFile['content']): void {
  mkdirSync(dirname(file), { recursive: true });
  if (typeof content === 'string') writeFileSync(file, content);
  else copyFileSync(content.copyOf, file);
}

/** Files that are not of the site any more, with the folders that they leave empty. */
function removeAll(folder: string, paths: Iterable<string>): void {
  for (const path of paths) {
    if (path === 'README.md') continue;
    rmSync(join(folder, path));
    for (let up = dirname(path); up !== '.'; up = dirname(up)) {
      if (readdirSync(join(folder, up)).length > 0) break;
      rmdirSync(join(folder, up));
    }
  }
}

function notSavedBefore(folder: string): DatabaseProblem {
  return new DatabaseProblem(
    `${folder} holds something that was not saved here: it has no history.yaml.`,
    'Name a new folder, or one that a site was saved to before.',
  );
}

function unwritable(folder: string, { code, path }: NodeJS.ErrnoException): DatabaseProblem {
  return new DatabaseProblem(
    `${path ?? folder} cannot be written or read (${code}).`,
    code === 'ENOSPC' ? 'Free some space and save again.' : 'Check the folder and its permissions.',
  );
}
