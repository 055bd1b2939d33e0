import Database from 'better-sqlite3';
import type { Instant } from '@/core/time/interval.ts';

/** A path that was asked for and where nothing is. */
export interface LostPath {
  path: string;
  /** How often it was asked for, first and last when; ms UTC. */
  count: number;
  first: Instant;
  last: Instant;
}

/** How often a redirect led somebody on. */
export interface RedirectHits {
  /** By calendar day of the site, newest first. */
  days: { day: string; count: number }[];
  total: number;
}

/** So many lost paths are kept: those asked for last. */
const MOST_LOST = 2000;
/** Hits are kept of so many days. */
const MOST_DAYS = 400;
/** Longer paths are of nobody who follows a link. */
const LONGEST = 300;
/** What is noted is written after so long, or once there is so much of it; ms. */
const WITHIN_MS = 5000;
const AT_ONCE = 500;

/**
 * What visitors ask for that is told nowhere else: paths where nothing is, and redirects set by
 * hand that led them on. It says nothing of who they are. It stands beside the site, in the database
 * of sessions.
 */
export class Traffic {
  private readonly driver: Database.Database;
  private readonly lost = new Map<string, { count: number; first: Instant; last: Instant }>();
  private readonly led = new Map<string, number>();
  private timer: NodeJS.Timeout | null = null;

  constructor(
    file: string,
    /** The calendar day of the site at an instant. */
    private readonly dayOf: (at: Instant) => string,
  ) {
    this.driver = new Database(file, { timeout: 5000 });
    this.driver.pragma('journal_mode = WAL');
    this.driver.exec(`
      CREATE TABLE IF NOT EXISTS lost_path (path TEXT PRIMARY KEY, count INTEGER NOT NULL,
        first INTEGER NOT NULL, last INTEGER NOT NULL) WITHOUT ROWID;
      CREATE TABLE IF NOT EXISTS redirect_hit (redirect TEXT NOT NULL, day TEXT NOT NULL,
        count INTEGER NOT NULL, PRIMARY KEY (redirect, day)) WITHOUT ROWID;`);
  }

  /** Notes that somebody asked for a path, in normal form, where nothing is. */
  noteLost(path: string, at: Instant): void {
    if (path.length > LONGEST) return;
    const known = this.lost.get(path);
    this.lost.set(path, { count: (known?.count ?? 0) + 1, first: known?.first ?? at, last: at });
    this.soon();
  }

  /** Notes that a redirect set by hand, by its id, led somebody on. */
  noteLed(redirect: string): void {
    this.led.set(redirect, (this.led.get(redirect) ?? 0) + 1);
    this.soon();
  }

  private soon(): void {
    if (this.lost.size + this.led.size >= AT_ONCE) return this.flush();
    this.timer ??= setTimeout(() => this.flush(), WITHIN_MS).unref();
  }

  /** Writes what was noted. */
  flush(): void {
    if (this.timer) clearTimeout(this.timer);
    this.timer = null;
    if (this.lost.size + this.led.size === 0) return;
    this.driver.transaction(() => this.write())();
    this.lost.clear();
    this.led.clear();
  }

  private write(): void {
    const lost = this.driver.prepare(`INSERT INTO lost_path VALUES (?, ?, ?, ?)
      ON CONFLICT (path) DO UPDATE SET count = count + excluded.count, last = excluded.last`);
    for (const [path, { count, first, last }] of this.lost) lost.run(path, count, first, last);
    const led = this.driver.prepare(`INSERT INTO redirect_hit VALUES (?, ?, ?)
      ON CONFLICT (redirect, day) DO UPDATE SET count = count + excluded.count`);
    const day = this.dayOf(Date.now());
    for (const [redirect, count] of this.led) led.run(redirect, day, count);
    this.driver.exec(`
      DELETE FROM lost_path WHERE path IN
        (SELECT path FROM lost_path ORDER BY last DESC, path LIMIT -1 OFFSET ${MOST_LOST});
      DELETE FROM redirect_hit WHERE day IN
        (SELECT DISTINCT day FROM redirect_hit ORDER BY day DESC LIMIT -1 OFFSET ${MOST_DAYS});`);
  }

  /** Paths where nothing was, those asked for last first. */
  lostLately(limit: number, offset = 0): { paths: LostPath[]; total: number } {
    this.flush();
    const sql = 'SELECT * FROM lost_path ORDER BY last DESC, path LIMIT ? OFFSET ?';
    return {
      paths: this.driver.prepare<unknown[], LostPath>(sql).all(limit, offset),
      total: this.driver
        .prepare<unknown[], number>('SELECT count(*) FROM lost_path')
        .pluck()
        .get()!,
    };
  }

  /** Has nobody be told of a path any more, until it is asked for again. */
  forget(path: string): void {
    this.lost.delete(path);
    this.driver.prepare('DELETE FROM lost_path WHERE path = ?').run(path);
  }

  /** How often each redirect led somebody on, by its id. */
  hits(): Map<string, RedirectHits> {
    this.flush();
    const rows = this.driver
      .prepare<unknown[], { redirect: string; day: string; count: number }>(
        'SELECT redirect, day, count FROM redirect_hit ORDER BY redirect, day DESC',
      )
      .all();
    const all = new Map<string, RedirectHits>();
    for (const { redirect, day, count } of rows) {
      const known = all.get(redirect) ?? { days: [], total: 0 };
      known.days.push({ day, count });
      all.set(redirect, { ...known, total: known.total + count });
    }
    return all;
  }

  /** Writes what was noted, and closes the database. */
  close(): void {
    this.flush();
    this.driver.close();
  }
}
