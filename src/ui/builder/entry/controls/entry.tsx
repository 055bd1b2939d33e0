'use client';

import { useState } from 'react';
import { EntryPicker } from '../../entry-picker.tsx';
import { Chips } from './chips.tsx';
import { type ControlProps, asText } from './definition.ts';

/** One or several other entries, searched for by name. */
export function EntryControl(props: ControlProps) {
  const { id, field, value, now, entry, readOnly, invalid, onChange } = props;
  const [found, setFound] = useState<Record<string, string>>({});
  const labelOf = (key: string): string => found[key] ?? field.names[key] ?? key;
  const picker = (without: string[], onPick: (key: string) => void, label: string) => (
    <EntryPicker
      id={id}
      label={label}
      describedBy={`${id}-notes`}
      invalid={invalid}
      types={field.entryTypes ?? null}
      at={now}
      without={entry}
      hidden={without}
      onPick={({ id: key, name }) => {
        setFound((before) => ({ ...before, [key]: name }));
        onPick(key);
      }}
    />
  );
  if (field.many)
    return (
      <Chips {...props} labelOf={labelOf}>
        {(chosen, add) => (
          <div className="mt-1">
            {picker(chosen, add, chosen.length === 0 ? 'Search …' : 'Add another …')}
          </div>
        )}
      </Chips>
    );
  const chosen = asText(value);
  if (chosen === '') return readOnly ? <p>(none)</p> : picker([], onChange, 'Search …');
  return (
    <div className="flex items-center gap-2">
      <span id={id} className="truncate rounded-md border border-rule bg-white px-2 py-1">
        {labelOf(chosen)}
      </span>
      {!readOnly && (
        <button type="button" className="button-quiet" onClick={() => onChange(null)}>
          Choose another
        </button>
      )}
    </div>
  );
}
