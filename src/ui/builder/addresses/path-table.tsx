'use client';

import { useEffect, useState } from 'react';
import type { AddressKind, AddressRow, AddressRows } from '@/server/queries/addresses.ts';
import type { Clock } from '@/server/queries/clock.ts';
import { type VirtualColumn, VirtualTable } from '@/ui/primitives/virtual-table.tsx';
import { entryHref, instantWords } from '../format.ts';
import { lookingOf } from '../looking.ts';
import { ClockLink } from '../shell/clock-link.tsx';
import { useRows } from '../use-rows.ts';
import type { AddressParameters, ShowAddresses } from './address-parameters.ts';

const ROW_PX = 32;
const KIND_WORDS: readonly [AddressKind, string][] = [
  ['page', 'Pages of entries'],
  ['list', 'Lists and their pages'],
  ['redirect', 'Redirects by hand'],
  ['coming', 'Coming later'],
  ['former', 'Former addresses'],
];

/** All paths as of the clock, narrowed by words, kind and type. */
export function PathTable({
  table,
  types,
  languages,
  shown,
  asked,
  clock,
  show,
}: {
  table: AddressRows;
  types: readonly { key: string; label: string }[];
  /** Those that the site is in besides its own. */
  languages: readonly { id: string; label: string }[];
  shown: AddressParameters;
  /** What is asked for, while what is shown may still be what was asked before. */
  asked: AddressParameters;
  clock: Clock;
  show: ShowAddresses;
}) {
  const of = {
    search: shown.search,
    kind: shown.kind || null,
    type: shown.type || null,
    language: shown.language || null,
  };
  const rows = useRows<AddressRow>('addresses', table, { ...lookingOf(clock), asked: of });
  const all = Object.values(table.counts).reduce((a, b) => a + b, 0);
  return (
    <div className="flex h-full flex-col pt-3">
      <div className="flex flex-wrap gap-2 px-6 pb-2">
        <SearchInput searched={shown.search} onSearch={(search) => show({ search })} />
        <select
          aria-label="Kind of address"
          className="control !w-52"
          value={asked.kind}
          onChange={(e) => show({ kind: e.target.value })}
        >
          <option value="">{`All kinds (${all.toLocaleString('en')})`}</option>
          {KIND_WORDS.map(([kind, label]) => (
            <option key={kind} value={kind}>
              {`${label} (${table.counts[kind].toLocaleString('en')})`}
            </option>
          ))}
        </select>
        <TypeChoice {...{ types, show }} chosen={asked.type} />
        <LanguageChoice {...{ languages, show }} chosen={asked.language} />
      </div>
      {rows.problem !== null && <p className="px-6 pb-1 text-alarm">{rows.problem}</p>}
      <VirtualTable
        label="Addresses"
        columns={columnsFor(clock, show)}
        count={rows.total}
        rowAt={rows.rowAt}
        keyOf={({ kind, path, from }) => `${kind} ${from ?? ''} ${path}`}
        rowHeight={ROW_PX}
        onSee={rows.see}
        listKey={JSON.stringify(of)}
      >
        {rows.total === 0 && (
          <p className="border-t border-rule px-2 py-3 text-muted">
            No address fits. Clear the search, or choose another kind.
          </p>
        )}
      </VirtualTable>
    </div>
  );
}

/** Of which type entries are shown. */
function TypeChoice({
  types,
  chosen,
  show,
}: {
  types: readonly { key: string; label: string }[];
  chosen: string;
  show: ShowAddresses;
}) {
  return (
    <select
      aria-label="Type"
      className="control !w-36"
      value={chosen}
      onChange={(e) => show({ type: e.target.value })}
    >
      <option value="">Of all types</option>
      {types.map(({ key, label }) => (
        <option key={key} value={key}>
          {label}
        </option>
      ))}
    </select>
  );
}

/** In which language paths are shown, where the site is in several. */
function LanguageChoice({
  languages,
  chosen,
  show,
}: {
  languages: readonly { id: string; label: string }[];
  chosen: string;
  show: ShowAddresses;
}) {
  if (languages.length === 0) return null;
  return (
    <select
      aria-label="Language"
      className="control !w-44"
      value={chosen}
      onChange={(e) => show({ language: e.target.value })}
    >
      <option value="">In the site’s language</option>
      {languages.map(({ id, label }) => (
        <option key={id} value={id}>
          {`In ${label}`}
        </option>
      ))}
    </select>
  );
}

/** Words that are looked for once somebody has stopped typing. */
function SearchInput({
  searched,
  onSearch,
}: {
  searched: string;
  onSearch: (search: string) => void;
}) {
  const [search, setSearch] = useState(searched);
  useEffect(() => {
    if (search === searched) return;
    const timer = setTimeout(() => onSearch(search), 250);
    return () => clearTimeout(timer);
  });
  return (
    <input
      aria-label="Search addresses"
      placeholder="Search paths and names"
      className="control !w-44"
      value={search}
      onChange={(e) => setSearch(e.target.value)}
    />
  );
}

function columnsFor(clock: Clock, show: ShowAddresses): VirtualColumn<AddressRow>[] {
  return [
    {
      key: 'path',
      head: 'Path',
      className: 'truncate',
      cell: ({ path, kind }) => (
        <button
          type="button"
          className={`block max-w-full truncate text-left font-mono text-note hover:underline ${IS_SHOWN.has(kind) ? 'text-spruce' : 'text-muted'}`}
          title={path}
          onClick={() => show({ try: path })}
        >
          {path}
        </button>
      ),
    },
    {
      key: 'shows',
      head: 'Shows',
      width: '34%',
      className: 'truncate text-muted',
      cell: (row) => <Shows row={row} clock={clock} />,
    },
    {
      key: 'title',
      head: 'Title',
      headClassName: 'wide-cell',
      width: '30%',
      className: 'wide-cell truncate',
      cell: (row) => <TitleOf row={row} />,
    },
  ];
}

const IS_SHOWN: ReadonlySet<AddressKind> = new Set(['list', 'page']);

function Shows({ row: { shows, from, isNumbered }, clock }: { row: AddressRow; clock: Clock }) {
  return (
    <>
      {shows}
      {isNumbered && ', numbered'}
      {from !== null && (
        <span className="text-amber-text">{`, from ${instantWords(from, clock.zone, clock.now)}`}</span>
      )}
    </>
  );
}

function TitleOf({ row: { entry, listing, title } }: { row: AddressRow }) {
  const href = entry === null ? (listing === null ? null : `/build/listings/${listing}`) : null;
  if (entry === null && href === null) return <span className="text-muted">{title}</span>;
  return (
    <ClockLink href={href ?? entryHref(entry!)} className="text-ink hover:underline">
      {title}
    </ClockLink>
  );
}
