'use client';

import { useState } from 'react';
import type { LinkValue } from '@/core/design/field.ts';
import { EntryPicker } from '../../entry-picker.tsx';
import { type ControlProps, common } from './definition.ts';

/** A link: an address or an entry, and words that stand for it. */
export function LinkControl(props: ControlProps) {
  const { id, field, value, now, readOnly, onChange } = props;
  const link = (typeof value === 'object' && value !== null ? value : {}) as LinkValue;
  const [names, setNames] = useState<Record<string, string>>({});
  const set = (change: LinkValue): void => onChange({ ...link, ...change });
  const { entry } = link;
  return (
    <div className="flex flex-col gap-1">
      {entry === undefined ? (
        <input
          {...common(props)}
          className="control"
          placeholder="https://… or /path"
          value={link.to ?? ''}
          onChange={(e) => set({ to: e.target.value })}
        />
      ) : (
        <div className="flex items-center gap-2">
          <span id={id} className="truncate rounded-md border border-rule bg-white px-2 py-1">
            {names[entry] ?? field.names[entry] ?? entry}
          </span>
          {!readOnly && (
            <button
              type="button"
              className="button-quiet"
              onClick={() => onChange({ ...(link.words ? { words: link.words } : {}), to: '' })}
            >
              Lead elsewhere
            </button>
          )}
        </div>
      )}
      {entry === undefined && !link.to && !readOnly && (
        <EntryPicker
          id={`${id}-entry`}
          label="or find an entry …"
          types={null}
          at={now}
          onPick={({ id: key, name }) => {
            setNames({ ...names, [key]: name });
            onChange({ ...(link.words ? { words: link.words } : {}), entry: key });
          }}
        />
      )}
      <input
        id={`${id}-words`}
        className="control"
        aria-label={`Words of ${field.label}`}
        placeholder={entry === undefined ? 'Words; else the address' : 'Words; else its name'}
        disabled={readOnly}
        value={link.words ?? ''}
        onChange={(e) => set({ words: e.target.value })}
      />
    </div>
  );
}
