import { createHash, randomBytes } from 'node:crypto';
import Database from 'better-sqlite3';

/** Who a key speaks for. */
export interface KeyHolder {
  id: string;
  name: string;
}

/**
 * Keys that programs sign in with. Only their hashes are kept, in the database of sessions: a key is
 * seen once, when it is made.
 */
export class Keys {
  private readonly driver: Database.Database;

  constructor(file: string) {
    this.driver = new Database(file, { timeout: 5000 });
    this.driver.pragma('journal_mode = WAL');
    this.driver.exec(`CREATE TABLE IF NOT EXISTS api_key (
      id TEXT PRIMARY KEY, name TEXT NOT NULL, hash TEXT NOT NULL UNIQUE, made INTEGER NOT NULL)`);
  }

  /** Makes a key under a name, and gives it. */
  make(name: string, at: number): string {
    const key = `bontel_${randomBytes(32).toString('base64url')}`;
    this.driver
      .prepare('INSERT INTO api_key VALUES (?, ?, ?, ?)')
      .run(randomBytes(8).toString('hex'), name, hashOf(key), at);
    return key;
  }

  /** Names and ids of all keys, with when they were made (ms UTC). */
  all(): (KeyHolder & { made: number })[] {
    return this.driver
      .prepare<unknown[], KeyHolder & { made: number }>('SELECT id, name, made FROM api_key')
      .all();
  }

  /** Ends a key by its id; false where there is none. */
  end(id: string): boolean {
    return this.driver.prepare('DELETE FROM api_key WHERE id = ?').run(id).changes > 0;
  }

  /** Who holds a key; null for one that is none, or ended. */
  holder(key: string): KeyHolder | null {
    const found = this.driver
      .prepare<unknown[], KeyHolder>('SELECT id, name FROM api_key WHERE hash = ?')
      .get(hashOf(key));
    return found ?? null;
  }

  /** Closes the database; nothing can be asked afterwards. */
  close(): void {
    this.driver.close();
  }
}

function hashOf(key: string): string {
  return createHash('sha256').update(key).digest('hex');
}
