import type { Connection } from '../db/connection.ts';
import { quoted } from './index-columns.ts';
import { statement } from './statement.ts';

/** What is known of a database as of a version of its schema. */
interface Known {
  version: number;
  answers: Map<string, unknown>;
}

const known = new WeakMap<object, Known>();

/**
 * What the schema of a database says of something, looked up once until the schema changes. Not so
 * within a transaction: if that is not kept, the next schema has the same number.
 */
export function bySchema<Answer>(
  connection: Connection,
  question: string,
  answer: () => Answer,
): Answer {
  if (connection.driver.inTransaction) return answer();
  const version = statement<number>(connection, 'PRAGMA schema_version').pluck().get()!;
  let now = known.get(connection.driver);
  if (now?.version !== version)
    known.set(connection.driver, (now = { version, answers: new Map<string, unknown>() }));
  if (!now.answers.has(question)) now.answers.set(question, answer());
  return now.answers.get(question) as Answer;
}

/** The columns that a table has, quoted; none where there is no such table. */
export function columnsMade(connection: Connection, table: string): Set<string> {
  return bySchema(connection, `columns of ${table}`, () => {
    const names = statement<string>(connection, 'SELECT name FROM pragma_table_info(?)')
      .pluck()
      .all(table.slice(1, -1));
    return new Set(names.map(quoted));
  });
}
