import type { Field } from '../design/field.ts';

/**
 * A field of another type as one of this: with all that is set of it, but for what there is one
 * of, what it was before, and what names other fields of its type.
 */
export function copyOfField(field: Field, { id, key }: Pick<Field, 'id' | 'key'>): Field {
  const { replaces: _, sitsWithin: __, otherSide: ___, otherKey: ____, ...rest } = field;
  const { shownIf: _____, ...copied } = rest;
  const { fields } = copied;
  return { ...copied, id, key, ...(fields ? { fields: fields.map(asNew) } : {}) };
}

/** A field within a group that was never another one. */
function asNew({ replaces: _, ...field }: Field): Field {
  return field.fields ? { ...field, fields: field.fields.map(asNew) } : field;
}
