import { type Others, evaluateListing } from '@/core/listing/evaluate.ts';
import { cell, type Column, type ListingRow } from '@/core/listing/columns.ts';
import type { ContentType, Design } from '@/core/design/spec.ts';
import { partsOf } from '@/core/listing/parts.ts';
import {
  type FilterWorld,
  type ListingPlan,
  conditionsOf,
  countedColumns,
} from '@/core/listing/plan.ts';
import { type Converting, valuesAs } from '@/core/design/conversion.ts';
import { isDerived } from '@/core/design/computed.ts';
import type { Instant } from '@/core/time/interval.ts';
import type { Connection } from '../db/connection.ts';
import { asOf } from './as-of.ts';
import { namesOf } from './index-columns.ts';
import { isComputedAlike, madeColumns } from './index-tables.ts';
import { tablesIn } from './language-tables.ts';
import { statement } from './statement.ts';
import { readShown, spokenIn } from './stored-values.ts';

/**
 * Whether a listing reads a field that takes the place of another and has no column so far: no
 * release has it yet.
 */
export function readsConverted(connection: Connection, plan: ListingPlan): boolean {
  return columnsRead(plan).some(({ type, column }) => hasNoColumn(connection, type, column));
}

/** Whether a column whose values are counted, by its name, is of such a field. */
export function countsConverted(connection: Connection, plan: ListingPlan, name: string): boolean {
  return partsOf(plan).some((part) =>
    countedColumns(part).some((c) => c.name === name && hasNoColumn(connection, part.type, c)),
  );
}

function hasNoColumn(connection: Connection, type: ContentType, column: Column): boolean {
  if (!column.field?.replaces) return false;
  const made = madeColumns(connection, type);
  return namesOf(column).some((name) => !made.has(name));
}

/** Whether a listing reads a computed field that its column holds by another pattern. */
export function readsComputedOtherwise(
  connection: Connection,
  plan: ListingPlan,
  site: Converting,
): boolean {
  return columnsRead(plan).some(
    ({ type, column: { field } }) =>
      field !== null && isDerived(field) && !isComputedAlike(connection, type, field, site),
  );
}

/** The columns that a list in one of its types reads, each with whose it is. */
function columnsRead(plan: ListingPlan): { type: ContentType; column: Column }[] {
  const conditions = conditionsOf(plan.filter);
  const own = [...conditions, ...plan.sort].map(({ column }) => ({ type: plan.type, column }));
  const led = conditions.flatMap(({ through }) => through ?? []);
  return [...own, ...led.map(({ type, condition: { column } }) => ({ type, column }))];
}

interface Row extends Omit<ListingRow, 'values' | 'type'> {
  language: string;
  words: string;
  rest: string;
}

/** Such a listing as of an instant: its rows are read and converted one by one. */
export class ConvertedList {
  private readonly rows: ListingRow[];

  constructor(
    private readonly connection: Connection,
    private readonly plan: ListingPlan,
    private readonly at: Instant,
    design: Design,
  ) {
    const tables = tablesIn(design.edition?.id);
    const sql = `SELECT l.entry, l.starts AS "from", l.ends AS "to", e.created, e.author,
        min(coalesce(e.published, l.starts), l.starts) AS published, l.starts AS updated,
        l.language, r."values" AS words, s."values" AS rest
      FROM entry AS e JOIN ${tables.live} AS l ON l.entry = e.id AND ${asOf('l')}
      JOIN revision AS r ON r.entry = l.entry AND r.number = l.revision
      JOIN revision AS s ON s.entry = l.entry AND s.number = l.shared_revision WHERE e.type = ?`;
    const read = statement<Row>(connection, sql);
    const rowsOf = (type: ContentType): ListingRow[] =>
      read.all(at, at, type.id).map(({ words, rest, language, ...row }) => ({
        ...row,
        type: type.id,
        values: valuesAs(
          type.fields,
          readShown(words, rest, spokenIn(design, language)),
          design.site,
        ),
      }));
    this.rows = partsOf(plan).flatMap(({ type }) => rowsOf(type));
  }

  /** The entries in it, in order; `row` reads others. */
  ids(world: FilterWorld, row: Others['row']): string[] {
    const live = statement(
      this.connection,
      `SELECT 1 FROM ${tablesIn(this.plan.type.edition).live} AS l WHERE l.entry = ? AND ${asOf('l')}`,
    );
    const { at } = this;
    return evaluateListing(this.plan, this.rows, at, world, {
      isLive: (entry) => live.get(entry, at, at) !== undefined,
      row,
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
