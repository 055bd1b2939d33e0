'use client';

import { useRouter } from 'next/navigation';
import { useEffect, useState } from 'react';
import type { Clock } from '@/server/queries/clock.ts';
import type { ContentFilters, ContentRow, ContentTable } from '@/server/queries/content.ts';
import { Table, type TableColumn } from '@/ui/primitives/table.tsx';
import { counted, dayWords, entryHref } from '../format.ts';
import { ClockLink } from '../shell/clock-link.tsx';
import { useClockParameters } from '../shell/use-clock.ts';
import { DeletedLine } from './deleted-line.tsx';
import { LifeBar, LifeHead, type LifeScale, lifeScale } from './life-bar.tsx';
import { NewMenu } from './new-menu.tsx';

const STATES = [
  'draft',
  'scheduled',
  'live',
  'live with newer draft',
  'retired',
  'not yet written',
];

/** One table for all types: what there is, and its state as of the clock. */
export function ContentScreen({
  table,
  clock,
  filters,
  deleted,
}: {
  table: ContentTable;
  clock: Clock;
  filters: ContentFilters;
  /** An entry that was just deleted, with its name. */
  deleted: { id: string; name: string } | null;
}) {
  const router = useRouter();
  const { keep } = useClockParameters();
  const [search, setSearch] = useState(filters.search ?? '');
  const scale = lifeScale(clock.at, clock.now, clock.zone);
  const go = (change: Partial<typeof filters>): void => {
    const query = new URLSearchParams(
      Object.entries({ ...filters, search, ...change }).filter((e): e is [string, string] =>
        Boolean(e[1]),
      ),
    );
    router.replace(keep(`/build/content?${query}`), { scroll: false });
  };
  useEffect(() => {
    if (search === (filters.search ?? '')) return;
    const timer = setTimeout(() => go({ search }), 250);
    return () => clearTimeout(timer);
  });
  const type = table.counts.find((c) => c.type === filters.type);
  return (
    <main data-area tabIndex={-1} className="flex min-h-0 flex-1 flex-col">
      <Filters table={table} filters={filters} search={search} onSearch={setSearch} onFilter={go} />
      {deleted && <DeletedLine deleted={deleted} />}
      <div className="min-h-0 flex-1 overflow-auto px-4">
        <ContentRows
          table={table}
          scale={scale}
          zone={clock.zone}
          showsType={type === undefined}
          sort={filters.sort ?? 'saved'}
          onSort={(sort) => go({ sort })}
        />
        {table.rows.length === 0 && (
          <p className="border-t border-rule px-2 py-3 text-muted">
            {filters.search || filters.state
              ? 'No entry fits. Clear the search or choose another state.'
              : `No ${type ? `entries of “${type.label}”` : 'entries'} yet. They are what your types become; write the first with “New”.`}
          </p>
        )}
        {table.total > table.rows.length && (
          <p className="px-2 py-3 text-muted">{`The first ${table.rows.length} of ${table.total}; search or filter for others.`}</p>
        )}
      </div>
    </main>
  );
}

function Filters({
  table,
  filters,
  search,
  onSearch,
  onFilter,
}: {
  table: ContentTable;
  filters: ContentFilters;
  search: string;
  onSearch: (words: string) => void;
  onFilter: (change: ContentFilters) => void;
}) {
  return (
    <div className="flex flex-wrap items-center gap-3 px-6 py-3">
      <h1 className="mr-2">Content</h1>
      <select
        aria-label="Type"
        className="control !w-auto"
        value={filters.type ?? ''}
        onChange={(e) => onFilter({ type: e.target.value })}
      >
        <option value="">All types ({table.counts.reduce((n, c) => n + c.count, 0)})</option>
        {table.counts.map((c) => (
          <option key={c.type} value={c.type}>{`${c.label} (${c.count})`}</option>
        ))}
      </select>
      <select
        aria-label="State"
        className="control !w-auto"
        value={filters.state ?? ''}
        onChange={(e) => onFilter({ state: e.target.value })}
      >
        <option value="">Any state</option>
        {STATES.map((s) => (
          <option key={s}>{s}</option>
        ))}
      </select>
      <input
        aria-label="Search by name"
        placeholder="Search by name"
        className="control !w-56"
        value={search}
        onChange={(e) => onSearch(e.target.value)}
      />
      <span className="text-muted">{counted(table.total, 'entry', 'entries')}</span>
      <NewMenu types={table.counts} type={filters.type} />
    </div>
  );
}

interface RowsProps {
  table: ContentTable;
  scale: LifeScale;
  zone: string;
  showsType: boolean;
  sort: string;
  onSort: (sort: string) => void;
}

function ContentRows(props: RowsProps) {
  return (
    <Table
      label="Content"
      sticky
      columns={[...nameColumns(props), ...valueColumns(props.table), ...stateColumns(props)]}
      rows={props.table.rows}
      keyOf={({ id }) => id}
    />
  );
}

function nameColumns({ showsType, sort, onSort }: RowsProps): Head[] {
  const name: Head = {
    key: 'name',
    ...sortable('name', 'Name', 'ascending', { sort, onSort }),
    className: 'max-w-[280px] truncate font-[550]',
    cell: ({ id, name: words }) => (
      <ClockLink href={entryHref(id)} className="text-ink hover:underline">
        {words}
      </ClockLink>
    ),
  };
  return showsType ? [name, TYPE_COLUMN] : [name];
}

/** The fields of a type that stand in the table. */
function valueColumns({ columns }: ContentTable): Head[] {
  return columns.map(({ key, label, numeric }) => ({
    key: `field ${key}`,
    head: label,
    headClassName: numeric ? '!text-right' : '',
    className: `max-w-[160px] truncate ${numeric ? 'text-right' : ''}`,
    cell: ({ cells }) => cells[key],
  }));
}

function stateColumns({ scale, zone, sort, onSort }: RowsProps): Head[] {
  return [
    {
      key: 'state',
      head: 'State',
      className: 'whitespace-nowrap',
      cell: ({ state }) => (
        <span className={state === 'scheduled' ? 'text-amber-text' : ''}>{state}</span>
      ),
    },
    {
      key: 'life',
      head: <LifeHead scale={scale} zone={zone} />,
      headClassName: 'wide-cell w-[260px]',
      className: 'wide-cell',
      cell: ({ spans, created }) => <LifeBar spans={spans} created={created} scale={scale} />,
    },
    {
      key: 'address',
      head: 'Address',
      headClassName: 'wide-cell',
      className: 'wide-cell max-w-[280px] truncate text-muted',
      cell: ({ path }) => path ?? '',
    },
    {
      key: 'saved',
      ...sortable('saved', 'Saved', 'descending', { sort, onSort }),
      className: 'whitespace-nowrap text-muted',
      cell: ({ saved }) => dayWords(saved, zone),
    },
  ];
}

/** The head of a column that orders the table. */
function sortable(
  column: string,
  label: string,
  first: Order,
  { sort, onSort }: Pick<RowsProps, 'sort' | 'onSort'>,
): Pick<Head, 'head' | 'sort'> {
  return {
    head: <SortButton column={column} label={label} sort={sort} first={first} onSort={onSort} />,
    sort: orderOf(sort, column, first),
  };
}

type Head = TableColumn<ContentRow>;
type Order = 'ascending' | 'descending';

const TYPE_COLUMN: Head = {
  key: 'type',
  head: 'Type',
  className: 'whitespace-nowrap text-muted',
  cell: ({ typeLabel }) => typeLabel,
};

/** How rows are ordered by a column, of which `first` is the order that comes without a "-". */
function orderOf(sort: string, column: string, first: Order): Order | 'none' {
  if (sort === column) return first;
  if (sort !== `-${column}`) return 'none';
  return first === 'ascending' ? 'descending' : 'ascending';
}

/** A column's head that orders the table by it; pressed again, the other way round. */
function SortButton({
  column,
  label,
  sort,
  first,
  onSort,
}: {
  column: string;
  label: string;
  sort: string;
  first: Order;
  onSort: (sort: string) => void;
}) {
  const order = orderOf(sort, column, first);
  const arrow = { ascending: ' ↑', descending: ' ↓', none: '' }[order];
  return (
    <button
      type="button"
      className={order === 'none' ? '' : 'font-semibold text-ink'}
      onClick={() => onSort(sort === column ? `-${column}` : column)}
    >
      {label}
      <span aria-hidden>{arrow}</span>
    </button>
  );
}
