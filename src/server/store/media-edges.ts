import type { Field } from '@/core/design/field.ts';
import { mentionsOf, targetOf } from '@/core/design/field-values.ts';
import { type Values, valuesOf } from '@/core/design/values.ts';

/** What a reference edge to a medium leads to: no entry has an id that begins so. */
export function mediumTarget(id: string): string {
  return `/${id}`;
}

/** The media that values show, those in groups, in texts and in their parts included. */
export function mediaAmong(
  fields: readonly Field[],
  values: Values,
): { field: string; id: string }[] {
  return fields.flatMap((field) => {
    if (field.fields)
      return valuesOf(values, field.id).flatMap((item) =>
        mediaAmong(field.fields!, item as Values),
      );
    if (field.kind !== 'richtext' && targetOf(field)?.of !== 'media') return [];
    return mentionsOf(values, field).flatMap(({ of, key }) =>
      of === 'media' ? [{ field: field.id, id: key }] : [],
    );
  });
}
