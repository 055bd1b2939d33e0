'use client';

import { useState } from 'react';
import type { Issue } from '@/core/issue.ts';
import { Issues } from '@/ui/primitives/issues.tsx';
import { command } from '../../send.ts';
import { EntryPicker } from '../../entry-picker.tsx';
import { Chips } from './chips.tsx';
import { type ControlProps, asText } from './definition.ts';

/** One or several other entries, searched for by name. */
export function EntryControl(props: ControlProps) {
  const { id, field, value, now, entry, readOnly, invalid, onChange } = props;
  const [found, setFound] = useState<Record<string, string>>({});
  const [issues, setIssues] = useState<Issue[]>([]);
  const make = async (words: string, type: string, onPick: (key: string) => void) => {
    const { naming } = field.makes!.find((one) => one.type === type)!;
    const input = { id: null, type, values: { [naming]: words }, seen: null };
    const made = await command('saveEntry', input);
    setIssues(made.ok ? [] : made.issues);
    if (!made.ok) return;
    setFound((before) => ({ ...before, [made.value.id]: words }));
    onPick(made.value.id);
  };
  const labelOf = (key: string): string => found[key] ?? field.names[key] ?? key;
  const picker = (without: string[], onPick: (key: string) => void, label: string) => (
    <>
      <Issues issues={issues} title="Not made" answers />
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
        makes={field.makes ?? []}
        onMake={(words, type) => void make(words, type, onPick)}
      />
    </>
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
