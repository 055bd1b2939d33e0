import Database from 'better-sqlite3';
import type { SourceRecord } from '@/core/intake/record.ts';

/** A picture among what was sent, made fit to be kept. */
export interface StagedFile {
  /** Path below the folder that was sent. */
  path: string;
  /** Where the file lies that is to be kept. */
  file: string;
  hash: string;
  mime: string;
  bytes: number;
  width: number;
  height: number;
}

/** So many records are looked up at once; one is held. */
const PAGE = 500;

interface RecordRow {
  source: string;
  line: number;
  values: string;
  body: string | null;
  bodyLine: number | null;
}

/**
 * What was sent from elsewhere, read once and looked at as often as needed: a database file of its
 * own beside the site, so that a hundred thousand records take no memory.
 */
export class Stage {
  private readonly driver: Database.Database;

  constructor(readonly path: string) {
    this.driver = new Database(path);
    this.driver.pragma('journal_mode = OFF');
    this.driver.pragma('synchronous = OFF');
    this.driver.exec(`
      CREATE TABLE IF NOT EXISTS record (n INTEGER PRIMARY KEY, source TEXT NOT NULL UNIQUE,
        line INTEGER NOT NULL, "values" TEXT NOT NULL, body TEXT, bodyLine INTEGER);
      CREATE TABLE IF NOT EXISTS becomes (source TEXT PRIMARY KEY, record TEXT NOT NULL UNIQUE,
        entry TEXT NOT NULL UNIQUE, name TEXT NOT NULL) WITHOUT ROWID;
      CREATE INDEX IF NOT EXISTS becomes_name ON becomes (name);
      CREATE TABLE IF NOT EXISTS file (path TEXT PRIMARY KEY, about TEXT NOT NULL) WITHOUT ROWID;`);
  }

  /** What follows is done at once by `commit`: one by one, a hundred thousand would take long. */
  begin(): void {
    this.driver.exec('BEGIN');
  }

  /** Ends what `begin` began. */
  commit(): void {
    this.driver.exec('COMMIT');
  }

  /** Adds a record. */
  add({ source, line, values, body }: SourceRecord): void {
    this.driver
      .prepare('INSERT INTO record (source, line, "values", body, bodyLine) VALUES (?, ?, ?, ?, ?)')
      .run(source, line, JSON.stringify(values), body?.text ?? null, body?.line ?? null);
  }

  /** Adds a picture. */
  addFile({ path, ...about }: StagedFile): void {
    this.driver.prepare('INSERT INTO file VALUES (?, ?)').run(path, JSON.stringify(about));
  }

  /** The records below a folder, in their order; others may be written meanwhile. */
  *records(within: string): Generator<SourceRecord> {
    const find = this.driver
      .prepare<unknown[], number>(
        `SELECT n FROM record WHERE n > @last AND (@within = '' OR source GLOB @below)
          ORDER BY n LIMIT ${PAGE}`,
      )
      .pluck();
    const read = this.driver.prepare<unknown[], RecordRow>(
      'SELECT source, line, "values", body, bodyLine FROM record WHERE n = ?',
    );
    const below = `${within.replace(/[[*?]/g, '[$&]')}/*`;
    let last = 0;
    for (;;) {
      const found = find.all({ last, within, below });
      for (const n of found) yield recordOf(read.get(n)!);
      if (found.length < PAGE) return;
      last = found.at(-1)!;
    }
  }

  /** How many records there are. */
  get count(): number {
    return this.driver.prepare('SELECT count(*) FROM record').pluck().get() as number;
  }

  /** Forgets which record becomes which entry. */
  forget(): void {
    this.driver.exec('DELETE FROM becomes');
  }

  /** Says which entry a record becomes; false where another one is known so. */
  become(source: string, as: { record: string; entry: string; name: string }): boolean {
    const sql = 'INSERT OR IGNORE INTO becomes VALUES (?, ?, ?, ?)';
    return this.driver.prepare(sql).run(source, as.record, as.entry, as.name).changes === 1;
  }

  /** The record that becomes an entry. */
  recordOf(entry: string): SourceRecord | null {
    const sql = `SELECT r.source, r.line, r."values", r.body, r.bodyLine FROM becomes AS b
      JOIN record AS r ON r.source = b.source WHERE b.entry = ?`;
    const row = this.driver.prepare(sql).get(entry) as RecordRow | undefined;
    return row ? recordOf(row) : null;
  }

  /** The entry that something becomes: by its file with or without its ending, by its id, its name. */
  entryOf(by: 'file' | 'record' | 'name', named: string): string | null {
    const where = {
      file: `source = @named OR source GLOB @ending ORDER BY length(source)`,
      record: 'record = @named',
      name: 'name = @named',
    }[by];
    const ending = `${named.replace(/[[*?]/g, '[$&]')}.*`;
    const sql = `SELECT entry FROM becomes WHERE ${where} LIMIT 1`;
    return (this.driver.prepare(sql).pluck().get({ named, ending }) as string | undefined) ?? null;
  }

  /** A picture by its path; by the end of it where just one ends so. */
  file(path: string): StagedFile | null {
    const read = this.driver.prepare<unknown[], { path: string; about: string }>(
      'SELECT path, about FROM file WHERE path = ?',
    );
    const alike = this.driver.prepare<unknown[], { path: string; about: string }>(
      'SELECT path, about FROM file WHERE substr(path, -length(@end)) = @end LIMIT 2',
    );
    const [only, other] = [read.get(path)].filter((row) => row !== undefined);
    const found = only ?? other ?? one(alike.all({ end: `/${path}` }));
    return found ? { ...(JSON.parse(found.about) as StagedFile), path: found.path } : null;
  }

  /** All pictures. */
  files(): StagedFile[] {
    const rows = this.driver.prepare('SELECT path, about FROM file').all();
    return (rows as { path: string; about: string }[]).map(({ path, about }) => ({
      ...(JSON.parse(about) as StagedFile),
      path,
    }));
  }

  /** Closes the file, which stays. */
  close(): void {
    this.driver.close();
  }
}

const one = <T>(all: readonly T[]): T | undefined => (all.length === 1 ? all[0] : undefined);

function recordOf({ source, line, values, body, bodyLine }: RecordRow): SourceRecord {
  return {
    ...{ source, line },
    values: JSON.parse(values) as Record<string, unknown>,
    body: body === null ? null : { text: body, line: bodyLine ?? 1 },
  };
}
