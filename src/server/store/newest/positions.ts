import type { Field } from '@/core/design/field.ts';
import type { ContentType } from '@/core/design/spec.ts';
import type { Values } from '@/core/design/values.ts';
import { isBlank } from '@/core/pattern/types.ts';
import type { Connection } from '../../db/connection.ts';
import { statement } from '../statement.ts';

/** Values of a new entry with the next place in each field that says where entries stand. */
export function withNextPlaces(
  connection: Connection,
  { fields }: ContentType,
  values: Values,
): Values {
  const last = statement<number | null>(
    connection,
    'SELECT max(value) FROM newest_cell WHERE field = ?',
  ).pluck();
  const places = fields
    .filter((field) => field.position && isBlank(values[field.id]))
    .map(({ id }) => [id, Math.floor(last.get(id) ?? 0) + 1] as const);
  return { ...values, ...Object.fromEntries(places) };
}

/**
 * The place between the one that another entry has and the one before it; behind all where `before`
 * is null. Null where numbers leave no room there.
 */
export function placeBefore(
  connection: Connection,
  { id }: Field,
  { entry, before }: { entry: string; before: string | null },
): number | null {
  const placeOf = statement<number>(
    connection,
    `SELECT value FROM newest_cell JOIN newest USING (id) WHERE field = ? AND entry = ?`,
  ).pluck();
  const upper = before === null ? null : (placeOf.get(id, before) ?? null);
  const lower = statement<number | null>(
    connection,
    `SELECT max(value) FROM newest_cell JOIN newest USING (id)
       WHERE field = ? AND entry <> ? AND (? IS NULL OR value < ?)`,
  )
    .pluck()
    .get(id, entry, upper, upper);
  if (upper === null) return Math.floor(lower ?? 0) + 1;
  const place = lower === null || lower === undefined ? upper - 1 : (lower + upper) / 2;
  return place < upper && (lower === null || place > lower!) ? place : null;
}
