/** Values of one revision, by field id. Shapes by kind: see `docs/site-folder.md`. */
export type Values = Record<string, unknown>;

/** All values of a field as a list, blanks left out. */
export function valuesOf(values: Values, fieldId: string): unknown[] {
  const value = values[fieldId];
  if (value === null || value === undefined || value === '') return [];
  return Array.isArray(value) ? value : [value];
}
