'use client';

import { type KeyboardEvent, useEffect, useId, useState } from 'react';
import type { FoundEntry } from '@/server/queries/offers.ts';
import { ask } from './send.ts';

interface Props {
  id: string;
  label: string;
  describedBy?: string;
  invalid?: boolean;
  /** Null for entries of all types. */
  types: string[] | null;
  at: number;
  /** An entry that is not offered. */
  without?: string | null;
  hidden?: string[];
  onPick: (entry: FoundEntry) => void;
}

const PAUSE_MS = 150;

/** Finds an entry by its name: type, then choose by arrow keys and Enter, or press one. */
export function EntryPicker(props: Props) {
  const { id, label, describedBy, invalid, hidden = [], onPick } = props;
  const list = useId();
  const [words, setWords] = useState('');
  const [open, setOpen] = useState(false);
  const [active, setActive] = useState(0);
  const found = useFound(props, words, open).filter((e) => !hidden.includes(e.id));
  const pick = (entry: FoundEntry | undefined): void => {
    if (!entry) return;
    onPick(entry);
    setWords('');
    setOpen(false);
  };
  const press = (event: KeyboardEvent): void => {
    if (event.key === 'Escape') setOpen(false);
    else if (event.key === 'Enter') pick(found[active]);
    else if (event.key === 'ArrowDown') setActive(Math.min(found.length - 1, active + 1));
    else if (event.key === 'ArrowUp') setActive(Math.max(0, active - 1));
    else return;
    event.preventDefault();
  };
  return (
    <div className="relative">
      <input
        id={id}
        role="combobox"
        aria-expanded={open}
        aria-controls={list}
        aria-autocomplete="list"
        aria-activedescendant={open && found[active] ? `${list}-${active}` : undefined}
        aria-describedby={describedBy}
        aria-invalid={invalid || undefined}
        className="control"
        placeholder={label}
        autoComplete="off"
        value={words}
        onFocus={() => setOpen(true)}
        onBlur={() => setOpen(false)}
        onChange={(e) => {
          setWords(e.target.value);
          setActive(0);
          setOpen(true);
        }}
        onKeyDown={press}
      />
      <Offers id={list} label={label} open={open} found={found} active={active} onPick={pick} />
    </div>
  );
}

/** What was found, in a list that the arrow keys walk. */
function Offers({
  id,
  label,
  open,
  found,
  active,
  onPick,
}: {
  id: string;
  label: string;
  open: boolean;
  found: FoundEntry[];
  active: number;
  onPick: (entry: FoundEntry) => void;
}) {
  return (
    <ul
      id={id}
      role="listbox"
      aria-label={label}
      hidden={!open}
      className="absolute z-20 mt-1 max-h-64 w-full overflow-auto rounded-md border border-edge bg-white"
    >
      {found.map((entry, i) => (
        <li
          key={entry.id}
          id={`${id}-${i}`}
          role="option"
          aria-selected={i === active}
          className={`flex cursor-pointer justify-between gap-3 px-2 py-1 ${i === active ? 'bg-hover' : ''}`}
          onMouseDown={(e) => e.preventDefault()}
          onClick={() => onPick(entry)}
        >
          <span className="truncate">{entry.name}</span>
          <span className="shrink-0 text-muted">{entry.typeLabel}</span>
        </li>
      ))}
      {found.length === 0 && (
        <li role="option" aria-selected={false} aria-disabled className="px-2 py-1 text-muted">
          Nobody is called that.
        </li>
      )}
    </ul>
  );
}

/** Entries with the words in their name, asked for shortly after each letter. */
function useFound(
  { types, at, without = null }: Props,
  words: string,
  open: boolean,
): FoundEntry[] {
  const [found, setFound] = useState<FoundEntry[]>([]);
  const kinds = JSON.stringify(types);
  useEffect(() => {
    if (!open) return;
    const stop = new AbortController();
    const timer = setTimeout(() => {
      ask<FoundEntry[]>('entries', { at, types: JSON.parse(kinds), words, without }, stop.signal)
        .then((answer) => 'value' in answer && setFound(answer.value))
        .catch(() => undefined); // asked again with the next letter
    }, PAUSE_MS);
    return () => {
      clearTimeout(timer);
      stop.abort();
    };
  }, [open, words, kinds, at, without]);
  return found;
}
