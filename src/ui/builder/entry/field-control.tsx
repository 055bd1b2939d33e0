'use client';

import type { FormField, Option } from '@/server/queries/entry.ts';
import { localValue } from '../format.ts';
import { RichTextControl } from './rich-text-control.tsx';

interface ControlProps {
  field: FormField;
  value: unknown;
  zone: string;
  readOnly: boolean;
  onChange: (value: unknown) => void;
}

/** The control of a field, by its kind. */
export function FieldControl(props: ControlProps) {
  const { field, value, readOnly, onChange } = props;
  const id = `field-${field.key}`;
  const common = {
    id,
    disabled: readOnly,
    required: field.required,
    'aria-describedby': field.help ? `${id}-help` : undefined,
  };
  const text = value === null || value === undefined ? '' : String(value);
  if (field.many && field.options.length > 0) return <Members {...props} />;
  switch (field.kind) {
    case 'paragraphs':
      return (
        <textarea
          {...common}
          className="control"
          rows={3}
          value={text}
          onChange={(e) => onChange(e.target.value)}
        />
      );
    case 'richtext':
      return (
        <RichTextControl
          id={id}
          value={value}
          readOnly={readOnly}
          label={field.label}
          onChange={onChange}
        />
      );
    case 'number':
      return (
        <input
          {...common}
          className="control !w-40 text-right"
          inputMode="decimal"
          value={text}
          onChange={(e) => onChange(e.target.value === '' ? null : e.target.value)}
        />
      );
    case 'yesno':
      return (
        <Choice
          {...props}
          options={[
            { value: 'yes', label: 'Yes' },
            { value: 'no', label: 'No' },
          ]}
        />
      );
    case 'date':
      return (
        <input
          {...common}
          type="date"
          className="control !w-44"
          value={text}
          onChange={(e) => onChange(e.target.value || null)}
        />
      );
    case 'datetime':
      return (
        <input
          {...common}
          type="datetime-local"
          className="control !w-56"
          value={typeof value === 'number' ? localValue(value, props.zone) : text}
          onChange={(e) => onChange(e.target.value || null)}
        />
      );
    case 'choice':
    case 'reference':
    case 'category':
    case 'media':
      return <Choice {...props} options={field.options} />;
    default:
      return (
        <input
          {...common}
          className="control"
          value={text}
          onChange={(e) => onChange(e.target.value)}
        />
      );
  }
}

function Choice({
  field,
  value,
  readOnly,
  onChange,
  options,
}: ControlProps & { options: Option[] }) {
  const shown = typeof value === 'boolean' ? (value ? 'yes' : 'no') : String(value ?? '');
  const known = shown === '' || options.some((o) => o.value === shown);
  return (
    <select
      id={`field-${field.key}`}
      className="control"
      disabled={readOnly}
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

/** Several of what is offered, in the order they were chosen. */
function Members({ field, value, readOnly, onChange }: ControlProps) {
  const chosen = Array.isArray(value) ? value.map(String) : value ? [String(value)] : [];
  const labelOf = (v: string): string => field.options.find((o) => o.value === v)?.label ?? v;
  const move = (i: number, by: number): void => {
    const next = [...chosen];
    const [member] = next.splice(i, 1);
    next.splice(i + by, 0, member!);
    onChange(next);
  };
  return (
    <div>
      <ul className="flex flex-wrap gap-1">
        {chosen.map((v, i) => (
          <li key={v} className="flex items-center rounded-md border border-rule bg-white pl-2">
            {labelOf(v)}
            {!readOnly && (
              <>
                {i > 0 && (
                  <button
                    type="button"
                    className="px-1 text-muted"
                    aria-label={`Move ${labelOf(v)} forward`}
                    onClick={() => move(i, -1)}
                  >
                    ←
                  </button>
                )}
                <button
                  type="button"
                  className="px-1.5 text-alarm"
                  aria-label={`Remove ${labelOf(v)}`}
                  onClick={() => onChange(chosen.filter((c) => c !== v))}
                >
                  ×
                </button>
              </>
            )}
          </li>
        ))}
      </ul>
      {!readOnly && (
        <select
          id={`field-${field.key}`}
          className="control mt-1"
          value=""
          onChange={(e) => e.target.value && onChange([...chosen, e.target.value])}
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
    </div>
  );
}
