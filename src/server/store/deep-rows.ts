import type { ListingPlan } from '@/core/listing/plan.ts';
import type { Instant } from '@/core/time/interval.ts';
import { calendarDay } from '@/core/time/zone.ts';
import type { Connection } from '../db/connection.ts';
import { asOf } from './as-of.ts';
import type { CountSql } from './kept-total.ts';
import { comesBefore } from './listing-order.ts';
import { type ListingSql, orderColumn, orderSql } from './listing-sql.ts';
import { statement } from './statement.ts';

/** Where more open rows than this do not hold, it is left to others. */
const MOST_OUTSIDE = 50;

/** A list in one type, and which of its rows: as many as `limit` from `offset` on. */
export interface DeepRead {
  part: Pick<ListingSql, 'open' | 'order'> & { plan: ListingPlan };
  at: Instant;
  offset: number;
  limit: number;
  /** From the last on. */
  isBackwards: boolean;
}

/**
 * Ids of the rows of a list far within it. Open rows are passed over without asking each whether it
 * holds; then it is put right by as many of those that do not hold as lie before. Null where nothing
 * is kept of that, or where it cannot be told.
 */
export function deepRows(connection: Connection, read: DeepRead): string[] | null {
  const { part, at, offset, limit, isBackwards } = read;
  const open = part.open();
  if (!open) return null;
  const outside = entriesOf(connection, open.outside);
  if (outside.length > MOST_OUTSIDE) return null;
  const today = calendarDay(at, part.plan.zone);
  const keys = part.plan.sort.map((key) => orderColumn(part.plan, key, today));
  const text = `SELECT r.entry, ${asOf('r')}, r.created${keys.map((sql) => `, ${sql}`).join('')}
    ${open.from.sql} ORDER BY ${orderSql(part.order, isBackwards)} LIMIT ? OFFSET ?`;
  const params = [at, at, ...open.from.params, limit + outside.length, offset];
  const rows = statement<Row>(connection, text)
    .raw()
    .all(...params);
  const [first] = rows;
  if (!first) return [];
  const [entry, , created, ...cells] = first;
  // One that stands there twice, once open and not yet, may lie on either side.
  if (outside.includes(entry)) return null;
  const isBefore = comesBefore(part.plan, { keys: cells, created, entry, today });
  const before = open.outside.reduce((sum, of) => sum + count(connection, of, isBefore), 0);
  const passed = isBackwards ? outside.length - before : before;
  const held = rows.flatMap(([id, holds]) => (holds === 1 ? [id] : []));
  return held.slice(passed, passed + limit);
}

type Row = [entry: string, holds: number, created: number, ...keys: (string | number | null)[]];

function entriesOf(connection: Connection, outside: readonly CountSql[]): string[] {
  const each = outside.map(({ sql }) => `SELECT r.entry ${sql}`);
  return statement<string>(connection, `${each.join(' UNION ALL ')} LIMIT ${MOST_OUTSIDE + 1}`)
    .pluck()
    .all(...outside.flatMap(({ params }) => params));
}

function count(connection: Connection, { sql, params }: CountSql, where: CountSql): number {
  return statement<number>(connection, `SELECT count(*) ${sql} AND ${where.sql}`)
    .pluck()
    .get(...params, ...where.params)!;
}
