import { type FormatName, FORMAT_NAMES, MEDIA_FORMATS } from '@/core/design/media-formats.ts';
import { Line } from '@/ui/primitives/line.tsx';
import type { FieldSettingsProps } from './definition.ts';
import { NumberBox } from './limits.tsx';
import { having } from './with.ts';

/** Which files a field takes: their formats, and how large they may be. */
export function MediaSettings({ id, field, readOnly, onChange }: FieldSettingsProps) {
  const chosen = field.formats ?? [];
  const toggle = (format: FormatName, on: boolean): void => {
    const formats = FORMAT_NAMES.filter((f) => (f === format ? on : chosen.includes(f)));
    onChange(having(field, 'formats', formats.length > 0 ? [...formats] : undefined));
  };
  return (
    <>
      <Line
        label="Formats"
        htmlFor={`${id}-formats`}
        help={chosen.length === 0 ? 'Nothing is ticked: pictures of any format.' : null}
      >
        <div
          id={`${id}-formats`}
          role="group"
          aria-label="Formats"
          className="flex flex-wrap gap-x-4"
        >
          {FORMAT_NAMES.map((format) => (
            <label key={format} className="flex items-center gap-2 py-1">
              <input
                type="checkbox"
                className="h-4 w-4 accent-spruce"
                checked={chosen.includes(format)}
                disabled={readOnly}
                onChange={(e) => toggle(format, e.target.checked)}
              />
              {MEDIA_FORMATS[format].label}
            </label>
          ))}
        </div>
      </Line>
      <Line label="Size" htmlFor={`${id}-size`}>
        <div className="flex items-center gap-2">
          <span className="text-muted">at most</span>
          <NumberBox
            {...{ field, readOnly, onChange }}
            id={`${id}-size`}
            name="maxKilobytes"
            label={`Most kilobytes of ${field.label}`}
          />
          <span className="text-muted">kB</span>
        </div>
      </Line>
    </>
  );
}
