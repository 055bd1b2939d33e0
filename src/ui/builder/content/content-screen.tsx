'use client';

import { useMemo } from 'react';
import type { Clock } from '@/server/queries/clock.ts';
import type { ContentFilters } from '@/core/content/filters.ts';
import type { ContentRow, ContentTable } from '@/server/queries/content.ts';
import { type VirtualColumn, VirtualTable } from '@/ui/primitives/virtual-table.tsx';
import { BulkBar } from './bulk-bar.tsx';
import { contentHeads } from './content-columns.tsx';
import { ContentFilterBar } from './content-filters.tsx';
import { DeletedLine } from './deleted-line.tsx';
import { lifeScale } from './life-bar.tsx';
import { type Chosen, useChosen } from './use-chosen.ts';
import { useLanguageNames } from '../site-languages.ts';
import { useBulkChanges } from './use-bulk-changes.ts';
import { useAddressBar } from '../use-address-bar.ts';
import { useRows } from '../use-rows.ts';

/** Heights of rows, px: the second where each shows the words that were searched for. */
const ROW_PX = 32;
const HIT_PX = 48;

const NO_FILTERS: ContentFilters = {
  type: undefined,
  search: undefined,
  state: undefined,
  where: undefined,
  sort: undefined,
};

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
  const { at, now, zone, tense } = clock;
  const [asked, go] = useAddressBar(filters, contentHref);
  const rows = useRows<ContentRow>('rows', table, { at, filters });
  const listKey = JSON.stringify(filters);
  const chosen = useChosen(listKey, rows);
  const bulk = useBulkChanges();
  const moves = table.position !== null && tense !== 'past';
  const move = (entry: string, index: number): void =>
    bulk.move(entry, table.position!, rows.rowAt(index)?.id ?? null);
  const scale = useMemo(() => lifeScale(at, now, zone), [at, now, zone]);
  const languages = useLanguageNames();
  const hasHits = (filters.search ?? '').trim() !== '';
  const type = table.counts.find((c) => c.type === filters.type);
  const sort = filters.sort ?? (hasHits ? null : '-@saved');
  return (
    <main data-area tabIndex={-1} className="flex min-h-0 flex-1 flex-col">
      <ContentFilterBar
        table={table}
        filters={asked}
        total={rows.total}
        onFilter={go}
        onTake={(taken) => go({ ...NO_FILTERS, ...taken })}
      />
      {deleted && <DeletedLine deleted={deleted} />}
      {tense === 'past' && (hasHits || filters.where) && (
        <p className="px-6 pb-1 text-amber-text">
          Searches and conditions go by what is written now; the rows show what was saved by then.
        </p>
      )}
      {rows.problem !== null && <p className="px-6 pb-1 text-alarm">{rows.problem}</p>}
      <VirtualTable
        label="Content"
        columns={[
          chosenColumn(chosen, rows.total),
          ...contentHeads({
            ...{ table, scale, zone, languages, sort, now },
            total: rows.total,
            onMove: moves ? move : null,
            onSave: tense === 'past' ? null : bulk.saveCell,
            showsType: type === undefined,
            onSort: (next) => go({ sort: next }),
          }),
        ]}
        count={rows.total}
        rowAt={rows.rowAt}
        keyOf={({ id }) => id}
        rowHeight={hasHits ? HIT_PX : ROW_PX}
        onSee={rows.see}
        isChosen={chosen.isChosen}
        onDrop={moves ? move : undefined}
        listKey={listKey}
      >
        {rows.total === 0 && <Nothing filters={filters} type={type?.label} />}
      </VirtualTable>
      <BulkBar {...{ chosen, filters, clock, bulk }} total={rows.total} />
    </main>
  );
}

/** Why there is no row, and what to do. */
function Nothing({ filters, type }: { filters: ContentFilters; type: string | undefined }) {
  const isNarrowed = filters.search || filters.state || filters.where;
  return (
    <p className="border-t border-rule px-2 py-3 text-muted">
      {isNarrowed
        ? 'No entry fits. Clear the search or the conditions, or choose another state.'
        : `No ${type ? `entries of “${type}”` : 'entries'} yet. They are what your types become; write the first with “New”.`}
    </p>
  );
}

/** Ticks rows for something to be done to them; Shift ticks all from the last one on. */
function chosenColumn(chosen: Chosen, total: number): VirtualColumn<ContentRow> {
  return {
    key: 'chosen',
    width: '32px',
    head: (
      <input
        type="checkbox"
        aria-label="Choose all that match"
        checked={chosen.all}
        disabled={total === 0}
        onChange={() => chosen.chooseAll(!chosen.all)}
      />
    ),
    cell: (row, index) => (
      <input
        type="checkbox"
        aria-label={`Choose ${row.name}`}
        checked={chosen.isChosen(row)}
        onClick={(e) => chosen.choose(index, !chosen.isChosen(row), e.shiftKey)}
        onChange={() => undefined}
      />
    ),
  };
}

/** Where the table is seen with such filters. */
function contentHref({ where, ...texts }: ContentFilters): string {
  const query = new URLSearchParams(
    Object.entries(texts).filter((e): e is [string, string] => Boolean(e[1])),
  );
  if (where) query.set('where', JSON.stringify(where));
  return `/build/content?${query}`;
}
