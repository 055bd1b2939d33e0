import type { Field } from '@/core/design/field.ts';
import type { ControlName } from '@/core/design/controls.ts';
import { kindOf } from '@/core/design/kinds/index.ts';
import { Line } from '@/ui/primitives/line.tsx';
import type { FieldSettingsProps } from './field-settings/definition.ts';
import { Range } from './field-settings/limits.tsx';
import { having } from './field-settings/with.ts';
import { ShownIf } from './shown-if.tsx';

const CONTROL_WORDS: Partial<Record<ControlName, string>> = {
  radio: 'Radio buttons',
  checks: 'Check boxes',
  slider: 'Slider',
  search: 'Typed, with offers',
};

/** Kinds whose values can be written down as a default. */
const WITH_DEFAULT = ['line', 'lines', 'number', 'yes-no', 'day', 'instant', 'option'];

/** How the form has a field: where it stands, how wide, what edits it, what it starts with. */
export function FormSettings(props: FieldSettingsProps & { others: Field[]; inGroup: boolean }) {
  const { id, field, readOnly, onChange, others } = props;
  const kind = kindOf(field);
  const controls = kind.otherControls(field);
  return (
    <>
      {field.many && (
        <Range
          {...props}
          label="How many"
          names={['minCount', 'maxCount']}
          words={`How many of ${field.label}`}
        />
      )}
      {WITH_DEFAULT.includes(kind.control) && !field.many && <Default {...props} />}
      {controls.length > 0 && (
        <Line label="Edited with" htmlFor={`${id}-control`}>
          <select
            id={`${id}-control`}
            className="control !w-56"
            disabled={readOnly}
            value={field.control ?? ''}
            onChange={(e) =>
              onChange(having(field, 'control', (e.target.value || undefined) as ControlName))
            }
          >
            <option value="">As usual</option>
            {controls.map((name) => (
              <option key={name} value={name}>
                {CONTROL_WORDS[name] ?? name}
              </option>
            ))}
          </select>
        </Line>
      )}
      {!props.inGroup && <Section {...props} />}
      <ShownIf {...{ id, field, others, readOnly, onChange }} />
    </>
  );
}

function Section({ id, field, readOnly, onChange }: FieldSettingsProps) {
  return (
    <Line label="Section" htmlFor={`${id}-section`} help="Begins a section of the form so called.">
      <input
        id={`${id}-section`}
        className="control"
        maxLength={200}
        value={field.section ?? ''}
        readOnly={readOnly}
        onChange={(e) => onChange(having(field, 'section', e.target.value || undefined))}
      />
    </Line>
  );
}

/** What a new entry starts with. */
function Default({ id, field, readOnly, onChange }: FieldSettingsProps) {
  const { control } = kindOf(field);
  const shown = field.default === undefined ? '' : String(field.default);
  const put = (text: string): void => onChange(having(field, 'default', text || undefined));
  const offered =
    control === 'yes-no'
      ? [
          { key: 'yes', label: 'Yes' },
          { key: 'no', label: 'No' },
        ]
      : control === 'option'
        ? (field.options ?? [])
        : null;
  const help = control === 'day' || control === 'instant' ? 'Also today, or today + P7D.' : null;
  return (
    <Line label="Starts with" htmlFor={`${id}-default`} help={help}>
      {offered ? (
        <select
          id={`${id}-default`}
          className="control !w-56"
          disabled={readOnly}
          value={shown === 'true' ? 'yes' : shown === 'false' ? 'no' : shown}
          onChange={(e) => put(e.target.value)}
        >
          <option value="">Nothing</option>
          {offered.map(({ key, label }) => (
            <option key={key} value={key}>
              {label}
            </option>
          ))}
        </select>
      ) : (
        <input
          id={`${id}-default`}
          className="control"
          value={shown}
          readOnly={readOnly}
          onChange={(e) => put(e.target.value)}
        />
      )}
    </Line>
  );
}
