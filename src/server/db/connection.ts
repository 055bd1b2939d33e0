import Database from 'better-sqlite3';
import { type BetterSQLite3Database, drizzle } from 'drizzle-orm/better-sqlite3';
import { existsSync, mkdirSync, statSync } from 'node:fs';
import { dirname } from 'node:path';
import { hasWord } from '@/core/text.ts';
import { chanceOf, distanceFrom } from '@/core/listing/order.ts';
import { calendarDay } from '@/core/time/zone.ts';
import { checkOurs, migrate } from './migrate.ts';
import { DatabaseProblem } from './problem.ts';
import { whoWrites } from './writing-note.ts';
import * as site from './schema.ts';
import * as desk from './schema-desk.ts';

const schema = { ...site, ...desk };

/** Tables by name, through Drizzle. */
export type Tables = BetterSQLite3Database<typeof schema>;
/** A prepared statement of the driver. */
export type Statement<Row = unknown> = Database.Statement<unknown[], Row>;

/** One open connection: the driver for hot reads and derived tables, Drizzle for the rest. */
export interface Connection {
  driver: Database.Database;
  tables: Tables;
  /** @throws DatabaseProblem where another file stands at the database's path by now */
  checkInPlace(): void;
  close(): void;
}

/** How long a writer waits for another one, in ms. */
export const BUSY_MS = 5000;

/**
 * Opens a site's database, making and migrating it where it may be written.
 * @throws DatabaseProblem where the file is missing, unreadable, read-only or from a newer version.
 */
export function openDatabase(file: string, { readonly = false } = {}): Connection {
  if (readonly && !existsSync(file))
    throw new DatabaseProblem(
      `There is no site at ${file}.`,
      'Load one first: npx bontel load FOLDER --data DIR.',
    );
  try {
    if (!readonly) mkdirSync(dirname(file), { recursive: true });
    const driver = new Database(file, { readonly, timeout: BUSY_MS });
    checkOurs(driver);
    addFunctions(driver);
    driver.pragma('foreign_keys = ON');
    driver.pragma('cache_size = -65536');
    driver.pragma('mmap_size = 268435456');
    if (!readonly) {
      turnOnWriteAheadLog(driver);
      driver.pragma('synchronous = NORMAL');
      driver.pragma('secure_delete = ON'); // what is purged is not to be read in the file
    }
    migrate(driver, readonly);
    const opened = identityOf(file);
    return {
      driver,
      tables: drizzle(driver, { schema }),
      checkInPlace: () => {
        if (identityOf(file) !== opened) throw replaced(file);
      },
      close: () => driver.close(),
    };
  } catch (error) {
    throw problemOf(error, file);
  }
}

/** What conditions ask that SQL has no words for. */
function addFunctions(driver: Database.Database): void {
  const pure = { deterministic: true };
  driver.function('has_word', pure, (text, word) =>
    typeof text === 'string' ? Number(hasWord(text, String(word))) : null,
  );
  driver.function('month_day', pure, (at, zone) =>
    typeof at === 'number' ? calendarDay(at, String(zone)).slice(-5) : null,
  );
  driver.function('days_from', pure, (value, today, zone) =>
    typeof value === 'number' || typeof value === 'string'
      ? distanceFrom(value, String(today), String(zone))
      : null,
  );
  driver.function('chance', pure, (entry, day) => chanceOf(String(entry), String(day)));
}

/** Device and inode of a file; null where there is none. */
function identityOf(file: string): string | null {
  const found = statSync(file, { throwIfNoEntry: false });
  return found ? `${found.dev}/${found.ino}` : null;
}

function replaced(file: string): DatabaseProblem {
  return new DatabaseProblem(
    `${file} was deleted or replaced while it was in use; what is written now would be lost.`,
    'Restart the server: it then works with the file that is there.',
  );
}

/** Two processes may start at once: the one that comes second waits for the other. */
function turnOnWriteAheadLog(driver: Database.Database): void {
  const until = Date.now() + BUSY_MS;
  for (;;) {
    try {
      driver.pragma('journal_mode = WAL');
      return;
    } catch (error) {
      if (!String((error as { code?: string }).code).startsWith('SQLITE_BUSY')) throw error;
      if (Date.now() > until) throw error;
      Atomics.wait(new Int32Array(new SharedArrayBuffer(4)), 0, 0, 50);
    }
  }
}

/** A driver's error in plain words; other errors as they are. */
export function problemOf(error: unknown, file: string): unknown {
  const code = error instanceof Error && 'code' in error ? String(error.code) : '';
  if (error instanceof DatabaseProblem) return error;
  if (code.startsWith('SQLITE_BUSY'))
    return new DatabaseProblem(
      `${file} cannot be written now: ${whoWrites(file) ?? `somebody else has been writing for more than ${BUSY_MS / 1000} seconds`}.`,
      'Try again when that has finished.',
    );
  if (
    code.startsWith('SQLITE_READONLY') ||
    code === 'EACCES' ||
    code === 'EROFS' ||
    code === 'EPERM' ||
    code.startsWith('SQLITE_CANTOPEN')
  )
    return new DatabaseProblem(
      `${file} cannot be written.`,
      'Give write permission on the data folder, or name another with --data.',
    );
  if (code.startsWith('SQLITE_FULL') || code === 'ENOSPC' || code.startsWith('SQLITE_IOERR_WRITE'))
    return new DatabaseProblem(
      `The disk that holds ${file} is full; nothing was changed.`,
      'Free some space and try again.',
    );
  if (code === 'EMFILE' || code === 'ENFILE')
    return new DatabaseProblem(
      `${file} cannot be opened: this machine has no file handles left.`,
      'Close other programs, or raise the limit (ulimit -n), and try again.',
    );
  if (code === 'SQLITE_NOTADB' || code.startsWith('SQLITE_CORRUPT'))
    return new DatabaseProblem(
      `${file} is not a readable database.`,
      'Restore it from a backup, or name another data folder.',
    );
  return error;
}
