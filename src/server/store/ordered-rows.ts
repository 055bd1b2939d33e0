import type { Instant } from '@/core/time/interval.ts';
import type { Connection } from '../db/connection.ts';
import { type DeepRead, deepRows } from './deep-rows.ts';
import { type ListingSql, orderSql } from './listing-sql.ts';
import { statement } from './statement.ts';

/** From so many rows on it pays to pass over them otherwise. */
const DEEP = 1000;

/** Which rows of a list as of an instant: as many as `limit` from `offset` on. */
export interface Stretch {
  at: Instant;
  offset: number;
  limit: number;
  /** How many there are in all; null where that is not known. */
  total: number | null;
}

type Part = ListingSql & Pick<DeepRead['part'], 'plan'>;

/**
 * Ids of the rows of a list's types in their order, read from whichever end is nearer where it is
 * known how many there are.
 */
export function orderedRows(
  connection: Connection,
  parts: readonly Part[],
  { at, offset, limit, total }: Stretch,
): string[] {
  const isBackwards = total !== null && offset > total / 2;
  const left = isBackwards ? Math.min(limit, Math.max(0, total - offset)) : limit;
  if (left === 0) return [];
  const from = isBackwards ? total - offset - left : offset;
  const isDeep = total !== null && from >= DEEP && parts.length === 1;
  const deep = { part: parts[0]!, at, offset: from, limit: left, isBackwards };
  const ids =
    (isDeep ? deepRows(connection, deep) : null) ??
    read(connection, parts, [left, from], isBackwards);
  return isBackwards ? ids.reverse() : ids;
}

/** Each type is read in its own order, and they are merged. */
function read(
  connection: Connection,
  parts: readonly ListingSql[],
  stretch: [limit: number, offset: number],
  isBackwards = false,
): string[] {
  const [first] = parts;
  const isOne = parts.length === 1;
  const of = ({ from, inOrder = from, order: terms }: ListingSql): string =>
    `SELECT r.entry${isOne ? '' : `, ${terms.map(({ sql }) => sql).join(', ')}`} ${inOrder}`;
  const by = first!.order.map((term, i) => (isOne ? term : { ...term, sql: String(i + 2) }));
  const order = orderSql(by, isBackwards);
  const text = `${parts.map(of).join(' UNION ALL ')} ORDER BY ${order} LIMIT ? OFFSET ?`;
  return statement<string>(connection, text)
    .pluck()
    .all(...parts.flatMap(({ params }) => params), ...stretch);
}
