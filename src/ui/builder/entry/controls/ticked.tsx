import { type ControlProps, asText, common } from './definition.ts';

/** One of what is prepared, all in sight. */
export function RadioControl(props: ControlProps) {
  const { id, field, value, readOnly, onChange } = props;
  const choices = field.required
    ? field.options
    : [{ value: '', label: '(none)' }, ...field.options];
  return (
    <Group id={id} label={field.label}>
      {choices.map((option, i) => (
        <label key={option.value} className="flex items-center gap-2 py-0.5">
          <input
            type="radio"
            id={i === 0 ? id : undefined}
            name={id}
            className="h-4 w-4 accent-spruce"
            checked={asText(value) === option.value}
            disabled={readOnly}
            onChange={() => onChange(option.value === '' ? null : option.value)}
          />
          {option.label}
        </label>
      ))}
    </Group>
  );
}

/** Several of what is prepared, all in sight. */
export function ChecksControl({ id, field, value, readOnly, onChange }: ControlProps) {
  const chosen = [value ?? []].flat().map(String);
  const toggle = (option: string, on: boolean): void =>
    onChange(
      field.options
        .map((o) => o.value)
        .filter((known) => (known === option ? on : chosen.includes(known))),
    );
  return (
    <Group id={id} label={field.label}>
      {field.options.map((option, i) => (
        <label key={option.value} className="flex items-center gap-2 py-0.5">
          <input
            type="checkbox"
            id={i === 0 ? id : undefined}
            className="h-4 w-4 accent-spruce"
            checked={chosen.includes(option.value)}
            disabled={readOnly}
            onChange={(e) => toggle(option.value, e.target.checked)}
          />
          {option.label}
        </label>
      ))}
    </Group>
  );
}

function Group({ id, label, children }: { id: string; label: string; children: React.ReactNode }) {
  return (
    <div
      role="group"
      aria-label={label}
      aria-describedby={`${id}-notes`}
      className="flex flex-wrap gap-x-5"
    >
      {children}
    </div>
  );
}

/** A number between two, drawn to its place. */
export function SliderControl(props: ControlProps) {
  const { field, value, onChange } = props;
  const { min = 0, max = 100, decimals = 0, unit } = field.limits;
  const shown = asText(value);
  return (
    <div className="flex items-center gap-3">
      <input
        {...common(props)}
        type="range"
        className="w-56 accent-spruce"
        min={min}
        max={max}
        step={10 ** -decimals}
        value={shown === '' ? min : shown}
        aria-valuetext={shown === '' ? 'nothing yet' : `${shown}${unit ? ` ${unit}` : ''}`}
        onChange={(e) => onChange(e.target.value)}
      />
      <output htmlFor={props.id} className="min-w-12">
        {shown === '' ? 'nothing yet' : `${shown}${unit ? ` ${unit}` : ''}`}
      </output>
      {shown !== '' && !props.readOnly && (
        <button type="button" className="button-quiet" onClick={() => onChange(null)}>
          Clear
        </button>
      )}
    </div>
  );
}
