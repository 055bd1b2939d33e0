import type { Connection, Statement } from '../db/connection.ts';
import type { CompiledSite } from '@/core/site/compile.ts';
import type { LivePage, PathHolders, Neighbours, SiteReader } from '@/core/site/reader.ts';
import { mediumIn } from '@/core/design/media-words.ts';
import type { EntryView, Media, Subject } from '@/core/design/values.ts';
import { PRESETS, type Presets } from '@/core/design/presets.ts';
import type { FilterWorld } from '@/core/listing/plan.ts';
import type { Instant, Validity } from '@/core/time/interval.ts';
import { RowCache } from './row-cache.ts';
import { ListReader } from './list-reader.ts';
import { LiveEntries } from './live-entries.ts';
import { pickedAt, tellPicks } from './picks.ts';
import { type LanguageTables, tablesRead } from './language-tables.ts';
import { statement } from './statement.ts';
import { spokenIn } from './stored-values.ts';
import type { SubjectsOver } from './subject-store.ts';
import { asOf } from './as-of.ts';

/** Entry, role, start and end of an address row. */
type PathRow = [
  entry: string,
  role: 'current' | 'redirect' | 'purged',
  starts: number,
  ends: number | null,
];

const COVERS = asOf('');
/** What a revision has otherwise than its type: few have, and those stand in an index. */
const OWN_PRESETS = `json_extract(r."values", '$.${PRESETS}')`;

/** Reads a stored site for the core, as of the instant of each call's validity. */
export class StoredReader implements SiteReader {
  private readonly standingAt: Statement<string>;
  private readonly pathRows: Statement<PathRow>;
  private readonly entries: LiveEntries;
  private readonly lists: ListReader;
  private readonly tables: LanguageTables;

  constructor(
    private readonly connection: Connection,
    private readonly site: CompiledSite,
    private readonly subjects: SubjectsOver,
    private readonly rows: RowCache,
    /** Instant of the last write, ms UTC. */
    private readonly settled: Instant,
  ) {
    const { address } = (this.tables = tablesRead(connection, site.design.edition?.id));
    this.entries = new LiveEntries(connection, site, this.tables, rows);
    this.lists = new ListReader(this, { connection, site, subjects, memory: rows.lists, settled });
    this.standingAt = statement<string>(
      connection,
      `SELECT entry FROM ${address} WHERE path = ? AND starts <= ? AND ends IS NULL
         AND role = 'current'`,
    ).pluck();
    this.pathRows = statement<PathRow>(
      connection,
      `SELECT entry, role, starts, ends FROM ${address} WHERE path = ?`,
    ).raw();
  }

  in(site: CompiledSite): SiteReader {
    const { connection, rows, settled } = this;
    return new StoredReader(connection, site, this.subjects.in(site), rows, settled);
  }

  liveEntries(...asked: Parameters<SiteReader['liveEntries']>): Map<string, EntryView> {
    return this.entries.read(...asked);
  }

  person(id: string): string {
    return this.rows.person(this.connection, id);
  }

  /** Whoever came without an end is there still, and nobody else can come; so it is nearly always. */
  holders(path: string, validity: Validity): PathHolders {
    const entry = this.standingAt.get(path, validity.at);
    if (entry === undefined) return this.everyHolder(path, validity);
    return { current: { entry, role: 'current' }, former: null };
  }

  /** A path has few rows, so who stands there, who stood and who will is told apart here. */
  private everyHolder(path: string, validity: Validity): PathHolders {
    const { at } = validity;
    let current: (NonNullable<PathHolders['current']> & { ends: number | null }) | null = null;
    let former: PathRow | null = null;
    const rows = this.pathRows.all(path);
    for (const row of rows) {
      const [entry, role, starts, ends] = row;
      if (starts > at) continue;
      // Of what was purged nothing stands anywhere, not even while it did.
      if ((ends === null || ends > at) && role !== 'purged') {
        if (current === null || role === 'current') current = { entry, role, ends };
      } else if (
        former === null ||
        ends! > former[3]! ||
        (ends === former[3] && starts > former[2])
      )
        former = row;
    }
    // Who stands there stays, whoever's pattern would lead there meanwhile.
    if (current?.role === 'current') validity.tell(current.ends);
    else for (const [, , starts, ends] of rows) for (const at of [starts, ends]) validity.tell(at);
    return {
      current: current && { entry: current.entry, role: current.role },
      former: current === null && former !== null ? former[0] : null,
    };
  }

  currentPath(entry: string, validity: Validity): string | null {
    const { at } = validity;
    const row = this.sql<{ path: string; ends: number | null }>(
      `SELECT path, ends FROM ${this.tables.address} WHERE entry = ? AND role = 'current' AND ${COVERS}`,
    ).get(entry, at, at);
    validity.tell(row ? row.ends : this.nextStart(this.tables.address, 'entry', entry, at));
    return row?.path ?? null;
  }

  typeOf(entry: string): string | null {
    const sql = 'SELECT type FROM entry WHERE id = ? AND purged IS NULL';
    return this.sql<string>(sql).pluck().get(entry) ?? null;
  }

  nameOf(entry: string): string | null {
    const sql = 'SELECT name FROM revision WHERE entry = ? ORDER BY number DESC LIMIT 1';
    return this.sql<string>(sql).pluck().get(entry) ?? null;
  }

  comingAt(path: string, at: Instant): { entry: string; at: Instant } | null {
    const sql = `SELECT entry, starts AS at FROM ${this.tables.address} WHERE path = ? AND starts > ? ORDER BY starts LIMIT 1`;
    return this.sql<{ entry: string; at: Instant }>(sql).get(path, at) ?? null;
  }

  listing(...args: Parameters<SiteReader['listing']>): { ids: string[]; total: number } {
    return this.lists.listing(...args);
  }

  preceding(...args: Parameters<SiteReader['preceding']>): number {
    return this.lists.preceding(...args);
  }

  neighbours(...args: Parameters<SiteReader['neighbours']>): Neighbours {
    return this.lists.neighbours(...args);
  }

  picked(picks: string, validity: Validity, offset: number, limit: number): string[] {
    tellPicks(this.connection, picks, validity);
    return pickedAt(this.connection, picks, validity.at, { offset, limit });
  }

  newestPages(limit: number, validity: Validity): string[] {
    const { at } = validity;
    const sql = `SELECT e.id FROM ${this.tables.address} AS a JOIN entry AS e ON e.id = a.entry WHERE a.role = 'current' AND ${asOf('a')} ORDER BY e.published DESC, e.created, e.id LIMIT ?`;
    this.tellAddresses(validity);
    return this.sql<string>(sql).pluck().all(at, at, limit);
  }

  livePages(after: string | null, limit: number, validity: Validity): LivePage[] {
    const { at } = validity;
    this.tellAddresses(validity);
    const sql = `
      SELECT a.path, a.entry, e.type, l.starts AS updated, l.language, (SELECT ${OWN_PRESETS} FROM revision AS r
        WHERE r.entry = a.entry AND r.number = l.revision AND ${OWN_PRESETS} IS NOT NULL) AS own
      FROM ${this.tables.address} AS a JOIN entry AS e ON e.id = a.entry
      JOIN ${this.tables.live} AS l ON l.entry = a.entry AND ${asOf('l')}
      WHERE a.path > ? AND a.role = 'current' AND ${asOf('a')} ORDER BY a.path LIMIT ?`;
    const rows = this.sql<LivePage & { own: string | null; language: string }>(sql);
    const { design } = this.site;
    return rows.all(at, at, after ?? '', at, at, limit).map(({ own, language, ...page }) => ({
      ...page,
      ...(own === null ? {} : { presets: JSON.parse(own) as Presets }),
      ...(spokenIn(design, language) === design.site.language ? {} : { isFallback: true }),
    }));
  }

  livePageCount(validity: Validity): number {
    this.tellAddresses(validity);
    const sql = `SELECT count(*) FROM ${this.tables.address} WHERE role = 'current' AND ${COVERS}`;
    return this.sql<number>(sql).pluck().get(validity.at, validity.at)!;
  }

  private tellAddresses(validity: Validity): void {
    const { at } = validity;
    for (const table of [this.tables.address, this.tables.live]) {
      validity.tell(
        this.sql<number | null>(`SELECT min(starts) FROM ${table} WHERE starts > ?`)
          .pluck()
          .get(at)!,
      );
      validity.tell(
        this.sql<number | null>(`SELECT min(ends) FROM ${table} WHERE ends > ?`).pluck().get(at)!,
      );
    }
  }

  counts(...asked: Parameters<SiteReader['counts']>): Map<string, number> {
    return this.lists.counts(...asked);
  }

  referrers(targets: readonly string[], fields: readonly string[]): string[] {
    const sql =
      'SELECT DISTINCT entry FROM reference_edge WHERE target IN (SELECT value FROM json_each(?)) AND field IN (SELECT value FROM json_each(?))';
    return this.sql<string>(sql).pluck().all(JSON.stringify(targets), JSON.stringify(fields));
  }

  subject(set: string, key: string, validity: Validity): Subject | null {
    this.subjects.tell(set, key, validity);
    return this.subjects.at(validity.at).get(set, key);
  }

  subjectsOf(set: string, validity: Validity): Subject[] {
    const all = this.subjects.at(validity.at).all(set);
    this.subjects.tellAll(set, validity);
    return all;
  }

  filterWorld(at: Instant): FilterWorld {
    return this.lists.worldAt(at);
  }

  media(id: string, validity: Validity): Media | null {
    const { at } = validity;
    for (const { starts, ends, ...medium } of this.rows.media(this.connection, id)) {
      validity.tell(starts);
      validity.tell(ends);
      if (starts <= at && (ends === null || ends > at)) return mediumIn(medium, this.site.design);
    }
    return null;
  }

  private nextStart(
    table: string,
    column: 'entry' | 'path',
    value: string,
    at: Instant,
  ): Instant | null {
    return this.sql<number | null>(
      `SELECT min(starts) FROM ${table} WHERE ${column} = ? AND starts > ?`,
    )
      .pluck()
      .get(value, at)!;
  }

  private sql<Row>(text: string): Statement<Row> {
    return statement<Row>(this.connection, text);
  }
}
