import type { Connection } from '../db/connection.ts';
import type { ListingSql } from './listing-sql.ts';
import { statement } from './statement.ts';

/** Which rows of a list: as many as `limit` from `offset` on. */
interface Stretch {
  offset: number;
  limit: number;
  /** How many there are in all; null where that is not known. */
  total: number | null;
}

/**
 * Ids of the rows of a list's types in their order, read from whichever end is nearer where it is
 * known how many there are.
 */
export function orderedRows(
  connection: Connection,
  parts: readonly ListingSql[],
  { offset, limit, total }: Stretch,
): string[] {
  if (total === null || offset <= total / 2) return read(connection, parts, [limit, offset]);
  const left = Math.min(limit, Math.max(0, total - offset));
  if (left === 0) return [];
  return read(connection, parts, [left, total - offset - left], true).reverse();
}

/** Each type is read in its own order, and they are merged. */
function read(
  connection: Connection,
  parts: readonly ListingSql[],
  stretch: [limit: number, offset: number],
  isBackwards = false,
): string[] {
  const [first] = parts;
  const order = (terms: readonly string[]): string =>
    terms
      .map((sql, i) => `${sql}${first!.order[i]!.descending === isBackwards ? '' : ' DESC'}`)
      .join(', ');
  const isOne = parts.length === 1;
  const of = ({ from, inOrder = from, order: terms }: ListingSql): string =>
    `SELECT r.entry${isOne ? '' : `, ${terms.map(({ sql }) => sql).join(', ')}`} ${inOrder}`;
  const by = first!.order.map(({ sql }, i) => (isOne ? sql : String(i + 2)));
  const text = `${parts.map(of).join(' UNION ALL ')} ORDER BY ${order(by)} LIMIT ? OFFSET ?`;
  return statement<string>(connection, text)
    .pluck()
    .all(...parts.flatMap(({ params }) => params), ...stretch);
}
