import type { Issue } from '@/core/issue.ts';
import { canBeUnique } from '@/core/site/check-form.ts';
import { isDerived } from '@/core/design/computed.ts';
import { isReference } from '@/core/design/field-values.ts';
import type { Field } from '@/core/design/field.ts';
import type { Clock } from '@/server/queries/clock.ts';
import type { TypeDetail } from '@/server/queries/type.ts';
import { Line } from '@/ui/primitives/line.tsx';
import { type InnerField, InnerPanel } from './field-settings/definition.ts';
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
  /** Its path in the working design; null for a new one. */
  part: string | null;
  /** What patterns write before its key: of a field of a group, the group's with a dot. */
  prefix?: string;
  clock: Clock;
  readOnly: boolean;
  onChange: (field: Field) => void;
  onRename: (part: string, was: string, now: string) => void;
  onRemove: () => void;
}

/** All that is set of one field. */
export function FieldPanel(props: Props) {
  const { field, detail, others, issues, stored, part, prefix = '' } = props;
  const { clock, readOnly, onChange, onRemove } = props;
  const id = `field-${prefix}${field.id}`;
  const inGroup = prefix !== '';
  const Settings = FIELD_SETTINGS[field.kind];
  return (
    <div className="border-l-2 border-rule pb-3 pl-3">
      <Wrong issues={issues} />
      <NameLines {...props} id={id} />
      <KindLine {...{ id, field, stored, detail, readOnly, onChange }} />
      {stored && part !== null && field.replaces?.field === stored.id && (
        <Conversion {...{ field, part, detail, clock, onChange }} />
      )}
      {Settings && (
        <InnerPanel value={(inner) => <InnerFieldPanel outer={props} inner={inner} />}>
          <Settings {...{ id, field, detail, readOnly, onChange }} />
        </InnerPanel>
      )}
      <details className="border-t border-rule py-1.5">
        <summary className="cursor-pointer text-muted">
          {`In the form: ${formWords(field)}`}
        </summary>
        <FormSettings {...{ id, field, detail, readOnly, onChange, others, inGroup }} />
      </details>
      <Marks {...{ field, inGroup, readOnly, onChange }} />
      {!readOnly && <TakeFieldAway {...{ field, part, clock, onRemove }} />}
    </div>
  );
}

/** All that is set of a field within a group. */
function InnerFieldPanel({ outer, inner }: { outer: Props; inner: InnerField }) {
  const slots = [inner.field.id, inner.field.replaces?.field];
  const stored = outer.stored?.fields?.find(({ id }) => slots.includes(id));
  // In a group that is to take another's place nothing is renamed: patterns would not follow.
  const isThere = stored && outer.part !== null && outer.stored?.id === outer.field.id;
  const part = isThere ? `${outer.part}/fields/${stored.id}` : null;
  const prefix = `${outer.prefix ?? ''}${outer.field.key}.`;
  return <FieldPanel {...outer} {...inner} {...{ stored, part, prefix }} issues={[]} />;
}

/** What a field is called: in forms, and in patterns. */
function NameLines({
  id,
  field,
  stored,
  part,
  prefix = '',
  clock,
  readOnly,
  onChange,
  onRename,
}: Props & { id: string }) {
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
        help={`Its name in patterns: {${prefix}${field.key}}. Renamed, the patterns that read it follow.`}
        part={part}
        at={clock.at}
        readOnly={readOnly || (stored !== undefined && (part === null || field.id !== stored.id))}
        onRename={(key) =>
          part === null ? onChange({ ...field, key }) : onRename(part, field.key, key)
        }
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
  inGroup,
  readOnly,
  onChange,
}: {
  field: Field;
  inGroup: boolean;
  readOnly: boolean;
  onChange: (field: Field) => void;
}) {
  const ofType = !inGroup;
  const marks = [
    ...(isDerived(field) ? [] : ([['required', 'Required']] as const)),
    ...(ofType && canBeUnique(field) && !isReference(field)
      ? ([['unique', 'Unique: no two entries have the same']] as const)
      : []),
    ...(ofType ? ([['column', 'Shown as a column of the content table']] as const) : []),
    ['half', inGroup ? 'Half as wide as the group' : 'Half as wide as the form'],
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
