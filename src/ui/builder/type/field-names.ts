import type { Field } from '@/core/design/field.ts';
import { fieldKeyOf, freeKey } from '@/core/outline/names.ts';
import type { TypeDetail } from '@/server/queries/type.ts';
import { newId } from '../design-steps.ts';

/** A key made of a label, free beside other fields, and an id that no value is stored under. */
export function namesFor(label: string, fields: Field[], { taken, language }: TypeDetail) {
  const key = freeKey(fieldKeyOf(label, language), new Set(fields.map((f) => f.key)));
  const used = new Set([...taken, ...fields.map((f) => f.id)]);
  return { key, id: used.has(key) ? newId() : key };
}
