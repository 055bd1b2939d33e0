import type { Field } from '@/core/design/field.ts';
import { Line } from '@/ui/primitives/line.tsx';
import { having } from './field-settings/with.ts';

type Condition = NonNullable<Field['shownIf']>;

/** When the form shows a field: always, never, or by what another field holds. */
export function ShownIf({
  id,
  field,
  others,
  readOnly,
  onChange,
}: {
  id: string;
  field: Field;
  /** The other fields of the type. */
  others: Field[];
  readOnly: boolean;
  onChange: (field: Field) => void;
}) {
  const { shownIf, hidden } = field;
  const other = others.find(({ key }) => key === shownIf?.field);
  const put = (value: string): void => {
    const open = having(having(field, 'shownIf', undefined), 'hidden', undefined);
    if (value === 'never') onChange({ ...open, hidden: true });
    else onChange(value === '' ? open : { ...open, shownIf: { field: value.slice(1) } });
  };
  return (
    <Line label="In the form" htmlFor={`${id}-shown`}>
      <div className="flex flex-wrap items-center gap-2">
        <select
          id={`${id}-shown`}
          className="control !w-64"
          disabled={readOnly}
          value={hidden ? 'never' : shownIf ? `.${shownIf.field}` : ''}
          onChange={(e) => put(e.target.value)}
        >
          <option value="">Always</option>
          <option value="never">Never</option>
          {others.map(({ id: own, key, label }) => (
            <option key={own} value={`.${key}`}>{`By what ${label} holds`}</option>
          ))}
        </select>
        {shownIf && other && (
          <Holding
            {...{ id, other, shownIf, readOnly }}
            onChange={(next) => onChange({ ...field, shownIf: next })}
          />
        )}
      </div>
    </Line>
  );
}

/** Anything, or one value. */
function Holding({
  id,
  other,
  shownIf: { field, is },
  readOnly,
  onChange,
}: {
  id: string;
  other: Field;
  shownIf: Condition;
  readOnly: boolean;
  onChange: (condition: Condition) => void;
}) {
  const label = `What ${other.label} holds`;
  const put = (value: string): void => {
    const kept = other.kind === 'yesno' && value !== '' ? value === 'true' : value;
    onChange(value === '' ? { field } : { field, is: kept });
  };
  const offered =
    other.kind === 'yesno'
      ? [
          { key: 'true', label: 'yes' },
          { key: 'false', label: 'no' },
        ]
      : other.options;
  if (!offered)
    return (
      <input
        id={`${id}-is`}
        className="control !w-40"
        aria-label={label}
        placeholder="anything"
        value={is === undefined ? '' : String(is)}
        readOnly={readOnly}
        onChange={(e) => put(e.target.value)}
      />
    );
  return (
    <select
      id={`${id}-is`}
      className="control !w-40"
      aria-label={label}
      disabled={readOnly}
      value={is === undefined ? '' : String(is)}
      onChange={(e) => put(e.target.value)}
    >
      <option value="">anything</option>
      {offered.map((option) => (
        <option key={option.key} value={option.key}>
          {option.label}
        </option>
      ))}
    </select>
  );
}
