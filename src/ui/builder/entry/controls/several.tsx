'use client';

import type { ReactNode } from 'react';
import type { ControlProps } from './definition.ts';

/** Several values of a control that holds one: a control each, in order. */
export function Several({
  props,
  draw,
}: {
  props: ControlProps;
  draw: (one: ControlProps) => ReactNode;
}) {
  const { id, field, value, readOnly, onChange } = props;
  const values: unknown[] = Array.isArray(value) ? value : value === null ? [] : [value];
  const put = (i: number, next: unknown): void =>
    onChange(values.map((v, n) => (n === i ? next : v)));
  return (
    <div>
      <ul className="flex flex-col gap-1">
        {values.map((v, i) => (
          <li key={i} className="flex items-start gap-2">
            <div className="min-w-0 flex-1">
              {draw({
                ...props,
                id: i === 0 ? id : `${id}-${i}`,
                value: v,
                onChange: (next) => put(i, next),
              })}
            </div>
            {!readOnly && (
              <button
                type="button"
                className="button-quiet h-8"
                aria-label={`Remove value ${i + 1} of ${field.label}`}
                onClick={() => onChange(values.filter((_, n) => n !== i))}
              >
                Remove
              </button>
            )}
          </li>
        ))}
      </ul>
      {!readOnly && (
        <button
          type="button"
          id={values.length === 0 ? id : undefined}
          className="button mt-1"
          onClick={() => onChange([...values, ''])}
        >
          {values.length === 0 ? 'Add one' : 'Add another'}
        </button>
      )}
    </div>
  );
}
