import { Line } from '@/ui/primitives/line.tsx';
import type { FieldSettingsProps } from './definition.ts';
import { LengthSettings } from './limits.tsx';

/** How high the headings of a rich text are on pages. */
export function RichTextSettings(props: FieldSettingsProps) {
  const { id, field, readOnly, onChange } = props;
  const { topHeading: _, ...rest } = field;
  return (
    <>
      <LengthSettings {...props} />
      <Line label="Highest heading" htmlFor={`${id}-heading`}>
        <select
          id={`${id}-heading`}
          className="control"
          disabled={readOnly}
          value={field.topHeading ?? ''}
          onChange={({ target: { value } }) =>
            onChange(value === '' ? rest : { ...field, topHeading: Number(value) })
          }
        >
          <option value="">below the page’s own title</option>
          {[1, 2, 3].map((level) => (
            <option key={level} value={level}>{`level ${level}`}</option>
          ))}
        </select>
      </Line>
    </>
  );
}
