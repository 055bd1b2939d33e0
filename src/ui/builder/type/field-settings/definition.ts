import { type ComponentType, type ReactNode, createContext } from 'react';
import type { Field } from '@/core/design/field.ts';
import type { TypeDetail } from '@/server/queries/type.ts';

/** What settings of one kind of field are given. */
export interface FieldSettingsProps {
  /** Begins the ids of its controls. */
  id: string;
  field: Field;
  detail: TypeDetail;
  readOnly: boolean;
  onChange: (field: Field) => void;
}

/** Settings that only fields of one kind have. */
export type FieldSettings = ComponentType<FieldSettingsProps>;

/** A field within a group, and what becomes of it. */
export interface InnerField {
  field: Field;
  /** The other fields of the group. */
  others: Field[];
  onChange: (field: Field) => void;
  onRemove: () => void;
}

/** What draws all that is set of a field within the group whose settings these are. */
export const InnerPanel = createContext<(inner: InnerField) => ReactNode>(() => null);
