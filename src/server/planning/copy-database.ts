import { constants, copyFileSync, existsSync } from 'node:fs';
import type { Connection } from '../db/connection.ts';

/**
 * Copies a database as it is at this moment, while others go on writing: its file, then its
 * write-ahead log. An open snapshot keeps the log from being begun anew meanwhile, so that every
 * page the file may have got since stands in the log as well (SQLite, WAL-mode file format, 2.3).
 */
export function copyDatabase({ driver }: Connection, target: string): void {
  const copy = (from: string, to: string): void =>
    copyFileSync(from, to, constants.COPYFILE_FICLONE);
  driver.transaction(() => {
    driver.prepare('SELECT count(*) FROM meta').get(); // takes the snapshot
    copy(driver.name, target);
    const log = `${driver.name}-wal`;
    if (existsSync(log)) copy(log, `${target}-wal`);
  })();
}
