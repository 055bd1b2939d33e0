import { DndContext, PointerSensor, useSensor, useSensors } from '@dnd-kit/core';
import { SortableContext, arrayMove, verticalListSortingStrategy } from '@dnd-kit/sortable';
import { type ReactNode, useState } from 'react';
import type { Issue } from '@/core/issue.ts';
import type { Field } from '@/core/design/field.ts';
import { FIELD_KINDS } from '@/core/design/kinds/index.ts';
import type { Clock } from '@/server/queries/clock.ts';
import type { TypeDetail, TypeOutcome } from '@/server/queries/type.ts';
import { copyOfField } from '@/core/design-edit/copy-field.ts';
import { SILENT } from '@/ui/primitives/drag.ts';
import { CopyField } from './copy-field.tsx';
import { FieldLine } from './field-line.tsx';
import { namesFor } from './field-names.ts';
import { setFor } from './field-settings/subjects.tsx';
import { Wrong } from './names-settings.tsx';

type Spec = TypeDetail['spec'];

/** The fields of a type, in the order that forms have them: added, arranged, set and taken away. */
export function FieldsEditor({
  spec,
  detail,
  outcome,
  clock,
  opened,
  readOnly,
  issuesAt,
  onChange,
  onRename,
}: {
  spec: Spec;
  detail: TypeDetail;
  outcome: TypeOutcome;
  clock: Clock;
  /** Id of the one that is opened at first; null for none. */
  opened: string | null;
  readOnly: boolean;
  issuesAt: (place: string) => Issue[];
  onChange: (spec: Spec) => void;
  onRename: (path: string, was: string, now: string) => void;
}) {
  const [open, setOpen] = useState(opened);
  const stored = new Set(detail.spec.fields.map(({ id }) => id));
  /** A field that takes the place of another stands where that one stood. */
  const slotOf = ({ id, replaces }: Field): string =>
    replaces && stored.has(replaces.field) ? replaces.field : id;
  const { fields } = spec;
  const put = (next: Field[]): void => onChange({ ...spec, fields: next });
  const move = (i: number, by: -1 | 1): void => {
    const next = [...fields];
    const [field] = next.splice(i, 1);
    next.splice(i + by, 0, field!);
    put(next);
  };
  const append = (field: Field): void => {
    put([...fields, field]);
    setOpen(field.id);
  };
  const ofOne = new Set(fields.flatMap(({ key }) => issuesAt(`fields/${key}`)));
  return (
    <div>
      <Wrong issues={issuesAt('fields').filter((issue) => !ofOne.has(issue))} />
      <Sorted ids={fields.map(slotOf)} onMove={(from, to) => put(arrayMove(fields, from, to))}>
        <ol aria-label="Fields">
          {fields.map((field, i) => (
            <FieldLine
              key={slotOf(field)}
              slot={slotOf(field)}
              field={field}
              stored={detail.spec.fields.find(({ id }) => id === slotOf(field))}
              clock={clock}
              detail={detail}
              others={fields.filter((f) => f.id !== field.id)}
              value={outcome.fields.find(({ id }) => id === field.id)?.value ?? ''}
              issues={issuesAt(`fields/${field.key}`)}
              isOpen={open === slotOf(field)}
              isFirst={i === 0}
              isLast={i === fields.length - 1}
              readOnly={readOnly}
              onToggle={() => setOpen(open === slotOf(field) ? null : slotOf(field))}
              onMove={(by) => move(i, by)}
              onChange={(next) => put(fields.map((f) => (f.id === field.id ? next : f)))}
              onRename={onRename}
              onRemove={() => put(fields.filter((f) => f.id !== field.id))}
            />
          ))}
        </ol>
      </Sorted>
      {!readOnly && <Adding {...{ fields, detail }} at={clock.at} onAdd={append} />}
    </div>
  );
}

/** Ways to another field: a new one, or one of another type. */
function Adding({
  fields,
  detail,
  at,
  onAdd,
}: {
  fields: Field[];
  detail: TypeDetail;
  at: number;
  onAdd: (field: Field) => void;
}) {
  return (
    <>
      <AddField onAdd={(label, kind) => onAdd(newField(label, kind, fields, detail))} />
      <CopyField
        {...{ detail, at }}
        onCopy={(from) => onAdd(copyOfField(from, namesFor(from.label, fields, detail)))}
      />
    </>
  );
}

/** A list that is put in another order by dragging. */
function Sorted({
  ids,
  onMove,
  children,
}: {
  ids: string[];
  onMove: (from: number, to: number) => void;
  children: ReactNode;
}) {
  const sensors = useSensors(useSensor(PointerSensor, { activationConstraint: { distance: 4 } }));
  return (
    <DndContext
      accessibility={SILENT}
      sensors={sensors}
      onDragEnd={({ active, over }) => {
        const [from, to] = [ids.indexOf(String(active.id)), ids.indexOf(String(over?.id))];
        if (from >= 0 && to >= 0 && from !== to) onMove(from, to);
      }}
    >
      <SortableContext items={ids} strategy={verticalListSortingStrategy}>
        {children}
      </SortableContext>
    </DndContext>
  );
}

function newField(label: string, kind: string, fields: Field[], detail: TypeDetail): Field {
  const { alwaysMany, translated } = FIELD_KINDS.find((k) => k.kind === kind)!;
  return {
    ...namesFor(label, fields, detail),
    label,
    kind,
    required: false,
    many: alwaysMany,
    column: false,
    translated,
    ...(kind === 'tags' || kind === 'category' ? { set: setFor(label, kind, detail) } : {}),
  };
}

function AddField({ onAdd }: { onAdd: (label: string, kind: string) => void }) {
  const [label, setLabel] = useState('');
  const [kind, setKind] = useState('text');
  return (
    <form
      className="mt-2 flex flex-wrap items-end gap-2"
      onSubmit={(event) => {
        event.preventDefault();
        if (label.trim() === '') return;
        onAdd(label.trim(), kind);
        setLabel('');
      }}
    >
      <label className="min-w-0 flex-1">
        <span className="text-note text-muted">New field</span>
        <input
          className="control"
          aria-label="Name of the new field"
          value={label}
          maxLength={200}
          onChange={(e) => setLabel(e.target.value)}
        />
      </label>
      <label className="w-40">
        <span className="text-note text-muted">Kind</span>
        <select
          className="control"
          aria-label="Kind of the new field"
          value={kind}
          onChange={(e) => setKind(e.target.value)}
        >
          {FIELD_KINDS.map((k) => (
            <option key={k.kind} value={k.kind} title={k.doc}>
              {k.label}
            </option>
          ))}
        </select>
      </label>
      <button type="submit" className="button" disabled={label.trim() === ''}>
        Add field
      </button>
    </form>
  );
}
