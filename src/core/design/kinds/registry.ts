import type { FieldKind } from './definition.ts';

const BY_NAME = new Map<string, FieldKind>();

/** Makes kinds known by their names; `index.ts` does, once. */
export function registerKinds(kinds: readonly FieldKind[]): void {
  for (const kind of kinds) BY_NAME.set(kind.kind, kind);
}

/**
 * The kind of a field. @throws Error where no such kind is registered: the design was not
 * validated
 */
export function kindOf(field: { kind: string }): FieldKind {
  const kind = BY_NAME.get(field.kind);
  if (!kind) throw new Error(`There is no field kind "${field.kind}".`);
  return kind;
}
