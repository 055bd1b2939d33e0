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
  /** What a new entry can be of, made of the words that were typed. */
  makes?: readonly { type: string; label: string }[];
  onMake?: (words: string, type: string) => void;
  onPick: (entry: FoundEntry) => void;
}

const PAUSE_MS = 150;

/** Finds an entry by its name: type, then choose by arrow keys and Enter, or press one. */
export function EntryPicker(props: Props) {
  const { id, label, describedBy, invalid, hidden = [], makes = [], onMake, onPick } = props;
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
  const named = words.trim();
  const made = named === '' || !onMake ? [] : makes;
  const make = (type: string | undefined): void => {
    if (type === undefined) return;
    onMake?.(named, type);
    setWords('');
    setOpen(false);
  };
  const press = (event: KeyboardEvent): void => {
    if (event.key === 'Escape') setOpen(false);
    else if (event.key === 'Enter') {
      if (found[active]) pick(found[active]);
      else make(made[active - found.length]?.type);
    } else if (event.key === 'ArrowDown')
      setActive(Math.min(found.length + made.length - 1, active + 1));
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
        aria-activedescendant={
          open && active < found.length + made.length ? `${list}-${active}` : undefined
        }
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
      <Offers
        id={list}
        {...{ label, open, found, active, made, words: named }}
        onPick={pick}
        onMake={make}
      />
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
  made,
  words,
  onPick,
  onMake,
}: {
  id: string;
  label: string;
  open: boolean;
  found: FoundEntry[];
  active: number;
  made: readonly { type: string; label: string }[];
  words: string;
  onPick: (entry: FoundEntry) => void;
  onMake: (type: string) => void;
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
        <Offer
          key={entry.id}
          id={`${id}-${i}`}
          entry={entry}
          isActive={i === active}
          onPick={() => onPick(entry)}
        />
      ))}
      {made.map(({ type, label: one }, i) => (
        <li
          key={type}
          id={`${id}-${found.length + i}`}
          role="option"
          aria-selected={found.length + i === active}
          className={offerClass(found.length + i === active)}
          onMouseDown={(e) => e.preventDefault()}
          onClick={() => onMake(type)}
        >
          <span className="truncate text-spruce">{`Make “${words}”, a new ${one}`}</span>
        </li>
      ))}
      {found.length === 0 && made.length === 0 && (
        <li role="option" aria-selected={false} aria-disabled className="px-2 py-1 text-muted">
          Nobody is called that.
        </li>
      )}
    </ul>
  );
}

/** An entry that can be picked: its picture, where it stands, and what it says of itself. */
function Offer({
  id,
  entry: { name, path, says, thumbnail, typeLabel },
  isActive,
  onPick,
}: {
  id: string;
  entry: FoundEntry;
  isActive: boolean;
  onPick: () => void;
}) {
  return (
    <li
      id={id}
      role="option"
      aria-selected={isActive}
      className={offerClass(isActive)}
      onMouseDown={(e) => e.preventDefault()}
      onClick={onPick}
    >
      {thumbnail && (
        // eslint-disable-next-line @next/next/no-img-element -- served by delivery
        <img
          src={thumbnail}
          alt=""
          loading="lazy"
          className="h-8 w-8 shrink-0 border border-rule object-cover"
        />
      )}
      <span className="min-w-0 flex-1">
        <span className="block truncate">{name}</span>
        <span className="block truncate text-note text-muted">
          {[path ?? 'not live', says].filter(Boolean).join(' · ')}
        </span>
      </span>
      <span className="shrink-0 text-muted">{typeLabel}</span>
    </li>
  );
}

function offerClass(isActive: boolean): string {
  return `flex cursor-pointer items-center gap-3 px-2 py-1 ${isActive ? 'bg-hover' : ''}`;
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
