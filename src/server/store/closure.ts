import type { Instant } from '@/core/time/interval.ts';
import type { Connection, Statement } from '../db/connection.ts';
import { indexForgetter } from './derive-index.ts';
import { forgetAhead } from './derive-rows.ts';
import { type LanguageTables, tablesIn } from './language-tables.ts';
import { statement } from './statement.ts';
import type { StoredTimeline } from './timeline-source.ts';

/** From so many paths on, claims that lie ahead are read through instead of looked up. */
const MANY_PATHS = 2000;

type Claim = { path: string; base: string; entry: string };

/**
 * The entries whose future is played through: what was touched, what is built on it, and whoever
 * claims a path that is in question. What had been derived for them is forgotten when they join.
 */
export class Closure {
  readonly ids = new Set<string>();
  /** What had been refused of them, as `entry` and `at` in lines. */
  readonly refusedBefore = new Set<string>();
  /** Those whose live intervals were taken away or cut, whatever they are by now. */
  readonly wereLive = new Set<string>();
  /** Paths they held or were to hold, by entry. */
  private readonly freed = new Map<string, string[]>();
  private readonly types = new Map<string, string>();
  private readonly tables: LanguageTables;
  private readonly forgetters = new Map<string, (id: string) => void>();

  constructor(
    private readonly connection: Connection,
    private readonly source: StoredTimeline,
    /** Rows at or before it stand. */
    readonly start: Instant,
    /** While a site is loaded. */
    private readonly nothingDerived = false,
    /** Id of the further language; left out for the site's own. */
    private readonly language?: string,
  ) {
    this.tables = tablesIn(language);
  }

  /** Has entries join, with all that are built on them. */
  add(entries: Iterable<string>): void {
    const joining = new Set<string>();
    for (const id of entries) if (!this.ids.has(id)) joining.add(id);
    for (const id of joining)
      for (const dependent of this.source.dependents(id))
        if (!this.ids.has(dependent)) joining.add(dependent);
    for (const id of joining) this.join(id);
  }

  /** Has everybody join for whom something lies ahead. */
  addAll(): void {
    const { live, address, refusal } = this.tables;
    const own = this.language === undefined ? '' : tablesIn(undefined).live;
    // What stands in for words in a language is what is live in the site's own.
    const standIn = own && `UNION SELECT entry FROM ${own} WHERE starts > @start OR ends > @start`;
    const sql = `SELECT entry FROM planned_change WHERE at > @start
      UNION SELECT entry FROM by_hand WHERE starts > @start OR ends > @start
      UNION SELECT entry FROM ${live} WHERE starts > @start OR ends > @start
      UNION SELECT entry FROM ${address} WHERE starts > @start OR ends > @start
      UNION SELECT entry FROM ${refusal} WHERE at > @start ${standIn}`;
    this.add(statement<string>(this.connection, sql).pluck().all({ start: this.start }));
    const ids = statement<string>(this.connection, 'SELECT id FROM entry WHERE type = ?').pluck();
    for (const type of this.source.ruledTypes()) this.add(ids.all(type));
  }

  /**
   * Has those join who claim, after the start, a path that was asked for or is given up; false
   * where nobody does.
   */
  addThoseWhoClaim(asked: ReadonlySet<string>): boolean {
    const before = this.ids.size;
    const paths = new Set([...asked, ...[...this.freed.values()].flat()]);
    this.add(paths.size > MANY_PATHS ? this.claimantsOf(paths) : this.lookedUp(paths));
    return this.ids.size > before;
  }

  /** The paths that an entry held at the start, or was to hold. */
  pathsOf(id: string): readonly string[] {
    return this.freed.get(id) ?? [];
  }

  /** The id of an entry's type; undefined where it is not among them. */
  typeOf(id: string): string | undefined {
    return this.types.get(id);
  }

  private join(id: string): void {
    this.ids.add(id);
    const type = this.sql<string>('SELECT type FROM entry WHERE id = ?').pluck().get(id);
    if (type === undefined) return;
    this.types.set(id, type);
    const held = `SELECT path FROM ${this.tables.address}
      WHERE entry = ? AND (ends IS NULL OR ends > ?)`;
    this.freed.set(id, this.sql<string>(held).pluck().all(id, this.start));
    if (this.nothingDerived) return;
    const { tables, start } = this;
    const forgetIndexRows = this.forgetter(type);
    const how = { tables, forgetIndexRows };
    const { refused, wasLive } = forgetAhead(this.connection, id, start, how);
    if (wasLive) this.wereLive.add(id);
    for (const at of refused) this.refusedBefore.add(`${id}\n${at}`);
  }

  private forgetter(type: string): (id: string) => void {
    let known = this.forgetters.get(type);
    if (known) return known;
    const read = { id: type, ...(this.language === undefined ? {} : { edition: this.language }) };
    this.forgetters.set(type, (known = indexForgetter(this.connection, read, this.start)));
    return known;
  }

  private lookedUp(paths: ReadonlySet<string>): string[] {
    const { address, refusal } = this.tables;
    const byPath = this.sql<string>(`SELECT entry FROM ${address} WHERE path = ? AND starts > ?`);
    const byBase = this.sql<string>(`SELECT entry FROM ${address} WHERE base = ? AND starts > ?`);
    const refused = this.sql<string>(`SELECT entry FROM ${refusal} WHERE base = ? AND at > ?`);
    const found: string[] = [];
    for (const path of paths) {
      found.push(...byPath.pluck().all(path, this.start));
      for (const base of basesFor(path))
        for (const read of [byBase, refused]) found.push(...read.pluck().all(base, this.start));
    }
    return found;
  }

  private *claimantsOf(paths: ReadonlySet<string>): Generator<string> {
    const bases = new Set([...paths].flatMap(basesFor));
    const claims = this.sql<Claim>(
      `SELECT path, base, entry FROM ${this.tables.address} WHERE starts > ?
       UNION ALL SELECT '', base, entry FROM ${this.tables.refusal}
         WHERE at > ? AND base IS NOT NULL`,
    );
    for (const { path, base, entry } of claims.all(this.start, this.start))
      if (paths.has(path) || bases.has(base)) yield entry;
  }

  private sql<Row>(text: string): Statement<Row> {
    return statement<Row>(this.connection, text);
  }
}

/** The bases for which a path may be dealt: itself, by hand or not, or without its number. */
function basesFor(path: string): string[] {
  const unnumbered = path.replace(/-\d+$/, '');
  return [...new Set([path, unnumbered, `hand:${path}`])];
}
