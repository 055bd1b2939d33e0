/**
 * SQL: whether a row holds as of an instant: from its start on, until before its end.
 * `row` is the table's name in the query, '' where there is one table; `at` the instant, bound
 * twice where it is "?".
 */
export function asOf(row: string, at = '?'): string {
  const column = (name: string): string => (row === '' ? name : `${row}.${name}`);
  return `${column('starts')} <= ${at} AND (${column('ends')} IS NULL OR ${column('ends')} > ${at})`;
}
