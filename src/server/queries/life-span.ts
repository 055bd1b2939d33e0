import type { Design } from '@/core/design/spec.ts';
import type { Instant } from '@/core/time/interval.ts';
import type { Connection } from '../db/connection.ts';
import { tablesRead } from '../store/language-tables.ts';
import { statement } from '../store/statement.ts';
import { hasWordsIn } from '../store/stored-values.ts';

/** A stretch of an entry's life; planned where it starts ahead of now. */
export interface LifeSpan {
  from: Instant;
  to: Instant | null;
  revision: number;
}

/** The life of an entry in a further language, in words of its own. */
export interface LifeIn {
  /** What the language is called. */
  language: string;
  spans: LifeSpan[];
  /** Whether it says anything in it. */
  isWritten: boolean;
}

/**
 * The lives of an entry in the further languages of its site, in their order; whether it says
 * anything in them is that of the revision whose values are given.
 */
export function livesElsewhere(
  connection: Connection,
  { languages }: Design,
  { id: entry, values: json }: { id: string; values: string },
): LifeIn[] {
  return languages.map(({ id, language, label }) => {
    const { live } = tablesRead(connection, id);
    // Where the words of the site's own language stand in, it is not public in this one.
    const sql = `SELECT starts AS "from", ends AS "to", revision FROM ${live}
      WHERE entry = ? AND language = ? ORDER BY starts`;
    const spans = statement<LifeSpan>(connection, sql).all(entry, language);
    return { language: label, spans, isWritten: hasWordsIn(json, language) };
  });
}
