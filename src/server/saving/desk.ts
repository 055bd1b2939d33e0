import type { Connection } from '../db/connection.ts';
import { statement } from '../store/statement.ts';

/** What history.yaml says of the tables that people have set up; nothing where nobody has. */
export function deskFile(connection: Connection): object {
  const filters = statement<{ shared: number; filters: string }>(
    connection,
    'SELECT id, name, person, shared, filters FROM saved_filter ORDER BY id',
  ).all();
  const columns = statement<{ columns: string }>(
    connection,
    'SELECT person, type, columns FROM chosen_columns ORDER BY person, type',
  ).all();
  if (filters.length + columns.length === 0) return {};
  return {
    desk: {
      filters: filters.map((row) => ({
        ...row,
        shared: row.shared === 1,
        filters: JSON.parse(row.filters) as object,
      })),
      columns: columns.map((row) => ({ ...row, columns: JSON.parse(row.columns) as string[] })),
    },
  };
}
