import { useState } from 'react';
import type { Field } from '@/core/design/field.ts';
import { Line } from '@/ui/primitives/line.tsx';
import type { FieldSettingsProps } from './definition.ts';
import { having } from './with.ts';

type Numeric =
  'minLength' | 'maxLength' | 'min' | 'max' | 'decimals' | 'minCount' | 'maxCount' | 'maxKilobytes';

/** A setting that is a number, or left open. */
export function NumberBox({
  id,
  field,
  name,
  label,
  readOnly,
  onChange,
}: {
  id: string;
  field: Field;
  name: Numeric;
  /** What it is called where only this one is read. */
  label: string;
  readOnly: boolean;
  onChange: (field: Field) => void;
}) {
  const value = field[name];
  const [typed, setTyped] = useState<string | null>(null);
  const isWrong = typed !== null && typed.trim() !== '' && !Number.isFinite(Number(typed));
  return (
    <input
      id={id}
      className="control !w-24 text-right"
      inputMode="decimal"
      aria-label={label}
      aria-invalid={isWrong || undefined}
      value={typed ?? (value === undefined ? '' : String(value))}
      readOnly={readOnly}
      onChange={({ target: { value: text } }) => {
        setTyped(text);
        const number = text.trim() === '' ? undefined : Number(text);
        if (number === undefined || Number.isFinite(number)) onChange(having(field, name, number));
      }}
      onBlur={() => setTyped(null)}
    />
  );
}

/** A line of two limits, from and to. */
export function Range({
  label,
  names: [least, most],
  words,
  after,
  ...props
}: FieldSettingsProps & {
  label: string;
  names: [Numeric, Numeric];
  /** What is limited: "Length of Title". */
  words: string;
  /** Stands behind both: "characters". */
  after?: string;
}) {
  const box = { field: props.field, readOnly: props.readOnly, onChange: props.onChange };
  return (
    <Line label={label} htmlFor={`${props.id}-${least}`}>
      <div className="flex items-center gap-2">
        <NumberBox {...box} id={`${props.id}-${least}`} name={least} label={`${words}, at least`} />
        to
        <NumberBox {...box} id={`${props.id}-${most}`} name={most} label={`${words}, at most`} />
        {after}
      </div>
    </Line>
  );
}

/** How long a text is. */
export function LengthSettings(props: FieldSettingsProps) {
  const words = `Length of ${props.field.label}`;
  return (
    <Range
      {...props}
      label="Length"
      names={['minLength', 'maxLength']}
      words={words}
      after="characters"
    />
  );
}

/** Between what a number lies, how exact it is, and what it counts. */
export function NumberSettings(props: FieldSettingsProps) {
  const { id, field, readOnly, onChange } = props;
  return (
    <>
      <Range {...props} label="From" names={['min', 'max']} words={field.label} />
      <Line
        label="After the point"
        htmlFor={`${id}-decimals`}
        help="Left open, any number of digits."
      >
        <div className="flex items-center gap-2">
          <NumberBox
            {...{ field, readOnly, onChange }}
            id={`${id}-decimals`}
            name="decimals"
            label={`Digits of ${field.label} after the point`}
          />
          digits at most
        </div>
      </Line>
      <Line label="Unit" htmlFor={`${id}-unit`} help="Stands behind the number: kg.">
        <input
          id={`${id}-unit`}
          className="control !w-24"
          maxLength={20}
          value={field.unit ?? ''}
          readOnly={readOnly}
          onChange={(e) => onChange(having(field, 'unit', e.target.value || undefined))}
        />
      </Line>
      <Line label="Order" htmlFor={`${id}-position`} help="Rows are dragged in Content, by it.">
        <label className="flex items-center gap-2">
          <input
            id={`${id}-position`}
            type="checkbox"
            checked={field.position === true}
            disabled={readOnly}
            onChange={(e) => onChange(having(field, 'position', e.target.checked || undefined))}
          />
          Entries are put in order by hand; new ones come last
        </label>
      </Line>
    </>
  );
}

/** Between which days a date lies. */
export function DaySettings({ id, field, readOnly, onChange }: FieldSettingsProps) {
  const box = (name: 'earliest' | 'latest', label: string) => (
    <input
      id={`${id}-${name}`}
      className="control !w-36"
      aria-label={`${field.label}, ${label}`}
      maxLength={40}
      value={field[name] ?? ''}
      readOnly={readOnly}
      onChange={(e) => onChange(having(field, name, e.target.value || undefined))}
    />
  );
  return (
    <Line
      label="Between"
      htmlFor={`${id}-earliest`}
      help="As 2026-03-09, or relative: today, today - P30D."
    >
      <div className="flex items-center gap-2">
        {box('earliest', 'at the earliest')}
        and
        {box('latest', 'at the latest')}
      </div>
    </Line>
  );
}
