import type { Connection } from '../db/connection.ts';
import { readKey } from '@/core/forecast/read-set.ts';
import { statement } from './statement.ts';
import { raisePublic } from './write.ts';

/**
 * Notes what a person is called; whoever is known by the id is called so from now on. Where pages
 * name the person, all are made anew.
 */
export function notePerson(
  connection: Connection,
  { id, name }: { id: string; name: string },
): void {
  const { changes } = statement(
    connection,
    `INSERT INTO person (id, name) VALUES (?, ?)
       ON CONFLICT (id) DO UPDATE SET name = excluded.name WHERE name <> excluded.name`,
  ).run(id, name);
  if (changes === 0) return;
  const wrote = statement(connection, 'SELECT 1 FROM entry WHERE author = ? LIMIT 1');
  if (wrote.get(id) !== undefined) raisePublic(connection, [readKey.everything]);
}

/** What a person is called; the id where nobody is known by it. */
export function personName(connection: Connection, id: string): string {
  return (
    statement<string>(connection, 'SELECT name FROM person WHERE id = ?').pluck().get(id) ?? id
  );
}
