import { type ControlProps, asText, common } from './definition.ts';

/** A line of text. */
export function LineControl(props: ControlProps) {
  return (
    <input
      {...common(props)}
      className="control"
      value={asText(props.value)}
      onChange={(e) => props.onChange(e.target.value)}
    />
  );
}

/** Text of several lines. */
export function LinesControl(props: ControlProps) {
  return (
    <textarea
      {...common(props)}
      className="control"
      rows={3}
      value={asText(props.value)}
      onChange={(e) => props.onChange(e.target.value)}
    />
  );
}

/** A number. */
export function NumberControl(props: ControlProps) {
  return (
    <span className="flex items-center gap-2">
      <input
        {...common(props)}
        className="control !w-40 text-right"
        inputMode="decimal"
        value={asText(props.value)}
        onChange={(e) => props.onChange(e.target.value === '' ? null : e.target.value)}
      />
      {props.field.limits.unit}
    </span>
  );
}
