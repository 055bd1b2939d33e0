'use client';

import { useId } from 'react';
import { isShown } from '@/core/design/shown.ts';
import type { FormField } from '@/server/queries/form-field.ts';
import type { ControlProps } from './definition.ts';
import { useInnerControl } from './inner.ts';

/** Values of fields that stand within another value, by field id. */
export type Item = Record<string, unknown>;

interface Props extends Pick<ControlProps, 'id' | 'zone' | 'now' | 'entry' | 'readOnly'> {
  label: string;
  fields: FormField[];
  item: Item;
  onItem: (item: Item) => void;
}

/** The fields of a value that holds further fields, in their order. */
export function ItemFields({ id, label, fields, item, onItem, ...rest }: Props) {
  const own = useId();
  const FieldControl = useInnerControl();
  const shown = fields.filter((inner) => !inner.hidden && isShown(inner.shownWhen, item));
  return (
    <div
      id={id}
      role="group"
      aria-label={label}
      className="grid grid-cols-2 gap-x-4 gap-y-2 border-l-2 border-rule pl-3"
    >
      {shown.map((inner) => (
        <div key={inner.id} className={`min-w-0 ${inner.half ? '' : 'col-span-2'}`}>
          <label htmlFor={`${own}-${inner.key}`} className="mb-1 block text-muted">
            {inner.label}
            {inner.required && ' (required)'}
          </label>
          <FieldControl
            {...rest}
            id={`${own}-${inner.key}`}
            field={inner}
            value={item[inner.id] ?? null}
            invalid={false}
            onChange={(next) => onItem({ ...item, [inner.id]: next })}
          />
          {inner.help && (
            <p id={`${own}-${inner.key}-notes`} className="mt-1 text-note text-muted">
              {inner.help}
            </p>
          )}
        </div>
      ))}
    </div>
  );
}
