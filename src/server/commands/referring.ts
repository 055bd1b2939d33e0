import type { Field } from '@/core/design/field.ts';
import type { ContentType } from '@/core/design/spec.ts';
import { type Values, valuesOf } from '@/core/design/values.ts';
import type { CommandContext } from './definition.ts';
import { newestValues } from './entry-lookup.ts';

/** What an entry holds, as its form has it, leading to another one by a reference, or no longer. */
export function referring(
  context: CommandContext,
  id: string,
  {
    type,
    field,
    target,
    leads,
  }: { type: ContentType; field: Field; target: string; leads: boolean },
): Values {
  const all = newestValues(context, id, type);
  const others = valuesOf(all, field.id).filter((one) => one !== target);
  const several = leads ? [...others, target] : others;
  const values = Object.fromEntries(type.fields.map((f) => [f.id, all[f.id] ?? null]));
  values[field.id] = field.many ? several : leads ? target : null;
  return values;
}
