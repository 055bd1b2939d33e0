import type { Field } from './field.ts';
import { kindOf } from './kinds/index.ts';
import { PRESETS } from './presets.ts';
import type { ContentType } from './spec.ts';
import type { Values } from './values-of.ts';

/** Whether what one entry holds in a field may stand in another: not what no two may have. */
export function isTakenOver(field: Field): boolean {
  return !field.unique && !field.position && !kindOf(field).derived;
}

/** What of an entry's values a new one may begin with, by field id. */
export function takenOver({ fields }: Pick<ContentType, 'fields'>, values: Values): Values {
  const ids = [...fields.filter(isTakenOver).map(({ id }) => id), PRESETS];
  return Object.fromEntries(ids.map((id) => [id, values[id] ?? null]));
}
