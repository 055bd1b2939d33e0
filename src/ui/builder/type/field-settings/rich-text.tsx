import { Line } from '@/ui/primitives/line.tsx';
import { ClockLink } from '../../shell/clock-link.tsx';
import type { FieldSettingsProps } from './definition.ts';
import { LengthSettings } from './limits.tsx';

/** What a rich text may hold, and how high its headings are on pages. */
export function RichTextSettings(props: FieldSettingsProps) {
  const { id, field, detail, readOnly, onChange } = props;
  const { topHeading: _, ...rest } = field;
  const { form: __, ...formless } = field;
  return (
    <>
      <Line label="May hold" htmlFor={`${id}-form`}>
        <select
          id={`${id}-form`}
          className="control"
          disabled={readOnly}
          value={field.form ?? ''}
          onChange={({ target: { value } }) =>
            onChange(value === '' ? formless : { ...field, form: value })
          }
        >
          <option value="">everything</option>
          {detail.textForms.map(({ key, label }) => (
            <option key={key} value={key}>
              {label}
            </option>
          ))}
        </select>
        <p className="mt-1 text-note text-muted">
          <ClockLink className="link underline" href="/build/settings/texts">
            What the forms of texts let in
          </ClockLink>
        </p>
      </Line>
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
