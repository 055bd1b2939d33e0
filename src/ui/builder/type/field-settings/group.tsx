import { useContext, useState } from 'react';
import type { Field } from '@/core/design/field.ts';
import { FIELD_KINDS, kindOf } from '@/core/design/kinds/index.ts';
import { Moves } from '@/ui/primitives/moves.tsx';
import { type FieldSettingsProps, type InnerField, InnerPanel } from './definition.ts';
import { setFor } from './subjects.tsx';
import { namesFor } from '../field-names.ts';

/** Kinds that fields of a group may have. */
const KINDS = FIELD_KINDS.filter(({ derived }) => !derived);

/** The fields of a group: added, arranged, set and taken away. */
export function GroupSettings(props: FieldSettingsProps) {
  const { field, readOnly, onChange } = props;
  const { fields = [] } = field;
  const put = (next: Field[]): void => onChange({ ...field, fields: next });
  const move = (i: number, by: -1 | 1): void => {
    const next = [...fields];
    const [moved] = next.splice(i, 1);
    next.splice(i + by, 0, moved!);
    put(next);
  };
  return (
    <div className="py-1.5">
      <p className="text-muted">
        {fields.length === 0 ? 'Its fields: add the first one.' : 'Its fields'}
      </p>
      <ol aria-label={`Fields of ${field.label}`}>
        {fields.map((inner, i) => (
          <InnerLine
            key={inner.replaces?.field ?? inner.id}
            field={inner}
            others={fields.filter((f) => f !== inner)}
            isFirst={i === 0}
            isLast={i === fields.length - 1}
            readOnly={readOnly}
            onMove={(by) => move(i, by)}
            onChange={(next) => put(fields.map((f) => (f.id === inner.id ? next : f)))}
            onRemove={() => put(fields.filter((f) => f.id !== inner.id))}
          />
        ))}
      </ol>
      {!readOnly && <AddInner {...props} onAdd={(next) => put([...fields, next])} />}
    </div>
  );
}

interface LineProps extends InnerField {
  isFirst: boolean;
  isLast: boolean;
  readOnly: boolean;
  onMove: (by: -1 | 1) => void;
}

/** A field of a group as one line; opened, all that is set of it. */
function InnerLine({ isFirst, isLast, readOnly, onMove, ...inner }: LineProps) {
  const { field } = inner;
  const { label, alwaysMany } = kindOf(field);
  const draw = useContext(InnerPanel);
  const [isOpen, setOpen] = useState(false);
  const several = field.many && !alwaysMany ? ', several' : '';
  return (
    <li className="border-t border-rule">
      <div className="flex items-center gap-2">
        <button
          type="button"
          className="min-w-0 flex-1 py-1.5 text-left hover:bg-hover"
          aria-expanded={isOpen}
          onClick={() => setOpen(!isOpen)}
        >
          {field.label}{' '}
          <span className="text-muted">{`${label.toLowerCase()}${several} · {${field.key}}`}</span>
        </button>
        {!readOnly && <Moves of={field.label} {...{ isFirst, isLast, onMove }} />}
      </div>
      {isOpen && draw(inner)}
    </li>
  );
}

/** Adds a field to a group: its name, its kind. Not a form of its own: it stands within one. */
function AddInner({
  field,
  detail,
  onAdd,
}: FieldSettingsProps & { onAdd: (field: Field) => void }) {
  const [label, setLabel] = useState('');
  const [kind, setKind] = useState('text');
  const add = (): void => {
    const words = label.trim();
    if (words === '') return;
    const names = namesFor(words, field.fields ?? [], detail);
    const { alwaysMany } = kindOf({ kind });
    const set = kind === 'tags' || kind === 'category' ? setFor(words, kind, detail) : null;
    onAdd({
      ...{ ...names, label: words, kind, many: alwaysMany },
      ...{ required: false, column: false, translated: false },
      ...(set === null ? {} : { set }),
      ...(kind === 'group' ? { fields: [] } : {}),
    });
    setLabel('');
  };
  return (
    <div className="mt-1 flex flex-wrap items-end gap-2">
      <input
        className="control min-w-0 flex-1"
        aria-label={`Name of a new field of ${field.label}`}
        placeholder="New field of the group"
        value={label}
        maxLength={200}
        onChange={(e) => setLabel(e.target.value)}
        onKeyDown={(e) => {
          if (e.key !== 'Enter') return;
          e.preventDefault();
          add();
        }}
      />
      <select
        className="control !w-36"
        aria-label={`Kind of a new field of ${field.label}`}
        value={kind}
        onChange={(e) => setKind(e.target.value)}
      >
        {KINDS.map((k) => (
          <option key={k.kind} value={k.kind} title={k.doc}>
            {k.label}
          </option>
        ))}
      </select>
      <button type="button" className="button" disabled={label.trim() === ''} onClick={add}>
        Add
      </button>
    </div>
  );
}
