/** One of several parts of the design by its key, or what there is where none is chosen. */
export function PartChoice({
  id,
  value,
  none,
  options,
  readOnly,
  onChange,
}: {
  id: string;
  value: string | undefined;
  none: string;
  options: { key: string; label: string }[];
  readOnly: boolean;
  onChange: (value: string) => void;
}) {
  return (
    <select
      id={id}
      className="control"
      disabled={readOnly}
      value={value ?? ''}
      onChange={(e) => onChange(e.target.value)}
    >
      <option value="">{none}</option>
      {options.map((o) => (
        <option key={o.key} value={o.key}>
          {o.label}
        </option>
      ))}
    </select>
  );
}
