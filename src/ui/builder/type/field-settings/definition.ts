import type { ComponentType } from 'react';
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
