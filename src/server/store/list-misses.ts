import type { CompiledSite } from '@/core/site/compile.ts';
import { partsOf } from '@/core/listing/parts.ts';
import type { Filter, FilterWorld, ListingPlan } from '@/core/listing/plan.ts';
import type { Instant } from '@/core/time/interval.ts';
import type { Connection } from '../db/connection.ts';
import { readsComputedOtherwise, readsConverted } from './converted-list.ts';
import { tableSeen } from './index-tables.ts';
import { type MissesSql, missesSql } from './listing-sql.ts';
import { statement } from './statement.ts';
import { settledInstant } from './write.ts';

/** Why live entries of a listing's types are not in it, without looking at each of them. */
export interface ListMisses {
  /** What an entry has to pass, with how many do not pass it. */
  counts: { filter: Filter; count: number }[];
  /** How many live entries there are. */
  live: number;
  /** Ids of those that fail the least, the least first. */
  near: string[];
}

/**
 * Counts what keeps live entries out of a listing as of an instant; null where it reads what stands
 * in no table as it is read.
 */
export function missesOf(
  connection: Connection,
  site: CompiledSite,
  plan: ListingPlan,
  { at, world, most }: { at: Instant; world: FilterWorld; most: number },
): ListMisses | null {
  const parts = partsOf(plan);
  const isConverted = (part: ListingPlan): boolean =>
    readsConverted(connection, part) || readsComputedOtherwise(connection, part, site.design.site);
  if (parts.some(isConverted)) return null;
  const settled = settledInstant(connection);
  const tableOf = (type: ListingPlan['type']): string | null => tableSeen(connection, type);
  const found = parts.flatMap((part) => {
    const table = tableOf(part.type);
    if (table === null) return [];
    const filters = part.filter.kind === 'all' ? part.filter.filters : [part.filter];
    const sql = missesSql(part, filters, { at, settled, world, table, tableOf });
    return [{ filters, ...countedMisses(connection, sql), near: nearest(connection, sql, most) }];
  });
  const near = found.flatMap((one) => one.near).sort(([, a], [, b]) => a - b);
  return {
    counts: found.flatMap(({ filters, counts }) =>
      filters.map((filter, i) => ({ filter, count: counts[i]! })),
    ),
    live: found.reduce((sum, { live }) => sum + live, 0),
    near: near.slice(0, most).map(([id]) => id),
  };
}

function countedMisses(
  connection: Connection,
  { from, params, tests }: MissesSql,
): { counts: number[]; live: number } {
  const sums = tests.map(({ sql }) => `, coalesce(sum(NOT ${sql}), 0)`).join('');
  const [live, ...counts] = statement<number[]>(connection, `SELECT count(*)${sums} ${from}`)
    .raw()
    .get(...tests.flatMap((test) => test.params), ...params)!;
  return { counts, live: live! };
}

/** The ids of those that fail least, each with how many it fails. */
function nearest(
  connection: Connection,
  { from, params, tests }: MissesSql,
  most: number,
): [string, number][] {
  if (tests.length === 0) return [];
  const misses = tests.map(({ sql }) => `(NOT ${sql})`).join(' + ');
  const text = `SELECT r.entry, ${misses} AS misses ${from} AND misses > 0
    ORDER BY misses, r.created, r.entry LIMIT ?`;
  return statement<[string, number]>(connection, text)
    .raw()
    .all(...tests.flatMap((test) => test.params), ...params, most);
}
