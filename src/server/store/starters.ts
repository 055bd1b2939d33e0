import { PRESETS } from '@/core/design/presets.ts';
import type { ContentType } from '@/core/design/spec.ts';
import type { Values } from '@/core/design/values.ts';
import { compareCodePoints } from '@/core/text.ts';
import type { Instant } from '@/core/time/interval.ts';
import type { Connection } from '../db/connection.ts';
import { statement } from './statement.ts';
import { storedValues } from './stored-values.ts';

/** What new entries of a type can begin with. */
export interface StarterRow {
  id: string;
  /** Id of the type. */
  type: string;
  name: string;
  /** JSON by field id, as revisions are stored. */
  filled: string;
  author: string;
  saved: Instant;
}

/** A starter; undefined where there is none. */
export function starterOf(connection: Connection, id: string): StarterRow | undefined {
  return statement<StarterRow>(connection, 'SELECT * FROM starter WHERE id = ?').get(id);
}

/** The starters of a type, by its id, by their names. */
export function startersOf(connection: Connection, type: string): StarterRow[] {
  const sql = 'SELECT * FROM starter WHERE type = ? ORDER BY name, id';
  return statement<StarterRow>(connection, sql).all(type);
}

/** Writes a starter, in place of the one of its id. */
export function putStarter(connection: Connection, row: StarterRow): void {
  statement(
    connection,
    `INSERT INTO starter (id, type, name, filled, author, saved)
       VALUES (@id, @type, @name, @filled, @author, @saved)
     ON CONFLICT (id) DO UPDATE SET name = excluded.name, filled = excluded.filled,
       author = excluded.author, saved = excluded.saved`,
  ).run(row);
}

/**
 * Values of a form as a starter holds them; what fields of an earlier design held stays, as it does
 * in entries.
 */
export function filledBy(
  type: ContentType,
  values: Values,
  { language, before = '{}' }: { language: string; before?: string | undefined },
): string {
  const known = new Set([...type.fields.map(({ id }) => id), PRESETS]);
  const others = Object.entries(JSON.parse(before) as Values).filter(([id]) => !known.has(id));
  return asFilled({ ...Object.fromEntries(others), ...storedValues(type, values, language) });
}

/** Stored values as JSON: what is blank is left out, so that a field's own default holds. */
export function asFilled(stored: Values): string {
  const filled = Object.entries(stored).filter(([, value]) => value !== null);
  return JSON.stringify(Object.fromEntries(filled.sort(([a], [b]) => compareCodePoints(a, b))));
}
