import { fingerprint } from '@/core/fingerprint.ts';
import type { Connection } from '../db/connection.ts';
import { statement } from '../store/statement.ts';
import { styleOf } from '@/core/template/default-style.ts';

const KEPT = 20;

/**
 * The style sheets of the latest designs, by the key their pages name them by. Each design is
 * read once.
 */
export class StyleSheets {
  private readonly byKey = new Map<string, string>();
  private seen = 0;

  constructor(private readonly connection: Connection) {}

  /** A style sheet's text; null where no design has it. */
  get(key: string): string | null {
    return this.byKey.get(key) ?? (this.readNew() ? (this.byKey.get(key) ?? null) : null);
  }

  /** Reads designs released since the last time; false where there are none. */
  private readNew(): boolean {
    const sql = 'SELECT id, spec FROM design_version WHERE id > ? ORDER BY id DESC LIMIT ?';
    const rows = statement<{
      id: number;
      spec: string;
    }>(this.connection, sql).all(this.seen, KEPT);
    for (const { id, spec } of rows.reverse()) {
      this.seen = Math.max(this.seen, id);
      const css = styleOf((JSON.parse(spec) as { css?: string }).css ?? '');
      this.byKey.set(fingerprint(css), css);
    }
    while (this.byKey.size > KEPT) this.byKey.delete(this.byKey.keys().next().value!);
    return rows.length > 0;
  }
}
