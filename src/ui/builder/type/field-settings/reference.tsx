import { Line } from '@/ui/primitives/line.tsx';
import type { FieldSettingsProps } from './definition.ts';

/** Which types a reference leads to, and what it is called from there. */
export function ReferenceSettings({ id, field, detail, readOnly, onChange }: FieldSettingsProps) {
  const { types: chosen = [], otherSide = '' } = field;
  const { types: _, ...anyType } = field;
  const { otherSide: __, ...unnamed } = field;
  const { sitsWithin: ___, ...beside } = field;
  const toggle = (key: string, on: boolean): void => {
    const types = detail.types
      .map((t) => t.key)
      .filter((k) => (k === key ? on : chosen.includes(k)));
    onChange(types.length === 0 ? anyType : { ...field, types });
  };
  return (
    <>
      <Line
        label="Leads to"
        htmlFor={`${id}-types`}
        help={
          chosen.length === 0 ? 'Nothing is ticked: it leads to entries of any type.' : undefined
        }
      >
        <div
          id={`${id}-types`}
          role="group"
          aria-label="Leads to"
          className="flex flex-wrap gap-x-4"
        >
          {detail.types.map(({ key, label }) => (
            <label key={key} className="flex items-center gap-2 py-1">
              <input
                type="checkbox"
                className="h-4 w-4 accent-spruce"
                checked={chosen.includes(key)}
                disabled={readOnly}
                onChange={(e) => toggle(key, e.target.checked)}
              />
              {label}
            </label>
          ))}
        </div>
      </Line>
      <Line label="Other side" htmlFor={`${id}-side`} help="What it is called from there: “saves”.">
        <input
          id={`${id}-side`}
          className="control"
          maxLength={200}
          value={otherSide}
          readOnly={readOnly}
          onChange={({ target: { value } }) =>
            onChange(value === '' ? unnamed : { ...field, otherSide: value })
          }
        />
      </Line>
      <label className="flex items-center gap-2 py-1">
        <input
          type="checkbox"
          className="h-4 w-4 accent-spruce"
          checked={field.sitsWithin ?? false}
          disabled={readOnly || field.many}
          onChange={(e) => onChange(e.target.checked ? { ...field, sitsWithin: true } : beside)}
        />
        Pages sit within the one it leads to
      </label>
    </>
  );
}
