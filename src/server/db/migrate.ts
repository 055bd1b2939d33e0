import type Database from 'better-sqlite3';
import { readFileSync } from 'node:fs';
import { searchKey } from '@/core/text.ts';
import { toPersonsAndIds } from './migrate-bench.ts';
import { noteMedia } from './migrate-media.ts';
import { noteSubjects } from './migrate-subjects.ts';
import { DatabaseProblem } from './problem.ts';

interface Journal {
  entries: { tag: string }[];
}

const FOLDER = new URL('./migrations/', import.meta.url);
/** Marks a file as one of ours (SQLite's `application_id`): "Bont". */
const APPLICATION = 0x426f6e74;

const versionOf = (driver: Database.Database): number =>
  driver.pragma('user_version', { simple: true }) as number;

/** @throws DatabaseProblem where the file is a database of another program */
export function checkOurs(driver: Database.Database): void {
  const application = driver.pragma('application_id', { simple: true }) as number;
  const tables = driver
    .prepare<unknown[], string>(`SELECT name FROM sqlite_master WHERE type = 'table'`)
    .pluck()
    .all();
  const fresh = versionOf(driver) === 0 && tables.length === 0;
  const landedEarlier = versionOf(driver) > 0 && tables.includes('site_change');
  if (application === APPLICATION || (application === 0 && (fresh || landedEarlier))) return;
  throw new DatabaseProblem(
    `${driver.name} is a database of another program.`,
    'Name another data folder with --data or BONTEL_DATA.',
  );
}

/** What a step does that SQL alone cannot. */
const AFTER = new Map<string, (driver: Database.Database) => void>([
  [
    '0001_deletion_and_search',
    (driver) => {
      const set = driver.prepare('UPDATE revision SET search = ? WHERE entry = ? AND number = ?');
      const rows = driver.prepare('SELECT entry, number, name FROM revision').all();
      for (const { entry, number, name } of rows as {
        entry: string;
        number: number;
        name: string;
      }[])
        set.run(searchKey(name), entry, number);
    },
  ],
  ['0003_the_bench', toPersonsAndIds],
  ['0008_subjects_over_time', noteSubjects],
  ['0014_media_versions', noteMedia],
]);

/**
 * Brings a database to this program's version, one transaction a step; `user_version` counts the
 * steps done.
 */
export function migrate(driver: Database.Database, readonly: boolean): void {
  const journal = JSON.parse(
    readFileSync(new URL('meta/_journal.json', FOLDER), 'utf8'),
  ) as Journal;
  const wanted = journal.entries.length;
  const done = versionOf(driver);
  if (done > wanted)
    throw new DatabaseProblem(
      `${driver.name} was written by a newer version of Bontel (${done} against ${wanted}).`,
      'Use that version, or name another data folder.',
    );
  if (done === wanted) return;
  if (readonly)
    throw new DatabaseProblem(
      `${driver.name} is of an older version and must be brought up to date first.`,
      'Start the server, or load a folder, once.',
    );
  journal.entries.forEach(({ tag }, i) => {
    const sql = readFileSync(new URL(`${tag}.sql`, FOLDER), 'utf8');
    const step = driver.transaction(() => {
      if (versionOf(driver) > i) return; // somebody else has done it since we looked
      driver.exec(sql);
      AFTER.get(tag)?.(driver);
      driver.pragma(`user_version = ${i + 1}`);
      driver.pragma(`application_id = ${APPLICATION}`);
    });
    step.immediate();
  });
}
