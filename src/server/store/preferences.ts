import type { Connection } from '../db/connection.ts';
import type { Actor } from '../permit.ts';
import { statement } from './statement.ts';

/** The columns that a person has chosen for a type, or for all; null where none were chosen. */
export function chosenColumns(
  connection: Connection,
  { id }: Pick<Actor, 'id'>,
  type: string | null,
): string[] | null {
  const sql = 'SELECT columns FROM chosen_columns WHERE person = ? AND type = ?';
  const found = statement<string>(connection, sql)
    .pluck()
    .get(id, type ?? '');
  return found === undefined ? null : (JSON.parse(found) as string[]);
}
