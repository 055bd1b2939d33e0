'use client';

import { useEffect, useState } from 'react';
import type { ContentFilters } from '@/core/content/filters.ts';
import type { ContentTable } from '@/server/queries/content.ts';
import { Issues } from '@/ui/primitives/issues.tsx';
import { counted } from '../format.ts';
import { command } from '../send.ts';
import { useAttempts } from '../use-attempts.ts';
import { ClockLink } from '../shell/clock-link.tsx';
import { ChooseColumns } from './choose-columns.tsx';
import { KeptFilters } from './kept-filters.tsx';
import { WhereWords } from '../listing/where-words.tsx';
import { NewMenu } from './new-menu.tsx';

const PAUSE_MS = 250;

const STATES = [
  'draft',
  'scheduled',
  'live',
  'live with newer draft',
  'retired',
  'not yet written',
  'deleted',
];

interface Props {
  table: ContentTable;
  total: number;
  filters: ContentFilters;
  onFilter: (change: ContentFilters) => void;
  /** Puts other filters in place of all. */
  onTake: (filters: ContentFilters) => void;
}

/** What the table is narrowed down by: type, state and words, and conditions as a sentence. */
export function ContentFilterBar({ table, total, filters, onFilter, onTake }: Props) {
  const { attempt, issues } = useAttempts();
  const say = (words: string) => () => ({ words });
  return (
    <div className="flex flex-col gap-1 px-6 pt-3 pb-2">
      <div className="flex flex-wrap items-center gap-3">
        <h1 className="mr-2">Content</h1>
        <Select
          label="Type"
          value={filters.type}
          all={`All types (${table.counts.reduce((n, c) => n + c.count, 0).toLocaleString('en')})`}
          options={table.counts.map((c) => ({
            value: c.type,
            label: `${c.label} (${c.count.toLocaleString('en')})`,
          }))}
          onChange={(type) => onFilter({ type, where: undefined, sort: undefined })}
        />
        <Select
          label="State"
          value={filters.state}
          all="Any state"
          options={STATES.map((value) => ({ value, label: value }))}
          onChange={(state) => onFilter({ state })}
        />
        <SearchBox search={filters.search ?? ''} onSearch={(search) => onFilter({ search })} />
        <span role="status" className="text-muted">
          {counted(total, 'entry', 'entries')}
        </span>
        <span className="ml-auto flex items-center gap-2">
          <KeptFilters
            kept={table.kept}
            {...{ filters, onTake }}
            onKeep={(name, shared) =>
              void attempt(() => command('keepFilter', { name, shared, filters }), say('Kept.'))
            }
            onDrop={(id) => void attempt(() => command('dropFilter', { id }), say('Forgotten.'))}
          />
          <ChooseColumns
            columns={table.columns}
            onChoose={(columns) =>
              void attempt(
                () => command('chooseColumns', { type: table.typeId, columns }),
                say('Chosen.'),
              )
            }
          />
          <BringInLink type={filters.type} />
          <NewMenu types={table.counts} type={filters.type} />
        </span>
      </div>
      <Issues issues={issues} title="Not done" answers />
      <div className="sentence text-table">
        <span className="text-muted">Entries</span>
        <WhereWords
          where={filters.where}
          detail={{ ...table.asked, ofType: filters.type ?? null }}
          onChange={(where) => onFilter({ where })}
        />
        {filters.where && (
          <button
            type="button"
            className="button-quiet"
            onClick={() => onFilter({ where: undefined })}
          >
            Clear
          </button>
        )}
      </div>
      <Issues issues={table.issues} title="This condition is left out" />
    </div>
  );
}

function Select({
  label,
  value,
  all,
  options,
  onChange,
}: {
  label: string;
  value: string | undefined;
  /** What is chosen where nothing is. */
  all: string;
  options: { value: string; label: string }[];
  onChange: (value: string | undefined) => void;
}) {
  return (
    <select
      aria-label={label}
      className="control !w-auto max-w-56"
      value={value ?? ''}
      onChange={(e) => onChange(e.target.value || undefined)}
    >
      <option value="">{all}</option>
      {options.map((o) => (
        <option key={o.value} value={o.value}>
          {o.label}
        </option>
      ))}
    </select>
  );
}

/** Words to search for; asked for when somebody stops typing. */
function SearchBox({ search, onSearch }: { search: string; onSearch: (words: string) => void }) {
  const [words, setWords] = useState(search);
  const [known, setKnown] = useState(search);
  /** What was asked for since: it may arrive while more is typed. */
  const [asked, setAsked] = useState<readonly string[]>([]);
  if (known !== search) {
    setKnown(search);
    // Somebody went back, or a kept filter was taken: what is typed gives way.
    if (!asked.includes(search)) {
      setWords(search);
      setAsked([]);
    }
  }
  useEffect(() => {
    if (words === search) return;
    const timer = setTimeout(() => {
      setAsked((before) => [...before.slice(-20), words]);
      onSearch(words);
    }, PAUSE_MS);
    return () => clearTimeout(timer);
  });
  return (
    <input
      type="search"
      aria-label="Search names and texts"
      placeholder="Search names and texts"
      className="control !w-60"
      value={words}
      onChange={(e) => setWords(e.target.value)}
    />
  );
}

/** Leads to where content of other tools is brought in. */
function BringInLink({ type }: { type: string | undefined }) {
  const query = type === undefined ? '' : `?type=${encodeURIComponent(type)}`;
  return (
    <ClockLink
      href={`/build/content/bring-in${query}`}
      className="button inline-flex items-center no-underline"
    >
      Bring in
    </ClockLink>
  );
}
