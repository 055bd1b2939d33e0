import type { Instant } from '@/core/time/interval.ts';
import type { Connection } from '../db/connection.ts';
import { statement } from './statement.ts';

/** Addresses that change at an instant: how many, and the first few. */
export interface Moved {
  moved: number;
  examples: { from: string; to: string }[];
}

// Found by the entry: all that move end at this one instant.
const MOVES = `FROM address AS a
  JOIN address AS b ON b.entry = a.entry AND +b.ends = a.starts AND b.role = 'current'
  WHERE a.starts = ? AND a.role = 'current' AND a.path <> b.path`;

/** The addresses that move at an instant. */
export function movedAt(connection: Connection, at: Instant): Moved {
  const examples = `SELECT b.path AS "from", a.path AS "to" ${MOVES} ORDER BY b.path LIMIT 5`;
  return {
    moved: statement<number>(connection, `SELECT count(*) ${MOVES}`).pluck().get(at)!,
    examples: statement<Moved['examples'][number]>(connection, examples).all(at),
  };
}
