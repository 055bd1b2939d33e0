import type { Field } from '@/core/design/field.ts';
import { targetOf } from '@/core/design/field-values.ts';
import { type Values, valuesOf } from '@/core/design/values.ts';
import type { Subjects } from '../store/subject-store.ts';

/**
 * Values as a form shows them: the subjects that keys stand for, each once, those merged into
 * another as that one; what is gone is left out.
 */
export function withMeantSubjects(
  fields: readonly Field[],
  values: Values,
  subjects: Subjects,
): Values {
  const meant = { ...values };
  for (const field of fields) {
    const all = valuesOf(values, field.id);
    if (all.length === 0) continue;
    const target = targetOf(field);
    const next = field.fields
      ? all.map((item) => withMeantSubjects(field.fields!, item as Values, subjects))
      : target?.of === 'subjects'
        ? [...new Set(all.flatMap((key) => subjects.get(target.set, String(key))?.key ?? []))]
        : null;
    if (next) meant[field.id] = field.many ? next : (next[0] ?? null);
  }
  return meant;
}
