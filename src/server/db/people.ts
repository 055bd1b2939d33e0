import Database from 'better-sqlite3';
import { ROLES, type Role } from '@/core/design/roles.ts';

/** Somebody who may sign in. */
export interface Account {
  /** Stays; what they wrote goes by it. */
  id: string;
  name: string;
  role: Role;
}

/** Whose links the command line prints for whoever has the data folder: always there, a builder. */
export const OWNER = 'builder';

/** Addresses of accounts are of no mailbox: a person's id, and this. */
const MAILBOX = '@site.invalid';

/** The address that the sign-in library knows a person by. */
export function addressOf(id: string): string {
  return `${id}${MAILBOX}`;
}

/** The person that an address of the sign-in library stands for. */
export function personAt(address: string): string {
  return address.slice(0, -MAILBOX.length);
}

/** Who may sign in, with what role; kept in the database of sessions. */
export class People {
  private readonly driver: Database.Database;

  constructor(file: string) {
    this.driver = new Database(file, { timeout: 5000 });
    this.driver.pragma('journal_mode = WAL');
    this.driver.exec(`CREATE TABLE IF NOT EXISTS account_role (
      id TEXT PRIMARY KEY, name TEXT NOT NULL, role TEXT NOT NULL)`);
    this.driver
      .prepare(`INSERT OR IGNORE INTO account_role VALUES (?, 'Builder', 'builder')`)
      .run(OWNER);
  }

  /** Everybody, by name. */
  all(): Account[] {
    return this.driver
      .prepare<unknown[], Account>('SELECT id, name, role FROM account_role ORDER BY name, id')
      .all()
      .map(readable);
  }

  /** Somebody by id; null where nobody is called so, or not any more. */
  find(id: string): Account | null {
    const found = this.driver
      .prepare<unknown[], Account>('SELECT id, name, role FROM account_role WHERE id = ?')
      .get(id);
    return found ? readable(found) : null;
  }

  /** Lets somebody in, or gives them another name or role. */
  put({ id, name, role }: Account): void {
    this.driver
      .prepare(
        `INSERT INTO account_role VALUES (@id, @name, @role)
           ON CONFLICT (id) DO UPDATE SET name = excluded.name, role = excluded.role`,
      )
      .run({ id, name, role });
  }

  /** Lets somebody in no more: their sessions end. False where nobody is called so. */
  remove(id: string): boolean {
    const gone = this.driver.prepare('DELETE FROM account_role WHERE id = ?').run(id).changes > 0;
    const tables = this.driver
      .prepare(`SELECT count(*) FROM sqlite_master WHERE name IN ('session', 'user')`)
      .pluck();
    if (gone && tables.get() === 2)
      this.driver
        .prepare('DELETE FROM session WHERE userId IN (SELECT id FROM user WHERE email = ?)')
        .run(addressOf(id));
    return gone;
  }

  /** Closes the database; nothing can be asked afterwards. */
  close(): void {
    this.driver.close();
  }
}

/** A role that is not known, of a later version say, gives no rights. */
function readable(account: Account): Account {
  return ROLES.some(({ role }) => role === account.role)
    ? account
    : { ...account, role: 'visitor' };
}
