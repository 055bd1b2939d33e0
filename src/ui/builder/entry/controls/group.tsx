'use client';

import { type ComponentType, createContext, useContext, useId } from 'react';
import { isShown } from '@/core/design/shown.ts';
import { type ControlProps, common } from './definition.ts';

type Item = Record<string, unknown>;

/** What draws the control of a field within a group; that of any field, groups among them. */
const Inner = createContext<ComponentType<ControlProps>>(() => null);

/** The control of groups, whose fields are drawn by the control of any field. */
export function groupControl(draw: ComponentType<ControlProps>): ComponentType<ControlProps> {
  return function GroupOf(props: ControlProps) {
    return (
      <Inner value={draw}>
        <GroupControl {...props} />
      </Inner>
    );
  };
}

/** A group of fields, or several of them in an order: each moved and taken away by keys. */
function GroupControl(props: ControlProps) {
  const { id, field, value, readOnly, onChange } = props;
  if (!field.many)
    return <Fields {...props} label={field.label} item={(value ?? {}) as Item} onItem={onChange} />;
  const items = (Array.isArray(value) ? value : value ? [value] : []) as Item[];
  const put = (i: number, item: Item): void =>
    onChange(items.map((other, n) => (n === i ? item : other)));
  const move = (i: number, by: -1 | 1): void => {
    const next = [...items];
    const [item] = next.splice(i, 1);
    next.splice(i + by, 0, item!);
    onChange(next);
  };
  return (
    <div>
      <ol className="flex flex-col gap-2">
        {items.map((item, i) => (
          <li key={i}>
            <Fields
              {...props}
              id={i === 0 ? id : `${id}-${i}`}
              label={`${field.label} ${i + 1}`}
              item={item}
              onItem={(next) => put(i, next)}
            />
            {!readOnly && (
              <div className="flex gap-1">
                <Move
                  words="Up"
                  of={`${field.label} ${i + 1}`}
                  off={i === 0}
                  on={() => move(i, -1)}
                />
                <Move
                  words="Down"
                  of={`${field.label} ${i + 1}`}
                  off={i === items.length - 1}
                  on={() => move(i, 1)}
                />
                <Move
                  words="Take away"
                  of={`${field.label} ${i + 1}`}
                  off={false}
                  on={() => onChange(items.filter((_, n) => n !== i))}
                />
              </div>
            )}
          </li>
        ))}
      </ol>
      {!readOnly && (
        <button
          {...common(props)}
          id={items.length === 0 ? id : `${id}-add`}
          type="button"
          className="button mt-1"
          onClick={() => onChange([...items, field.starts ?? {}])}
        >
          {items.length === 0 ? 'Add one' : 'Add another'}
        </button>
      )}
    </div>
  );
}

function Move({ words, of, off, on }: { words: string; of: string; off: boolean; on: () => void }) {
  return (
    <button
      type="button"
      className="button-quiet"
      aria-label={`${words}: ${of}`}
      disabled={off}
      onClick={on}
    >
      {words}
    </button>
  );
}

/** The fields of one item, in the order of the group. */
function Fields({
  id,
  field,
  label,
  item,
  onItem,
  ...rest
}: ControlProps & { label: string; item: Item; onItem: (item: Item) => void }) {
  const own = useId();
  const FieldControl = useContext(Inner);
  const shown = (field.fields ?? []).filter(
    (inner) => !inner.hidden && isShown(inner.shownWhen, item),
  );
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
