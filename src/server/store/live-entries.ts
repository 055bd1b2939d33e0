import { valuesAs } from '@/core/design/conversion.ts';
import type { ContentType } from '@/core/design/spec.ts';
import { type EntryView, valuesOf } from '@/core/design/values.ts';
import type { CompiledSite } from '@/core/site/compile.ts';
import { type Instant, type Validity, covers } from '@/core/time/interval.ts';
import type { Connection } from '../db/connection.ts';
import { asOf } from './as-of.ts';
import type { LanguageTables } from './language-tables.ts';
import type { ReadEntry, RowCache } from './row-cache.ts';
import { statement } from './statement.ts';
import { firstPublished } from './language-facts.ts';
import { spokenIn } from './stored-values.ts';

interface EntryRow {
  id: string;
  type: string;
  created: number;
  author: string;
  published: number | null;
  starts: number;
  ends: number | null;
  revision: number;
  shared: number;
  language: string;
  path: string | null;
  pathStarts: number | null;
  pathEnds: number | null;
}

/** Reads live entries of a stored site, those that were read before as they were until a write. */
export class LiveEntries {
  constructor(
    private readonly connection: Connection,
    private readonly site: CompiledSite,
    private readonly tables: LanguageTables,
    private readonly rows: RowCache,
  ) {}

  /** Those of some ids that are live, by their ids and in their order. */
  read(ids: readonly string[], validity: Validity): Map<string, EntryView> {
    const { at } = validity;
    const kept = this.rows.entriesOf(this.site);
    const read = new Map<string, ReadEntry>();
    for (const id of ids) {
      const known = kept.get(id);
      if (known && covers(known, at)) read.set(id, known);
    }
    const unknown = read.size === 0 ? ids : ids.filter((id) => !read.has(id));
    if (unknown.length > 0) for (const [id, one] of this.fetch(unknown, at)) read.set(id, one);
    const found = new Map<string, EntryView>();
    for (const id of ids) {
      const { entry, bounds } = read.get(id)!;
      if (entry) found.set(id, entry);
      for (const bound of bounds) validity.tell(bound);
    }
    return found;
  }

  /** Reads entries as of an instant, each with how long it is so, and keeps them. */
  private fetch(ids: readonly string[], at: Instant): [string, ReadEntry][] {
    const rows = this.rowsOf(ids, at);
    const { design } = this.site;
    for (const row of rows) row.language = spokenIn(design, row.language);
    this.rows.readValues(this.connection, rows);
    const missing = new Set(ids);
    for (const { id } of rows) missing.delete(id);
    const pathless = rows.flatMap(({ id, path }) => (path === null ? [id] : []));
    const moves = this.nextStart(this.tables.address, pathless, at);
    const appears = this.nextStart(this.tables.live, [...missing], at);
    const nobody: ReadEntry = { entry: null, bounds: [appears], from: at, to: appears };
    const read = [
      ...rows.map((row): [string, ReadEntry] => [row.id, this.entryOf(row, moves, at)]),
      ...[...missing].map((id): [string, ReadEntry] => [id, nobody]),
    ];
    this.rows.keepEntries(this.site, read);
    this.rows.readMedia(this.connection, mediaOf(read));
    return read;
  }

  /** `moves`: when it may have a path, where it has none. */
  private entryOf(row: EntryRow, moves: Instant | null, at: Instant): ReadEntry {
    const { starts, ends, path, pathStarts, pathEnds } = row;
    const bounds = [starts, ends, ...(path === null ? [moves] : [pathStarts, pathEnds])];
    const ahead = bounds.filter((bound): bound is Instant => bound !== null && bound > at);
    return {
      entry: this.view(row),
      bounds,
      // When a path that it has not any more has ended is not read.
      from: path === null ? at : Math.max(starts, pathStarts!),
      to: ahead.length === 0 ? null : Math.min(...ahead),
    };
  }

  private rowsOf(ids: readonly string[], at: Instant): EntryRow[] {
    const { live, address } = this.tables;
    const alone = ids.length === 1; // by its key; several in one query
    const sql = `SELECT e.id, e.type, e.created, e.author, e.published, l.starts, l.ends, l.revision,
        l.shared_revision AS shared, l.language, a.path, a.starts AS pathStarts, a.ends AS pathEnds
      FROM entry AS e JOIN ${live} AS l ON l.entry = e.id AND ${asOf('l')}
      LEFT JOIN ${address} AS a ON a.entry = e.id AND a.role = 'current' AND ${asOf('a')}
      WHERE e.id ${alone ? '= ?' : 'IN (SELECT value FROM json_each(?))'}`;
    const asked = alone ? ids[0] : JSON.stringify(ids);
    return statement<EntryRow>(this.connection, sql).all(at, at, at, at, asked);
  }

  private view(row: EntryRow): EntryView | null {
    const type = this.site.types.get(row.type);
    if (!type) return null;
    const { site } = this.site.design;
    const stored = this.rows.values(this.connection, row);
    return {
      id: row.id,
      type,
      values: valuesAs(type.fields, stored, site),
      created: row.created,
      published: firstPublished(row.published, row.starts),
      updated: row.starts,
      author: this.rows.person(this.connection, row.author),
      authorId: row.author,
      state: 'live',
      path: row.path,
      ...(row.language === site.language ? {} : { language: row.language }),
    };
  }

  /** When the first of some entries comes to something; null for never. */
  private nextStart(table: string, entries: readonly string[], at: Instant): Instant | null {
    if (entries.length === 0) return null;
    const alone = entries.length === 1;
    const sql = alone
      ? `SELECT min(starts) FROM ${table} WHERE entry = ? AND starts > ?`
      : `SELECT min(t.starts) FROM json_each(?) AS w JOIN ${table} AS t
           ON t.entry = w.value AND t.starts > ?`;
    const asked = alone ? entries[0] : JSON.stringify(entries);
    return statement<number | null>(this.connection, sql).pluck().get(asked, at)!;
  }
}

const MEDIA_FIELDS = new WeakMap<ContentType, string[]>();

/** The media that entries name in fields of their own. */
function mediaOf(read: readonly [string, ReadEntry][]): string[] {
  return read.flatMap(([, { entry }]) =>
    entry === null
      ? []
      : mediaFields(entry.type).flatMap((id) => valuesOf(entry.values, id).map(String)),
  );
}

function mediaFields(type: ContentType): string[] {
  let found = MEDIA_FIELDS.get(type);
  if (!found) {
    found = type.fields.flatMap(({ id, kind }) => (kind === 'media' ? [id] : []));
    MEDIA_FIELDS.set(type, found);
  }
  return found;
}
