import { fingerprint } from '@/core/fingerprint.ts';
import type { Connection } from '../db/connection.ts';
import { statement } from '../store/statement.ts';
import { designGeneration } from '../store/write.ts';
import { type Styled, sheetOf } from '@/core/style/sheet.ts';

const KEPT = 20;

/**
 * The style sheets of the latest designs, by the key their pages name them by. They are read once
 * for each change of the designs.
 */
export class StyleSheets {
  private readonly byKey = new Map<string, string>();
  /** The counter of designs when they were read last. */
  private seen = -1;

  constructor(private readonly connection: Connection) {}

  /** A style sheet's text; null where no design has it. */
  get(key: string): string | null {
    return this.byKey.get(key) ?? (this.readNew() ? (this.byKey.get(key) ?? null) : null);
  }

  /** Reads the latest designs where some were released, or planned anew, since the last time. */
  private readNew(): boolean {
    const generation = designGeneration(this.connection);
    if (generation === this.seen) return false;
    this.seen = generation;
    const rows = statement<{ spec: string }>(
      this.connection,
      'SELECT spec FROM design_version ORDER BY id DESC LIMIT ?',
    ).all(KEPT);
    for (const { spec } of rows.reverse()) {
      const { css: own = '', look, styles } = JSON.parse(spec) as Partial<Styled>;
      const css = sheetOf({ css: own, look, styles });
      const key = fingerprint(css);
      this.byKey.delete(key); // what is in use stays longest
      this.byKey.set(key, css);
    }
    while (this.byKey.size > KEPT) this.byKey.delete(this.byKey.keys().next().value!);
    return true;
  }
}
