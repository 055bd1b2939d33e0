import { setKindOf } from '@/core/design/kinds/subjects.ts';
import { freeKey, typeKeyOf } from '@/core/outline/names.ts';
import { Line } from '@/ui/primitives/line.tsx';
import { ClockLink } from '../../shell/clock-link.tsx';
import type { FieldSettingsProps } from './definition.ts';

/** The subject set that tags or a category are taken from; a new one is made with the field. */
export function SubjectSettings({ id, field, detail, readOnly, onChange }: FieldSettingsProps) {
  const wanted = setKindOf(field.kind);
  const sets = detail.sets.filter(({ kind }) => kind === wanted);
  const own = ownSet(field.label, detail);
  const isNew = field.set !== undefined && !detail.sets.some(({ key }) => key === field.set);
  const { set: _, ...rest } = field;
  return (
    <Line
      label="Subject set"
      htmlFor={`${id}-set`}
      help={isNew ? 'It is made together with this field.' : undefined}
    >
      <select
        id={`${id}-set`}
        className="control"
        disabled={readOnly}
        value={field.set ?? ''}
        onChange={({ target: { value } }) =>
          onChange(value === '' ? rest : { ...field, set: value })
        }
      >
        <option value="">Choose one</option>
        {sets.map(({ key, label }) => (
          <option key={key} value={key}>
            {label}
          </option>
        ))}
        {isNew && <option value={field.set}>{`New: ${field.set}`}</option>}
        {field.set !== own && <option value={own}>{`A new one: ${own}`}</option>}
      </select>
      {field.set !== undefined && !isNew && (
        <p className="mt-1">
          <ClockLink className="link" href={`/build/settings/subjects/${field.set}`}>
            What is in it
          </ClockLink>
        </p>
      )}
    </Line>
  );
}

/** The set that a new field takes from: one of its name, else one that is made with it. */
export function setFor(label: string, kind: string, detail: FieldSettingsProps['detail']): string {
  const key = typeKeyOf(label, detail.language);
  const known = detail.sets.find((s) => s.key === key && s.kind === setKindOf(kind));
  return known?.key ?? ownSet(label, detail);
}

/** The key of a set of a field's own. */
function ownSet(
  label: string,
  { sets, takenSets, language }: FieldSettingsProps['detail'],
): string {
  return freeKey(typeKeyOf(label, language), new Set([...takenSets, ...sets.map((s) => s.key)]));
}
