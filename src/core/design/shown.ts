import { isBlank } from '../pattern/types.ts';
import type { Field } from './field.ts';
import { type Values, valuesOf } from './values.ts';

/** When a form shows a field: while another is filled, or has a value; ids and stored values. */
export interface ShownWhen {
  field: string;
  is?: string | number | boolean;
}

/** The condition of a field by ids; null where it is always shown. */
export function shownWhen({ shownIf }: Field, fields: readonly Field[]): ShownWhen | null {
  const other = shownIf && fields.find((f) => f.key === shownIf.field);
  if (!other) return null;
  const { is } = shownIf;
  if (is === undefined) return { field: other.id };
  return { field: other.id, is: other.options?.find((o) => o.key === is)?.id ?? is };
}

/** Whether a form shows a field beside the values that the others have. */
export function isShown(when: ShownWhen | null, values: Values): boolean {
  if (when === null) return true;
  const { field, is } = when;
  if (is === undefined) return !isBlank(values[field]);
  return valuesOf(values, field).some((value) => asWritten(value) === String(is));
}

/** A form holds yes and no as words until it is saved. */
function asWritten(value: unknown): string {
  if (value === 'yes') return 'true';
  return value === 'no' ? 'false' : String(value);
}
