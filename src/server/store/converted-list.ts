import { evaluateListing } from '@/core/listing/evaluate.ts';
import { cell, type Column, type ListingRow } from '@/core/listing/columns.ts';
import type { ContentType } from '@/core/design/spec.ts';
import { partsOf } from '@/core/listing/parts.ts';
import { type FilterWorld, type ListingPlan, conditionsOf } from '@/core/listing/plan.ts';
import type { Converting } from '@/core/design/conversion.ts';
import { isDerived } from '@/core/design/computed.ts';
import type { Instant } from '@/core/time/interval.ts';
import type { Connection } from '../db/connection.ts';
import { asOf } from './as-of.ts';
import { namesOf } from './index-columns.ts';
import { isComputedAlike, madeColumns } from './index-tables.ts';
import { statement } from './statement.ts';
import { valuesOfType } from './stored-values.ts';

/**
 * Whether a listing reads a field that takes the place of another and has no column so far: no
 * release has it yet.
 */
export function readsConverted(connection: Connection, plan: ListingPlan): boolean {
  const converted = [...conditionsOf(plan.filter), ...plan.sort]
    .map(({ column }) => column)
    .filter((column) => column.field?.replaces);
  if (converted.length === 0) return false;
  const made = madeColumns(connection, plan.type);
  return converted.some((column) => namesOf(column).some((name) => !made.has(name)));
}

/** Whether a listing reads a computed field that its column holds by another pattern. */
export function readsComputedOtherwise(
  connection: Connection,
  plan: ListingPlan,
  site: Converting,
): boolean {
  return [...conditionsOf(plan.filter), ...plan.sort].some(
    ({ column: { field } }) =>
      field !== null && isDerived(field) && !isComputedAlike(connection, plan.type, field, site),
  );
}

/** Such a listing as of an instant: its rows are read and converted one by one. */
export class ConvertedList {
  private readonly rows: ListingRow[];

  constructor(
    private readonly connection: Connection,
    private readonly plan: ListingPlan,
    private readonly at: Instant,
    site: Converting,
  ) {
    const sql = `SELECT l.entry, l.starts AS "from", l.ends AS "to", e.created,
        coalesce(e.published, l.starts) AS published, l.starts AS updated, r."values" AS json
      FROM entry AS e JOIN live_interval AS l ON l.entry = e.id AND ${asOf('l')}
      JOIN revision AS r ON r.entry = l.entry AND r.number = l.revision WHERE e.type = ?`;
    const read = statement<Omit<ListingRow, 'values' | 'type'> & { json: string }>(connection, sql);
    const rowsOf = (type: ContentType): ListingRow[] =>
      read.all(at, at, type.id).map(({ json, ...row }) => ({
        ...row,
        type: type.id,
        values: valuesOfType(type, json, site),
      }));
    this.rows = partsOf(plan).flatMap(({ type }) => rowsOf(type));
  }

  /** The entries in it, in order. */
  ids(world: FilterWorld): string[] {
    const live = statement(
      this.connection,
      `SELECT 1 FROM live_interval AS l WHERE l.entry = ? AND ${asOf('l')}`,
    );
    return evaluateListing(this.plan, this.rows, this.at, {
      ...world,
      isLive: (entry, t) => live.get(entry, t, t) !== undefined,
    });
  }

  /** The least value of a column from one on; null where there is none. */
  leastFrom(column: Column, from: number): number | null {
    const values = this.rows.flatMap((row) => {
      const value = cell(row, column);
      return typeof value === 'number' && value >= from ? [value] : [];
    });
    return values.length === 0 ? null : values.reduce((a, b) => Math.min(a, b));
  }
}
