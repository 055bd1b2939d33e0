'use client';

import { useRouter } from 'next/navigation';
import { useEffect, useState } from 'react';
import type { AddressTable, TriedAddress } from '@/server/queries/addresses.ts';
import type { Clock } from '@/server/queries/clock.ts';
import { Table, type TableColumn } from '@/ui/primitives/table.tsx';
import { counted, entryHref, instantWords } from '../format.ts';
import { Panes } from '../panes.tsx';
import { PreviewFrame } from '../preview-frame.tsx';
import { ClockLink } from '../shell/clock-link.tsx';
import { useClockParameters } from '../shell/use-clock.ts';

/** Every path as of the clock; any address can be tried, with the steps to its outcome. */
export function AddressesScreen({
  table,
  search: searched,
  answer,
  clock,
}: {
  table: AddressTable;
  search: string;
  answer: TriedAddress | null;
  clock: Clock;
}) {
  const router = useRouter();
  const { keep } = useClockParameters();
  const { pages, total, former, formerTotal } = table;
  const [search, setSearch] = useState(searched);
  const show = (change: { try?: string; search?: string }): void => {
    const query = new URLSearchParams(
      Object.entries({ try: answer?.path, search, ...change }).filter((e): e is [string, string] =>
        Boolean(e[1]),
      ),
    );
    router.replace(keep(`/build/addresses?${query}`), { scroll: false });
  };
  const tryPath = (path: string): void => show({ try: path });
  useEffect(() => {
    if (search === searched) return;
    const timer = setTimeout(() => show({ search }), 250);
    return () => clearTimeout(timer);
  });
  const more = total + formerTotal - pages.length - former.length;
  const when =
    clock.tense === 'now' ? 'now' : `at ${instantWords(clock.at, clock.zone, clock.now)}`;
  const found = searched === '' ? '' : ` with “${searched}”`;
  const others = formerTotal > 0 ? formerWords(formerTotal) : '';
  return (
    <Panes
      problem={clock.problem}
      title="Addresses"
      lead={`${counted(total, 'page')}${found} ${when}${others}`}
      settings={
        <>
          <input
            aria-label="Search addresses"
            placeholder="Search paths and names"
            className="control mb-2 !w-64"
            value={search}
            onChange={(e) => setSearch(e.target.value)}
          />
          <AddressRows table={table} onTry={tryPath} />
          {pages.length + former.length === 0 && (
            <p className="border-t border-rule py-2 text-muted">
              No address fits. Clear the search.
            </p>
          )}
          {more > 0 && (
            <p className="py-2 text-muted">{`and ${counted(more, 'more', 'more')}; search for others`}</p>
          )}
        </>
      }
      outcome={
        <>
          <TryForm key={answer?.path} path={answer?.path ?? '/'} onTry={tryPath} />
          {answer === null ? (
            <p className="p-6 text-muted">
              Type an address, or press one in the table, to see step by step where it leads and
              why.
            </p>
          ) : (
            <Trace answer={answer} at={clock.at} />
          )}
        </>
      }
    />
  );
}

/** A path with what it shows, or where it leads. */
interface AddressRow {
  path: string;
  shows: string;
  /** Title of what it shows, or the place it leads to. */
  title: string;
  /** The screen of what it shows; null for former addresses. */
  href: string | null;
}

function rowsOf({ pages, former }: AddressTable): AddressRow[] {
  return [
    ...pages.map(({ path, shows, title, entry, listing }) => ({
      path,
      shows,
      title,
      href: entry === null ? `/build/listings/${listing ?? ''}` : entryHref(entry),
    })),
    ...former.map(({ path, status, location }) => ({
      path,
      shows: status === 410 ? 'Gone' : 'Leads to',
      title: location ?? '',
      href: null,
    })),
  ];
}

/** Paths that show something, then those that lead elsewhere or are gone. */
function AddressRows({ table, onTry }: { table: AddressTable; onTry: (path: string) => void }) {
  const columns: TableColumn<AddressRow>[] = [
    {
      key: 'path',
      head: 'Path',
      className: 'max-w-[300px] truncate',
      cell: ({ path, href }) => (
        <button
          type="button"
          className={`block max-w-full truncate text-left font-mono text-note hover:underline ${href === null ? 'text-muted' : 'text-spruce'}`}
          title={path}
          onClick={() => onTry(path)}
        >
          {path}
        </button>
      ),
    },
    {
      key: 'shows',
      head: 'Shows',
      className: 'whitespace-nowrap text-muted',
      cell: ({ shows }) => shows,
    },
    {
      key: 'title',
      head: 'Title',
      headClassName: 'wide-cell',
      className: 'wide-cell max-w-[200px] truncate',
      cell: ({ title, href }) =>
        href === null ? (
          <span className="text-muted">{title}</span>
        ) : (
          <ClockLink href={href} className="text-ink hover:underline">
            {title}
          </ClockLink>
        ),
    },
  ];
  return (
    <Table
      label="Addresses"
      columns={columns}
      rows={rowsOf(table)}
      keyOf={({ path, href }) => `${href === null} ${path}`}
    />
  );
}

function TryForm({ path: tried, onTry }: { path: string; onTry: (path: string) => void }) {
  const [path, setPath] = useState(tried);
  return (
    <form
      className="flex items-end gap-2 border-b border-rule px-6 py-3"
      onSubmit={(event) => {
        event.preventDefault();
        onTry(path.trim());
      }}
    >
      <label className="min-w-0 flex-1 text-note text-muted">
        Try an address
        <input
          className="control font-mono !text-table text-ink"
          spellCheck={false}
          value={path}
          onChange={(e) => setPath(e.target.value)}
        />
      </label>
      <button type="submit" className="button button-main">
        Try
      </button>
    </form>
  );
}

function Trace({ answer, at }: { answer: TriedAddress; at: number }) {
  const outcome =
    answer.status === null
      ? ''
      : answer.location === null
        ? {
            200: 'shows its page',
            404: 'nothing there: 404',
            410: 'gone: 410',
            400: 'not an address: 400',
          }[answer.status]
        : `leads to ${answer.location} (${answer.status})`;
  return (
    <div className="flex min-h-0 flex-1 flex-col">
      <ol className="px-6 py-3">
        {answer.steps.map((step, i) => (
          <li
            key={i}
            className={`grid grid-cols-[136px_minmax(0,1fr)] gap-2 py-0.5 ${step.matched ? 'font-semibold' : 'text-muted'}`}
          >
            <span>{step.step}</span>
            <span className="break-words">{step.words}</span>
          </li>
        ))}
        <li className="grid grid-cols-[136px_minmax(0,1fr)] gap-2 border-t border-spruce py-1 font-semibold">
          <span>outcome</span>
          <span className="[overflow-wrap:anywhere]">
            {answer.status === null ? 'not a page of the public site' : `${answer.path} ${outcome}`}
          </span>
        </li>
        {answer.drawn !== null && (
          <li className="grid grid-cols-[136px_minmax(0,1fr)] gap-2 py-0.5 text-muted">
            <span>drawn by</span>
            <span>{answer.drawn}</span>
          </li>
        )}
      </ol>
      {answer.html !== null && answer.location === null && (
        <PreviewFrame
          html={answer.html}
          title="Page at this address"
          first={`${answer.path} · ${answer.status}`}
          at={at}
        />
      )}
    </div>
  );
}

function formerWords(count: number): string {
  return `, ${counted(count, 'former address', 'former addresses')}`;
}
