import { type ControlProps, asText } from './definition.ts';

/** A value that is worked out from what stands in the form. */
export function ComputedControl({ id, value }: ControlProps) {
  return (
    <output id={id} className="block border-b border-rule py-1.5">
      {asText(value) || <span className="text-muted">Nothing to work it out from yet</span>}
    </output>
  );
}
