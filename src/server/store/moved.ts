import type { Instant } from '@/core/time/interval.ts';
import type { Connection } from '../db/connection.ts';
import { languagesMade, tablesIn } from './language-tables.ts';
import { statement } from './statement.ts';

/** Addresses that change at an instant: how many, and the first few. */
export interface Moved {
  moved: number;
  examples: { from: string; to: string }[];
}

const EXAMPLES = 5;

/** The addresses that move at an instant, in every language. */
export function movedAt(connection: Connection, at: Instant): Moved {
  const all = [undefined, ...languagesMade(connection)].map((language) =>
    movedIn(connection, tablesIn(language).address, at),
  );
  return {
    moved: all.reduce((sum, { moved }) => sum + moved, 0),
    examples: all.flatMap(({ examples }) => examples).slice(0, EXAMPLES),
  };
}

function movedIn(connection: Connection, address: string, at: Instant): Moved {
  // Found by the entry: all that move end at this one instant.
  const moves = `FROM ${address} AS a
    JOIN ${address} AS b ON b.entry = a.entry AND +b.ends = a.starts AND b.role = 'current'
    WHERE a.starts = ? AND a.role = 'current' AND a.path <> b.path`;
  const examples = `SELECT b.path AS "from", a.path AS "to" ${moves}
    ORDER BY b.path LIMIT ${EXAMPLES}`;
  return {
    moved: statement<number>(connection, `SELECT count(*) ${moves}`).pluck().get(at)!,
    examples: statement<Moved['examples'][number]>(connection, examples).all(at),
  };
}
