import { isReference } from './field-values.ts';
import type { Field } from './field.ts';
import type { ContentType, Design } from './spec.ts';

/** A reference as it is seen from the entries it leads to. */
export interface OtherSide {
  /** What it is called there in patterns. */
  name: string;
  /** Whose field it is. */
  type: ContentType;
  field: Field;
}

/** The references that lead to entries of a type and have a name there. */
export function otherSidesOf({ key }: Pick<ContentType, 'key'>, { types }: Design): OtherSide[] {
  return types.flatMap((type) =>
    type.fields.flatMap((field) => {
      const leads = isReference(field) && (field.types?.includes(key) ?? true);
      return leads && field.otherKey !== undefined ? [{ name: field.otherKey, type, field }] : [];
    }),
  );
}

/** The id of a reference among all of a design, for what is kept of its other side. */
export function otherSideId({ type, field }: Pick<OtherSide, 'type' | 'field'>): string {
  return `${type.id}/${field.id}`;
}
