import type { Connection } from '../db/connection.ts';
import { type Design, designSpec } from '@/core/design/spec.ts';
import { type CompiledSite, compileSite } from '@/core/site/compile.ts';
import { BEGINNING, type Instant } from '@/core/time/interval.ts';
import { DatabaseProblem } from '../db/problem.ts';

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

const MAX_COMPILED = 8;

/** Released designs of one connection; compiled forms are kept by version. */
export class DesignStore {
  private readonly compiled = new Map<string, CompiledSite>();

  constructor(private readonly connection: Connection) {}

  /** The design released as of an instant; null while no site is loaded. */
  at(instant: Instant): ReleasedDesign | null {
    const row = this.connection.driver
      .prepare<
        unknown[],
        { id: number; spec: string; starts: number; saved: number; until: number | null }
      >(
        'SELECT id, spec, starts, saved, (SELECT min(starts) FROM design_version WHERE starts > ?) AS until FROM design_version WHERE starts <= ? ORDER BY starts DESC, id DESC LIMIT 1',
      )
      .get(instant, instant);
    if (!row) return null;
    const key = `${row.id}/${row.saved}`;
    let site = this.compiled.get(key);
    if (!site) {
      site = compileSite(this.read(row)).site;
      if (this.compiled.size >= MAX_COMPILED) this.compiled.clear();
      this.compiled.set(key, site);
    }
    // What a folder brought holds from the beginning, and was put there when it was loaded.
    const since = row.starts !== BEGINNING ? row.starts : row.saved <= instant ? row.saved : null;
    return { version: row.id, site, until: row.until, since };
  }

  /** @throws DatabaseProblem where the stored design cannot be read */
  private read({ id, spec }: { id: number; spec: string }): Design {
    try {
      return designSpec.parse(JSON.parse(spec));
    } catch {
      throw new DatabaseProblem(
        `${this.connection.driver.name} holds a design (version ${id}) that cannot be read.`,
        'Restore it from a backup, or load the site folder again.',
      );
    }
  }
}

/** Writes a design released from an instant on; the one before ends there. */
export function releaseDesign(
  { driver }: Connection,
  design: Design,
  from: Instant,
  author: string,
  saved: Instant,
): void {
  driver.prepare('UPDATE design_version SET ends = ? WHERE ends IS NULL').run(from);
  driver
    .prepare(
      'INSERT INTO design_version (starts, ends, spec, author, saved) VALUES (?, NULL, ?, ?, ?)',
    )
    .run(from, JSON.stringify(design), author, saved);
}
