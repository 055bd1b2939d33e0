import { type ControlProps, asText } from './definition.ts';

/** A value that is worked out: shown as it was when the entry was last saved. */
export function ComputedControl({ id, value }: ControlProps) {
  return (
    <output id={id} className="block border-b border-rule py-1.5">
      {asText(value) || <span className="text-muted">Worked out when this is saved</span>}
    </output>
  );
}
