import type { ConditionSpec } from '../design/listing-spec.ts';
import { valuesOf } from '../design/values.ts';
import { type Column, type ListingRow, cell } from './columns.ts';

/** Several values are named one by one up to so many. */
const MOST_NAMED = 3;

/**
 * Conditions that each of some rows passes: what they have in common, as strictly as one condition
 * says it. `around`: the subjects that one lies within, itself first.
 */
export function sharedConditions(
  columns: Iterable<Column>,
  rows: readonly ListingRow[],
  around: (set: string, key: string) => readonly string[],
): ConditionSpec[] {
  if (rows.length === 0) return [];
  return [...columns].flatMap((column) =>
    column.field === null ? [] : shared(column, rows, around),
  );
}

function shared(
  column: Column,
  rows: readonly ListingRow[],
  around: (set: string, key: string) => readonly string[],
): ConditionSpec[] {
  const { name: field, family } = column;
  switch (family) {
    case 'choice':
    case 'members':
      return sharedKeys(column, rows, around);
    case 'yesno':
    case 'text': {
      const [first, ...rest] = rows.map((row) => cell(row, column));
      const isSame = first !== null && rest.every((value) => value === first);
      return isSame ? [{ field, op: 'is', value: writtenOf(column, rows[0]!) }] : [];
    }
    case 'number':
    case 'day':
      return span(column, rows);
    default:
      return [];
  }
}

/** A value as it is written in a condition. */
function writtenOf({ field, family }: Column, row: ListingRow): string | boolean {
  const [value] = valuesOf(row.values, field!.id);
  return family === 'yesno' ? value === true : String(value);
}

/** From the least to the most that they have. */
function span(column: Column, rows: readonly ListingRow[]): ConditionSpec[] {
  const { name: field } = column;
  const values = rows.map((row) => cell(row, column) as string | number | null);
  const there = values.filter((value) => value !== null);
  if (there.length < values.length) return [];
  const least = there.reduce((a, b) => (a < b ? a : b));
  const most = there.reduce((a, b) => (a > b ? a : b));
  if (least === most) return [{ field, op: 'is', value: least }];
  return [{ field, op: 'between', value: [least, most] }];
}

/** The keys that all have, subjects counting for all that they lie within; else all of a few. */
function sharedKeys(
  column: Column,
  rows: readonly ListingRow[],
  around: (set: string, key: string) => readonly string[],
): ConditionSpec[] {
  const { name: field, target, field: of } = column;
  const own = rows.map((row) => cell(row, column) as string[]);
  if (own.some((keys) => keys.length === 0)) return [];
  const wide = own.map((keys) =>
    target?.of === 'subjects' ? keys.flatMap((key) => around(target.set, key)) : keys,
  );
  const written = (key: string): string => of?.options?.find((o) => o.id === key)?.key ?? key;
  const common = [...new Set(wide[0])].filter((key) => wide.every((keys) => keys.includes(key)));
  if (common.length > 0)
    return common.map((key) => ({ field, op: 'is' as const, value: written(key) }));
  const all = [...new Set(own.flat())];
  if (all.length > MOST_NAMED) return [];
  return [{ field, op: 'any-of', value: all.map(written) }];
}
