import { useState } from 'react';
import type { Field } from '@/core/design/field.ts';
import { FIELD_KINDS, kindOf } from '@/core/design/kinds/index.ts';
import { fieldKeyOf, freeKey } from '@/core/outline/names.ts';
import { Line } from '@/ui/primitives/line.tsx';
import type { FieldSettings, FieldSettingsProps } from './definition.ts';
import { setFor } from './subjects.tsx';
import { having } from './with.ts';

/** Kinds that fields of a group may have. */
const KINDS = FIELD_KINDS.filter(({ derived }) => !derived);

/** The fields of a group: added, arranged, set and taken away. */
export function groupSettings(
  settingsOf: (kind: string) => FieldSettings | undefined,
): FieldSettings {
  return function GroupSettings(props: FieldSettingsProps) {
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
      <Line label="Its fields" help={fields.length === 0 ? 'Add the first one.' : undefined}>
        <ol aria-label={`Fields of ${field.label}`}>
          {fields.map((inner, i) => (
            <InnerField
              key={inner.id}
              {...props}
              inner={inner}
              Settings={settingsOf(inner.kind)}
              isFirst={i === 0}
              isLast={i === fields.length - 1}
              onMove={(by) => move(i, by)}
              onInner={(next) => put(fields.map((f) => (f.id === inner.id ? next : f)))}
              onRemove={() => put(fields.filter((f) => f.id !== inner.id))}
            />
          ))}
        </ol>
        {!readOnly && <AddInner {...props} onAdd={(next) => put([...fields, next])} />}
      </Line>
    );
  };
}

interface InnerProps extends FieldSettingsProps {
  inner: Field;
  Settings: FieldSettings | undefined;
  isFirst: boolean;
  isLast: boolean;
  onMove: (by: -1 | 1) => void;
  onInner: (field: Field) => void;
  onRemove: () => void;
}

/** A field of a group as one line; opened, all that is set of it. */
function InnerField(props: InnerProps) {
  const { id, detail, readOnly, inner, Settings, onInner } = props;
  const own = `${id}-${inner.id}`;
  const kind = kindOf(inner);
  const several = inner.many && !kind.alwaysMany ? ', several' : '';
  return (
    <li className="border-t border-rule">
      <details>
        <summary className="cursor-pointer py-1.5">
          {inner.label}{' '}
          <span className="text-muted">
            {`${kind.label.toLowerCase()}${several} · {${inner.key}}`}
          </span>
        </summary>
        <div className="border-l-2 border-rule pb-2 pl-3">
          <Line label="Name" htmlFor={`${own}-label`}>
            <input
              id={`${own}-label`}
              className="control"
              maxLength={200}
              value={inner.label}
              readOnly={readOnly}
              onChange={(e) => onInner({ ...inner, label: e.target.value })}
            />
          </Line>
          {Settings && (
            <Settings {...{ detail, readOnly }} id={own} field={inner} onChange={onInner} />
          )}
          <Marks {...{ inner, readOnly, onInner }} />
          {!readOnly && <Moves {...props} />}
        </div>
      </details>
    </li>
  );
}

function Marks({ inner, readOnly, onInner }: Pick<InnerProps, 'inner' | 'readOnly' | 'onInner'>) {
  const put = (change: Partial<Field>): void => onInner({ ...inner, ...change });
  const half = (on: boolean): void => onInner(having(inner, 'half', on || undefined));
  return (
    <div className="flex flex-wrap items-center gap-4 py-1.5">
      {!kindOf(inner).alwaysMany && (
        <Mark
          words="Holds several"
          on={inner.many}
          {...{ readOnly }}
          onTick={(many) => put({ many })}
        />
      )}
      <Mark
        words="Required"
        on={inner.required}
        {...{ readOnly }}
        onTick={(required) => put({ required })}
      />
      <Mark words="Half as wide" on={inner.half ?? false} {...{ readOnly }} onTick={half} />
    </div>
  );
}

function Moves({ inner: { label }, isFirst, isLast, onMove, onRemove }: InnerProps) {
  const acts = [
    [`Move ${label} up`, isFirst, () => onMove(-1)],
    [`Move ${label} down`, isLast, () => onMove(1)],
    [`Take ${label} away`, false, onRemove],
  ] as const;
  return (
    <div className="flex gap-1">
      {acts.map(([words, isOff, act]) => (
        <button key={words} type="button" className="button-quiet" disabled={isOff} onClick={act}>
          {words}
        </button>
      ))}
    </div>
  );
}

function Mark({
  words,
  on,
  readOnly,
  onTick,
}: {
  words: string;
  on: boolean;
  readOnly: boolean;
  onTick: (on: boolean) => void;
}) {
  return (
    <label className="flex items-center gap-2">
      <input
        type="checkbox"
        className="h-4 w-4 accent-spruce"
        checked={on}
        disabled={readOnly}
        onChange={(e) => onTick(e.target.checked)}
      />
      {words}
    </label>
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
    const taken = new Set((field.fields ?? []).flatMap((f) => [f.key, f.id]));
    const key = freeKey(fieldKeyOf(words, detail.language), taken);
    const { alwaysMany } = kindOf({ kind });
    const set = kind === 'tags' || kind === 'category' ? setFor(words, kind, detail) : null;
    onAdd({
      ...{ id: key, key, label: words, kind, many: alwaysMany },
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
