import type { Field } from '@/core/design/field.ts';

/** A field with a setting; without it where the setting is undefined. */
export function having<K extends keyof Field>(field: Field, name: K, value: Field[K]): Field {
  const { [name]: _, ...rest } = field;
  return (value === undefined ? rest : { ...field, [name]: value }) as Field;
}
