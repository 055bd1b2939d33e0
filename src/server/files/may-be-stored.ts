import { parseValue } from '@/core/design/field-values.ts';
import type { Field } from '@/core/design/field.ts';
import type { Given } from '@/core/design/kinds/definition.ts';
import { kindOf } from '@/core/design/kinds/index.ts';

/**
 * Whether a value as it is stored may be one of a field, one or a list. An option may be gone by now
 * that was one when it was chosen; so may be a field of a group, so that those of all times are given.
 */
export function mayBeStored(value: unknown, field: Field, given: Given): boolean {
  if (parseValue(value, field, given).ok) return true;
  const parts = field.many && Array.isArray(value) ? (value as unknown[]) : [value];
  if (kindOf(field).family === 'choice') return parts.every((part) => typeof part === 'string');
  const { fields } = field;
  return fields !== undefined && parts.every((item) => mayBeItem(item, fields, given));
}

function mayBeItem(item: unknown, fields: readonly Field[], given: Given): boolean {
  if (typeof item !== 'object' || item === null) return false;
  return Object.entries(item).every(([id, value]) => {
    const field = fields.find((f) => f.id === id);
    return field !== undefined && mayBeStored(value, field, given);
  });
}
