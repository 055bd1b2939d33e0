import type { Connection } from '../db/connection.ts';
import { type Design, designSpec } from '@/core/design/spec.ts';
import { type CompiledSite, compileSite } from '@/core/site/compile.ts';
import { BEGINNING, type Instant } from '@/core/time/interval.ts';
import { pagesReadingOtherwise } from '@/core/forecast/parts-read.ts';
import { readKey } from '@/core/forecast/read-set.ts';
import { DatabaseProblem } from '../db/problem.ts';
import { statement } from './statement.ts';
import { raisePublic } from './write.ts';

/**
 * A released design, compiled, and the instant at which the next one takes over (ms UTC; null for
 * none).
 */
export interface ReleasedDesign {
  version: number;
  site: CompiledSite;
  until: Instant | null;
  /** When it was released, ms UTC; null where that is not known as of the instant. */
  since: Instant | null;
}

const MAX_COMPILED = 16;

type Row = { id: number; starts: number; saved: number; generation: number | null };

const COLUMNS = `id, starts, saved,
  (SELECT generation FROM site_change WHERE scope = 'design') AS generation`;

const STORES = new WeakMap<Connection['driver'], DesignStore>();

/** The released designs of a connection. */
export function designsOf(connection: Connection): DesignStore {
  let store = STORES.get(connection.driver);
  if (!store) STORES.set(connection.driver, (store = new DesignStore(connection)));
  return store;
}

/** Released designs of one connection; compiled forms are kept by what they are compiled from. */
export class DesignStore {
  private readonly compiled = new Map<string, CompiledSite>();

  constructor(private readonly connection: Connection) {}

  /** The design released as of an instant; null while no site is loaded. */
  at(instant: Instant): ReleasedDesign | null {
    const row = statement<Row & { until: number | null }>(
      this.connection,
      `SELECT ${COLUMNS},
         (SELECT min(starts) FROM design_version WHERE starts > ?) AS until
       FROM design_version WHERE starts <= ? ORDER BY starts DESC, id DESC LIMIT 1`,
    ).get(instant, instant);
    if (!row) return null;
    // What a folder brought holds from the beginning, and was put there when it was loaded.
    const since = row.starts !== BEGINNING ? row.starts : row.saved <= instant ? row.saved : null;
    return { version: row.id, site: this.siteOf(row), until: row.until, since };
  }

  /** The designs that take over after an instant, in their order. */
  after(instant: Instant): { starts: Instant; site: CompiledSite }[] {
    return statement<Row>(
      this.connection,
      `SELECT ${COLUMNS} FROM design_version AS v WHERE starts > ?
         AND NOT EXISTS (SELECT 1 FROM design_version AS o WHERE o.starts = v.starts AND o.id > v.id)
       ORDER BY starts`,
    )
      .all(instant)
      .map((row) => ({ starts: row.starts, site: this.siteOf(row) }));
  }

  /** Forgets compiled designs: those of a write that was not kept among them. */
  forget(): void {
    this.compiled.clear();
  }

  private siteOf({ id, saved, generation }: Row): CompiledSite {
    // A release put before a planned one gives that another design under the number it has.
    const key = `${id}/${saved}/${generation}`;
    const known = this.compiled.get(key);
    if (known) return known;
    const { site } = compileSite(this.read(id));
    if (this.compiled.size >= MAX_COMPILED) this.compiled.clear();
    this.compiled.set(key, site);
    return site;
  }

  /** @throws DatabaseProblem where the stored design cannot be read */
  private read(id: number): Design {
    const spec = statement<string>(
      this.connection,
      'SELECT spec FROM design_version WHERE id = ?',
    ).pluck();
    try {
      return designSpec.parse(JSON.parse(spec.get(id)!));
    } catch {
      throw new DatabaseProblem(
        `${this.connection.driver.name} holds a design (version ${id}) that cannot be read.`,
        'Restore it from a backup, or load the site folder again.',
      );
    }
  }
}

/** A release as it is stored. */
export interface StoredRelease {
  /** Its number; the next one where it is not given. */
  id?: number;
  design: Design;
  starts: Instant;
  author: string;
  saved: Instant;
  /** JSON; null where the design is put there as a whole. */
  edits?: string | null;
  published?: string;
  undoes?: number | null;
}

/** Stores a release; gives its number. */
export function storeRelease(connection: Connection, release: StoredRelease): number {
  const { id = null, starts, author, saved } = release;
  const { edits = null, published = '[]', undoes = null } = release;
  const spec = JSON.stringify(release.design);
  const { lastInsertRowid } = statement(
    connection,
    `INSERT INTO design_version (id, starts, spec, author, saved, edits, published, undoes)
       VALUES (?, ?, ?, ?, ?, ?, ?, ?)`,
  ).run(id, starts, spec, author, saved, edits, published, undoes);
  return Number(lastInsertRowid);
}

/**
 * Raises the counters of the released designs once they are stored, and tells which pages read
 * something else of those that hold from an instant on than of the one that held before.
 */
export function raiseDesign(connection: Connection, held: CompiledSite, at: Instant): void {
  raisePublic(connection, [readKey.design]);
  const designs = designsOf(connection);
  const now = designs.at(at);
  const ahead = [...(now ? [now] : []), ...designs.after(at)].map(({ site }) => site.design);
  raisePublic(connection, pagesReadingOtherwise(held.design, ahead));
}
