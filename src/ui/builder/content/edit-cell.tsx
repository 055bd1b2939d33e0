'use client';

import { useEffect, useRef, useState } from 'react';
import type { ContentRow } from '@/server/queries/content.ts';
import type { FormField } from '@/server/queries/form-field.ts';
import { FieldControl } from '../entry/controls/index.tsx';

/** Saves a value that was changed in the table; whether that worked. */
export type SaveCell = (
  row: Pick<ContentRow, 'id' | 'name'>,
  field: Pick<FormField, 'id' | 'label'>,
  value: unknown,
) => Promise<boolean>;

/** What is edited in a cell. */
interface Props {
  row: ContentRow;
  field: FormField;
  zone: string;
  now: number;
  onSave: SaveCell;
}

/** A value of the table that can be changed where it stands: pressed, it becomes its control. */
export function EditCell({ row, field, zone, now, onSave }: Props) {
  const [value, setValue] = useState<{ now: unknown } | null>(null);
  const opener = useRef<HTMLButtonElement>(null);
  const words = row.cells[field.id] ?? '';
  const close = (): void => {
    setValue(null);
    requestAnimationFrame(() => opener.current?.focus());
  };
  if (value)
    return (
      <OpenCell
        {...{ row, field, zone, now }}
        value={value.now}
        onChange={(next) => setValue({ now: next })}
        onLeave={close}
        onSave={() => {
          const isSame = JSON.stringify(value.now) === JSON.stringify(row.values[field.id] ?? null);
          if (isSame) return close();
          void onSave(row, field, value.now).then((done) => done && close());
        }}
      />
    );
  return (
    <button
      ref={opener}
      type="button"
      title={words}
      aria-label={`${field.label} of ${row.name}: ${words || 'blank'}. Change it`}
      className="block h-6 w-full truncate rounded-sm px-1 text-left hover:bg-white"
      onClick={() => setValue({ now: row.values[field.id] ?? null })}
    >
      {words}
    </button>
  );
}

/** The control of a cell: Enter or leaving it saves, Escape leaves it as it was. */
function OpenCell({
  row,
  field,
  zone,
  now,
  value,
  onChange,
  onSave,
  onLeave,
}: Omit<Props, 'onSave'> & {
  value: unknown;
  onChange: (value: unknown) => void;
  onSave: () => void;
  onLeave: () => void;
}) {
  const box = useRef<HTMLDivElement>(null);
  /** Left by key: that the focus goes as well is no other save. */
  const isLeft = useRef(false);
  useEffect(() => box.current?.querySelector<HTMLElement>('input, select, button')?.focus(), []);
  return (
    <div
      ref={box}
      className="cell-control"
      onKeyDown={(e) => {
        if (e.key !== 'Escape' && e.key !== 'Enter') return;
        e.preventDefault();
        isLeft.current = true;
        if (e.key === 'Escape') onLeave();
        else onSave();
      }}
      onBlur={(e) => {
        if (!isLeft.current && !box.current?.contains(e.relatedTarget)) onSave();
      }}
    >
      <label htmlFor={`cell-${field.id}`} className="sr-only">
        {`${field.label} of ${row.name}`}
      </label>
      <FieldControl
        id={`cell-${field.id}`}
        {...{ field, value, zone, now, onChange }}
        entry={row.id}
        readOnly={false}
        invalid={false}
      />
    </div>
  );
}
