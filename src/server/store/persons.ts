import type { Connection } from '../db/connection.ts';
import { statement } from './statement.ts';

/** Notes what a person is called; whoever is known by the id is called so from now on. */
export function notePerson(
  connection: Connection,
  { id, name }: { id: string; name: string },
): void {
  statement(
    connection,
    `INSERT INTO person (id, name) VALUES (?, ?)
       ON CONFLICT (id) DO UPDATE SET name = excluded.name WHERE name <> excluded.name`,
  ).run(id, name);
}

/** What a person is called; the id where nobody is known by it. */
export function personName(connection: Connection, id: string): string {
  return (
    statement<string>(connection, 'SELECT name FROM person WHERE id = ?').pluck().get(id) ?? id
  );
}
