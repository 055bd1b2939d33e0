import type { FormField } from '@/server/queries/form-field.ts';

/** What every control is given. */
export interface ControlProps {
  /** Id of the element that the label names. */
  id: string;
  field: FormField;
  value: unknown;
  zone: string;
  /** For words such as "tomorrow"; ms UTC. */
  now: number;
  /** The entry at hand, which is not offered to itself. */
  entry: string | null;
  readOnly: boolean;
  invalid: boolean;
  onChange: (value: unknown) => void;
}

/** A value as text; '' where blank. */
export function asText(value: unknown): string {
  return value === null || value === undefined ? '' : String(value);
}

/** What most elements take of a control's props. */
export function common({ id, field, readOnly, invalid }: ControlProps) {
  return {
    id,
    disabled: readOnly,
    'aria-required': field.required || undefined,
    'aria-invalid': invalid || undefined,
    'aria-describedby': `${id}-notes`,
  };
}
