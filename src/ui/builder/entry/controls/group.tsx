'use client';

import { type ControlProps, common } from './definition.ts';
import { type Item, ItemFields } from './item-fields.tsx';

/** A group of fields, or several of them in an order: each moved and taken away by keys. */
export function GroupControl(props: ControlProps) {
  const { id, field, value, readOnly, onChange } = props;
  const { zone, now, entry } = props;
  const rest = { zone, now, entry, readOnly, id, label: field.label, fields: field.fields ?? [] };
  if (!field.many) return <ItemFields {...rest} item={(value ?? {}) as Item} onItem={onChange} />;
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
            <ItemFields
              {...rest}
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
