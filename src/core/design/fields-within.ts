import type { Field } from './field.ts';
import { type Values, valuesOf } from './values-of.ts';

/** Fields, with all that stand in groups among them, however deep. */
export function withInner(fields: readonly Field[]): Field[] {
  return fields.flatMap((field) => [field, ...withInner(field.fields ?? [])]);
}

/** The value of a group, one item or a list of them, with something done to every item. */
export function eachItem(value: unknown, act: (item: Values) => Values): unknown {
  if (Array.isArray(value)) return value.map((item) => eachItem(item, act));
  return typeof value === 'object' && value !== null ? act(value as Values) : value;
}

/**
 * The values of a field within groups, a list for each item it stands in; `path`: the ids of the
 * groups from the outermost on, then its own.
 */
export function valuesWithin(values: Values, path: readonly string[]): unknown[][] {
  const [id, ...inner] = path;
  const all = valuesOf(values, id ?? '');
  if (inner.length === 0) return all.length > 0 ? [all] : [];
  return all.flatMap((item) => valuesWithin(item as Values, inner));
}
