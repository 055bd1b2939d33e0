import Database from 'better-sqlite3';
import { z } from 'zod';

/** Unsaved words of a person on one entry, or on a new one of a type. */
export interface WorkingCopy {
  /** When they were written, ms UTC. */
  at: number;
  /** The version they were written on; null for a new entry. */
  revision: number | null;
  /** By field id. */
  edits: Record<string, unknown>;
}

/** What words about something in a further language are kept under. */
export const inLanguage = (about: string, language: string): string => `${about} in ${language}`;

/** Each person's unsaved words are kept of so many entries; the oldest go. */
const MOST = 200;

const stored = z.record(z.string(), z.unknown());

/**
 * What people have written and not saved, by person and by what it is about. It stands beside the
 * site, in the database of sessions: it is never published, and no version.
 */
export class WorkingCopies {
  private readonly driver: Database.Database;

  constructor(file: string) {
    this.driver = new Database(file, { timeout: 5000 });
    this.driver.pragma('journal_mode = WAL');
    this.driver.exec(`CREATE TABLE IF NOT EXISTS working_copy (
      person TEXT NOT NULL, about TEXT NOT NULL, at INTEGER NOT NULL, revision INTEGER,
      edits TEXT NOT NULL, PRIMARY KEY (person, about)) WITHOUT ROWID`);
  }

  /** Keeps words in place of those kept before. */
  keep(person: string, about: string, { at, revision, edits }: WorkingCopy): void {
    this.driver
      .prepare('INSERT OR REPLACE INTO working_copy VALUES (?, ?, ?, ?, ?)')
      .run(person, about, at, revision, JSON.stringify(edits));
    this.driver
      .prepare(
        `DELETE FROM working_copy WHERE person = @person AND about NOT IN
           (SELECT about FROM working_copy WHERE person = @person ORDER BY at DESC LIMIT ${MOST})`,
      )
      .run({ person });
  }

  /** The words that are kept; null where none are. */
  of(person: string, about: string): WorkingCopy | null {
    const row = this.driver
      .prepare<unknown[], { at: number; revision: number | null; edits: string }>(
        'SELECT at, revision, edits FROM working_copy WHERE person = ? AND about = ?',
      )
      .get(person, about);
    return row ? { ...row, edits: stored.parse(JSON.parse(row.edits)) } : null;
  }

  /** Throws kept words away. */
  drop(person: string, about: string): void {
    this.driver
      .prepare('DELETE FROM working_copy WHERE person = ? AND about = ?')
      .run(person, about);
  }

  /**
   * Throws away what anybody has kept about something, in whatever language, and what is left of it
   * on the disk.
   */
  forget(about: string): void {
    this.driver.pragma('secure_delete = ON');
    const sql = 'DELETE FROM working_copy WHERE about = @about OR instr(about, @further) = 1';
    this.driver.prepare(sql).run({ about, further: inLanguage(about, '') });
    this.driver.pragma('wal_checkpoint(TRUNCATE)');
  }

  /** Closes the database. */
  close(): void {
    this.driver.close();
  }
}
