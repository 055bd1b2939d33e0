import type { Issue } from '@/core/issue.ts';
import type { Field } from '@/core/design/field.ts';
import { kindOf } from '@/core/design/kinds/index.ts';
import type { TypeDetail } from '@/server/queries/type.ts';
import { Line } from '@/ui/primitives/line.tsx';
import { FIELD_SETTINGS } from './field-settings/index.ts';
import { KeyLine } from './key-line.tsx';
import { Wrong } from './names-settings.tsx';

/** All that is set of one field. */
export function FieldPanel({
  field,
  detail,
  issues,
  isNew,
  readOnly,
  onChange,
  onRename,
  onRemove,
}: {
  field: Field;
  detail: TypeDetail;
  issues: Issue[];
  isNew: boolean;
  readOnly: boolean;
  onChange: (field: Field) => void;
  onRename: (key: string) => void;
  onRemove: () => void;
}) {
  const id = `field-${field.id}`;
  const Settings = FIELD_SETTINGS[field.kind];
  const { help: _, ...rest } = field;
  return (
    <div className="border-l-2 border-rule pb-3 pl-3">
      <Wrong issues={issues} />
      <Line label="Name" htmlFor={`${id}-label`}>
        <input
          id={`${id}-label`}
          className="control"
          maxLength={200}
          value={field.label}
          readOnly={readOnly}
          onChange={(e) => onChange({ ...field, label: e.target.value })}
        />
      </Line>
      <KeyLine
        id={`${id}-key`}
        value={field.key}
        help={`Its name in patterns: {${field.key}}. Renamed, the patterns that read it follow.`}
        readOnly={readOnly}
        onRename={isNew ? (key) => onChange({ ...field, key }) : onRename}
      />
      <Line label="Help" htmlFor={`${id}-help`} help="Stands below the field in the form.">
        <input
          id={`${id}-help`}
          className="control"
          maxLength={2000}
          value={field.help ?? ''}
          readOnly={readOnly}
          onChange={({ target: { value } }) =>
            onChange(value === '' ? rest : { ...field, help: value })
          }
        />
      </Line>
      {Settings && (
        <Settings id={id} field={field} detail={detail} readOnly={readOnly} onChange={onChange} />
      )}
      <Marks field={field} isNew={isNew} readOnly={readOnly} onChange={onChange} />
      {!readOnly && (
        <button type="button" className="button-quiet mt-1 text-alarm" onClick={onRemove}>
          {`Take ${field.label} away`}
        </button>
      )}
    </div>
  );
}

function Marks({
  field,
  isNew,
  readOnly,
  onChange,
}: {
  field: Field;
  isNew: boolean;
  readOnly: boolean;
  onChange: (field: Field) => void;
}) {
  const isFixed = kindOf(field).alwaysMany || !isNew;
  const marks = [
    ['required', 'Required', false],
    ['many', isNew ? 'Holds several' : 'Holds several (decided when it was made)', isFixed],
    ['column', 'Shown as a column of the content table', false],
  ] as const;
  return (
    <fieldset className="flex flex-col gap-1 py-1.5">
      <legend className="sr-only">Options</legend>
      {marks.map(([key, label, fixed]) => (
        <label key={key} className="flex items-center gap-2">
          <input
            type="checkbox"
            className="h-4 w-4 accent-spruce"
            checked={field[key]}
            disabled={readOnly || fixed}
            onChange={(e) => onChange({ ...field, [key]: e.target.checked })}
          />
          {label}
        </label>
      ))}
    </fieldset>
  );
}
