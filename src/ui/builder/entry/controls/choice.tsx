'use client';

import type { Option } from '@/server/queries/offers.ts';
import { Chips } from './chips.tsx';
import { type ControlProps, asText, common } from './definition.ts';

const YES_NO: Option[] = [
  { value: 'yes', label: 'Yes' },
  { value: 'no', label: 'No' },
];

/** Yes, no, or neither. */
export function YesNoControl(props: ControlProps) {
  const { value } = props;
  const shown = typeof value === 'boolean' ? (value ? 'yes' : 'no') : asText(value);
  return <Select {...props} value={shown} options={YES_NO} />;
}

/** One or several of what is prepared. */
export function OptionControl(props: ControlProps) {
  const { field } = props;
  if (!field.many) return <Select {...props} options={field.options} />;
  return (
    <Chips {...props} labelOf={labelsOf(field.options)}>
      {(chosen, add) => (
        <select
          {...common(props)}
          className="control mt-1"
          value=""
          onChange={(e) => e.target.value && add(e.target.value)}
        >
          <option value="">{chosen.length === 0 ? 'Choose …' : 'Add another …'}</option>
          {field.options
            .filter((o) => !chosen.includes(o.value))
            .map((o) => (
              <option key={o.value} value={o.value}>
                {o.label}
              </option>
            ))}
        </select>
      )}
    </Chips>
  );
}

/** What values of options are called. */
export function labelsOf(options: Option[]): (value: string) => string {
  const labels = new Map(options.map((o) => [o.value, o.label]));
  return (value) => labels.get(value) ?? `${value} (no longer offered)`;
}

function Select(props: ControlProps & { options: Option[] }) {
  const { value, options, onChange } = props;
  const shown = asText(value);
  const known = shown === '' || options.some((o) => o.value === shown);
  return (
    <select
      {...common(props)}
      className="control"
      value={shown}
      onChange={(e) => onChange(e.target.value === '' ? null : e.target.value)}
    >
      <option value="">(none)</option>
      {!known && <option value={shown}>{`${shown} (no longer offered)`}</option>}
      {options.map((o) => (
        <option key={o.value} value={o.value}>
          {o.label}
        </option>
      ))}
    </select>
  );
}
