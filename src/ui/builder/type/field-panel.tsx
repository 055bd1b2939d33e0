import type { Issue } from '@/core/issue.ts';
import { canBeUnique } from '@/core/site/check-form.ts';
import { isDerived } from '@/core/design/computed.ts';
import { isReference } from '@/core/design/field-values.ts';
import type { Field } from '@/core/design/field.ts';
import type { Clock } from '@/server/queries/clock.ts';
import type { TypeDetail } from '@/server/queries/type.ts';
import { Line } from '@/ui/primitives/line.tsx';
import { FIELD_SETTINGS } from './field-settings/index.ts';
import { Conversion } from './conversion.tsx';
import { having } from './field-settings/with.ts';
import { FormSettings } from './form-settings.tsx';
import { KeyLine } from './key-line.tsx';
import { KindLine } from './kind-line.tsx';
import { TakeFieldAway } from './take-field-away.tsx';
import { Wrong } from './names-settings.tsx';

interface Props {
  field: Field;
  detail: TypeDetail;
  /** The other fields of the type. */
  others: Field[];
  issues: Issue[];
  /** The field as the working design has it; undefined for a new one. */
  stored: Field | undefined;
  clock: Clock;
  readOnly: boolean;
  onChange: (field: Field) => void;
  onRename: (key: string) => void;
  onRemove: () => void;
}

/** All that is set of one field. */
export function FieldPanel({
  field,
  detail,
  others,
  issues,
  stored,
  clock,
  readOnly,
  onChange,
  onRename,
  onRemove,
}: Props) {
  const id = `field-${field.id}`;
  const Settings = FIELD_SETTINGS[field.kind];
  return (
    <div className="border-l-2 border-rule pb-3 pl-3">
      <Wrong issues={issues} />
      <NameLines {...{ id, field, stored, detail, clock, readOnly, onChange, onRename }} />
      <KindLine {...{ id, field, stored, detail, readOnly, onChange }} />
      {stored && field.replaces?.field === stored.id && (
        <Conversion {...{ field, stored, detail, clock, onChange }} />
      )}
      {Settings && (
        <Settings id={id} field={field} detail={detail} readOnly={readOnly} onChange={onChange} />
      )}
      <details className="border-t border-rule py-1.5">
        <summary className="cursor-pointer text-muted">
          {`In the form: ${formWords(field)}`}
        </summary>
        <FormSettings {...{ id, field, detail, readOnly, onChange, others }} />
      </details>
      <Marks field={field} readOnly={readOnly} onChange={onChange} />
      {!readOnly && <TakeFieldAway {...{ field, stored, detail, clock, onRemove }} />}
    </div>
  );
}

/** What a field is called: in forms, and in patterns. */
function NameLines({
  id,
  field,
  stored,
  detail,
  clock,
  readOnly,
  onChange,
  onRename,
}: Pick<Props, 'field' | 'stored' | 'detail' | 'clock' | 'readOnly' | 'onChange' | 'onRename'> & {
  id: string;
}) {
  return (
    <>
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
        part={stored ? `types/${detail.spec.id}/fields/${stored.id}` : null}
        at={clock.at}
        readOnly={readOnly || (stored !== undefined && field.id !== stored.id)}
        onRename={stored ? onRename : (key) => onChange({ ...field, key })}
      />
      <Line label="Help" htmlFor={`${id}-help`} help="Stands below the field in the form.">
        <input
          id={`${id}-help`}
          className="control"
          maxLength={2000}
          value={field.help ?? ''}
          readOnly={readOnly}
          onChange={({ target: { value } }) => onChange(having(field, 'help', value || undefined))}
        />
      </Line>
    </>
  );
}

/** What is set of how the form has a field. */
function formWords({ section, control, hidden, shownIf, default: start }: Field): string {
  const set = [
    hidden ? 'never shown' : shownIf ? 'shown by another field' : '',
    section ? `begins “${section}”` : '',
    start === undefined ? '' : 'starts with a value',
    control ? 'another control' : '',
  ].filter(Boolean);
  return set.join(', ') || 'as usual';
}

/** Marks that fields have or do not have; some are left out where they are not set. */
function marked(field: Field, key: Mark, on: boolean): Field {
  const isLeftOut = key === 'half' || key === 'unique';
  return isLeftOut ? having(field, key, on || undefined) : { ...field, [key]: on };
}

type Mark = 'required' | 'unique' | 'column' | 'half';

function Marks({
  field,
  readOnly,
  onChange,
}: {
  field: Field;
  readOnly: boolean;
  onChange: (field: Field) => void;
}) {
  const marks = [
    ...(isDerived(field) ? [] : ([['required', 'Required']] as const)),
    ...(canBeUnique(field) && !isReference(field)
      ? ([['unique', 'Unique: no two entries have the same']] as const)
      : []),
    ['column', 'Shown as a column of the content table'],
    ['half', 'Half as wide as the form'],
  ] as const;
  return (
    <fieldset className="relative flex flex-col gap-1 py-1.5">
      <legend className="sr-only">Options</legend>
      {marks.map(([key, label]) => (
        <label key={key} className="flex items-center gap-2">
          <input
            type="checkbox"
            className="h-4 w-4 accent-spruce"
            checked={field[key] ?? false}
            disabled={readOnly}
            onChange={(e) => onChange(marked(field, key, e.target.checked))}
          />
          {label}
        </label>
      ))}
    </fieldset>
  );
}
