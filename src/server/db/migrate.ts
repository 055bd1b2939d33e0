import type Database from 'better-sqlite3';
import { readFileSync } from 'node:fs';
import { DatabaseProblem } from './problem.ts';

interface Journal {
  entries: { tag: string }[];
}

const FOLDER = new URL('./migrations/', import.meta.url);

/** Brings a database to this program's version, one transaction a step; `user_version` counts the steps done. */
export function migrate(driver: Database.Database, readonly: boolean): void {
  const journal = JSON.parse(
    readFileSync(new URL('meta/_journal.json', FOLDER), 'utf8'),
  ) as Journal;
  const done = driver.pragma('user_version', { simple: true }) as number;
  if (done > journal.entries.length) {
    throw new DatabaseProblem(
      `${driver.name} was written by a newer version of Bontel (${done} against ${journal.entries.length}).`,
      'Use that version, or name another data folder.',
    );
  }
  if (done < journal.entries.length && readonly)
    throw new DatabaseProblem(
      `${driver.name} is of an older version and must be brought up to date first.`,
      'Start the server, or load a folder, once.',
    );
  for (const [i, { tag }] of journal.entries.entries()) {
    if (i < done) continue;
    const sql = readFileSync(new URL(`${tag}.sql`, FOLDER), 'utf8');
    driver.transaction(() => {
      driver.exec(sql);
      driver.pragma(`user_version = ${i + 1}`);
    })();
  }
}
