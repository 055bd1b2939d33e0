'use client';

import { useRouter } from 'next/navigation';
import { useEffect, useState } from 'react';
import type { Clock } from '@/server/queries/clock.ts';
import type { ContentTable } from '@/server/queries/content.ts';
import { counted, dayWords, entryHref } from '../format.ts';
import { ClockLink } from '../shell/clock-link.tsx';
import { useClockParameters } from '../shell/use-clock.ts';
import { LifeBar, type LifeScale, lifeScale } from './life-bar.tsx';

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
}: {
  table: ContentTable;
  clock: Clock;
  filters: { type?: string | undefined; search?: string | undefined; state?: string | undefined };
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
  const filtered = Boolean(filters.search || filters.state);
  return (
    <main data-area tabIndex={-1} className="flex min-h-0 flex-1 flex-col">
      <div className="flex flex-wrap items-center gap-3 px-6 py-3">
        <h1 className="mr-2">Content</h1>
        <select
          aria-label="Type"
          className="control !w-auto"
          value={filters.type ?? ''}
          onChange={(e) => go({ type: e.target.value })}
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
          onChange={(e) => go({ state: e.target.value })}
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
          onChange={(e) => setSearch(e.target.value)}
        />
        <span className="text-muted">{counted(table.total, 'entry', 'entries')}</span>
        <NewEntry table={table} type={filters.type} />
      </div>
      <div className="min-h-0 flex-1 overflow-auto px-4">
        <ContentRows table={table} scale={scale} zone={clock.zone} showsType={type === undefined} />
        {table.rows.length === 0 && (
          <p className="border-t border-rule px-2 py-3 text-muted">
            {filtered
              ? 'No entry fits. Clear the search or choose another state.'
              : `No ${type ? type.label.toLowerCase() : 'entries'} yet. They are what your types become; write the first with “New”.`}
          </p>
        )}
        {table.total > table.rows.length && (
          <p className="px-2 py-3 text-muted">{`The first ${table.rows.length} of ${table.total}; search or filter for others.`}</p>
        )}
      </div>
    </main>
  );
}

function ContentRows({
  table,
  scale,
  zone,
  showsType,
}: {
  table: ContentTable;
  scale: LifeScale;
  zone: string;
  showsType: boolean;
}) {
  return (
    <table className="table">
      <thead className="sticky top-0 z-10 bg-paper">
        <tr>
          <th scope="col">Name</th>
          {showsType && <th scope="col">Type</th>}
          {table.columns.map((c) => (
            <th key={c.key} scope="col" className={c.numeric ? '!text-right' : ''}>
              {c.label}
            </th>
          ))}
          <th scope="col">State</th>
          <th scope="col" className="w-[260px]">
            <span className="flex justify-between">
              <span>{dayWords(scale.from, zone)}</span>
              <span>{dayWords(scale.to, zone)}</span>
            </span>
          </th>
          <th scope="col">Address</th>
        </tr>
      </thead>
      <tbody>
        {table.rows.map((row) => (
          <tr key={row.id}>
            <td className="max-w-[280px] truncate font-[550]">
              <ClockLink href={entryHref(row.id)} className="text-ink hover:underline">
                {row.name}
              </ClockLink>
            </td>
            {showsType && <td className="whitespace-nowrap text-muted">{row.typeLabel}</td>}
            {table.columns.map((c) => (
              <td key={c.key} className={`max-w-[160px] truncate ${c.numeric ? 'text-right' : ''}`}>
                {row.cells[c.key]}
              </td>
            ))}
            <td
              className={`whitespace-nowrap ${row.state === 'scheduled' ? 'text-amber-text' : ''}`}
            >
              {row.state}
            </td>
            <td>
              <LifeBar spans={row.spans} scale={scale} />
            </td>
            <td className="max-w-[280px] truncate text-muted">{row.path ?? ''}</td>
          </tr>
        ))}
      </tbody>
    </table>
  );
}

function NewEntry({ table, type }: { table: ContentTable; type: string | undefined }) {
  const router = useRouter();
  const { keep } = useClockParameters();
  if (type !== undefined) {
    return (
      <ClockLink
        href={`/build/content/new/${type}`}
        className="button button-main ml-auto flex items-center no-underline !text-white"
      >
        New
      </ClockLink>
    );
  }
  return (
    <select
      aria-label="New entry of a type"
      className="button button-main ml-auto"
      value=""
      onChange={(e) => e.target.value && router.push(keep(`/build/content/new/${e.target.value}`))}
    >
      <option value="">New …</option>
      {table.counts.map((c) => (
        <option key={c.type} value={c.type}>
          {c.label}
        </option>
      ))}
    </select>
  );
}
