import { readFileSync, rmSync, writeFileSync } from 'node:fs';

const noteOf = (database: string): string => `${database}.writing`;

/**
 * Leaves a note beside the database, while a write holds it, for those who wait: which process,
 * since when.
 */
export function noteWriting(database: string): void {
  writeFileSync(
    noteOf(database),
    JSON.stringify({
      pid: process.pid,
      program: process.argv[1]?.endsWith('cli.js') ? 'npx bontel' : 'the server',
      since: new Date().toISOString(),
    }),
  );
}

/** Takes the note away. */
export function noteWritten(database: string): void {
  rmSync(noteOf(database), { force: true });
}

/**
 * Who writes to a database and since when, in words; null where no note of a running process is
 * there.
 */
export function whoWrites(database: string): string | null {
  try {
    const { pid, program, since } = JSON.parse(readFileSync(noteOf(database), 'utf8')) as {
      pid: number;
      program: string;
      since: string;
    };
    process.kill(pid, 0); // throws where the process is gone and the note was left behind
    return `${program} (process ${pid}) has been writing since ${since}`;
  } catch {
    return null;
  }
}
