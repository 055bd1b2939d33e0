'use client';

import type { Clock } from '@/server/queries/clock.ts';
import type { LeftOutEntry, Reason } from '@/server/queries/left-out.ts';
import type { ListingOutcome } from '@/server/queries/listing.ts';
import { Table, type TableColumn } from '@/ui/primitives/table.tsx';
import { counted, entryHref, instantWords } from '../format.ts';
import { ClockLink } from '../shell/clock-link.tsx';
import { useClockParameters } from '../shell/use-clock.ts';

const nameColumn = <Row extends { id: string; name: string }>(head: string): TableColumn<Row> => ({
  key: 'name',
  head,
  className: 'font-[550]',
  cell: ({ id, name }) => (
    <ClockLink href={entryHref(id)} className="text-ink hover:underline">
      {name}
    </ClockLink>
  ),
});

const inColumns = ({ zone, now }: Clock): TableColumn<ListingOutcome['entries'][number]>[] => [
  { key: 'place', head: '', className: 'w-8 text-right text-muted', cell: (_, i) => i + 1 },
  nameColumn(''),
  {
    key: 'sorted',
    head: '',
    className: 'text-muted',
    cell: ({ sorted, pinned }) => {
      if (pinned === null) return sorted;
      const { until } = pinned;
      const end = until === null ? '' : ` until ${instantWords(until, zone, now)}`;
      return `stands first${end} · ${sorted}`;
    },
  },
  {
    key: 'path',
    head: '',
    className: 'wide-cell max-w-[200px] truncate text-muted',
    cell: ({ path }) => path,
  },
];

/** Who is in, in order, with page breaks marked. */
export function InSide({ outcome, clock }: { outcome: ListingOutcome; clock: Clock }) {
  if (outcome.entries.length === 0)
    return (
      <p className="p-6 text-muted">
        {outcome.leftOutTotal === 0
          ? 'There are no entries of this type yet; the first one stands here once it is live.'
          : 'Nobody is in at this instant. “Left out” says, entry by entry, why.'}
      </p>
    );
  return (
    <div className="px-6 py-2">
      <Table
        label="In this listing"
        columns={inColumns(clock)}
        rows={outcome.entries}
        keyOf={({ id }) => id}
        groupOf={(_, i) => (i % outcome.pageSize === 0 ? `Page ${i / outcome.pageSize + 1}` : null)}
      />
      {outcome.total > outcome.entries.length && (
        <p className="py-2 text-muted">{`and ${counted(outcome.total - outcome.entries.length, 'more entry', 'more entries')}`}</p>
      )}
    </div>
  );
}

function leftOutColumns(clock: Clock, go: (at: number) => void): TableColumn<LeftOutEntry>[] {
  return [
    nameColumn('Entry'),
    {
      key: 'reasons',
      head: 'Out because it fails',
      cell: ({ reasons, isPinned }) => (
        <>
          {reasons.map((reason) => (
            <ReasonLine key={reason.words} reason={reason} />
          ))}
          {isPinned && <p className="text-muted">It has a pin: once it is in, it stands first.</p>}
        </>
      ),
    },
    {
      key: 'appears',
      head: <span className="sr-only">When it comes in</span>,
      className: 'text-right whitespace-nowrap',
      cell: ({ appears }) =>
        appears !== null && (
          <button
            type="button"
            className="button-quiet !text-amber-text"
            title="Look at that instant"
            onClick={() => go(appears)}
          >
            {`Appears ${instantWords(appears, clock.zone, clock.now)}`}
          </button>
        ),
    },
  ];
}

/** Who is left out, near misses first, with what keeps each out. */
export function LeftOutSide({
  outcome,
  clock,
  find,
  onFind,
}: {
  outcome: ListingOutcome;
  clock: Clock;
  find: string;
  onFind: (name: string) => void;
}) {
  const { set } = useClockParameters();
  if (outcome.leftOutTotal === 0)
    return (
      <p className="p-6 text-muted">
        {outcome.total === 0
          ? 'There are no entries of this type yet.'
          : 'Every entry of the type is in.'}
      </p>
    );
  return (
    <div className="px-6 py-3">
      <ul className="mb-2 flex flex-wrap gap-x-4 text-muted">
        {outcome.counts.map(({ words, count }) => (
          <li key={words}>{`${count} × ${words}`}</li>
        ))}
      </ul>
      {outcome.lookedAt !== null && (
        <p className="mb-2 text-muted">{`Reasons are counted for the first ${outcome.lookedAt.toLocaleString('en')} entries; find others by name.`}</p>
      )}
      <input
        aria-label="Find an entry"
        placeholder="Find an entry"
        className="control mb-2 !w-64"
        value={find}
        onChange={(e) => onFind(e.target.value)}
      />
      <Table
        label="Left out"
        columns={leftOutColumns(clock, (at) => set({ at }))}
        rows={outcome.leftOut}
        keyOf={({ id }) => id}
      />
      {outcome.leftOut.length === 0 && (
        <p className="py-2 text-muted">{`Nobody left out is called “${find}”.`}</p>
      )}
      {outcome.leftOut.length > 0 &&
        find === '' &&
        outcome.leftOutTotal > outcome.leftOut.length && (
          <p className="py-2 text-muted">{`and ${counted(outcome.leftOutTotal - outcome.leftOut.length, 'more', 'more')}`}</p>
        )}
    </div>
  );
}

/** What keeps an entry out; a condition can be gone to. */
function ReasonLine({ reason }: { reason: Reason }) {
  const go = (): void => {
    const line = document.querySelectorAll<HTMLElement>('[data-condition]')[reason.condition ?? -1];
    line?.scrollIntoView({ block: 'center' });
    line?.querySelector<HTMLElement>('select, input')?.focus();
  };
  if (reason.condition === null) return <p>{reason.words}</p>;
  return (
    <p>
      <button
        type="button"
        className="text-left text-spruce hover:underline"
        title="Change this condition"
        onClick={go}
      >
        {reason.words}
      </button>
      {reason.actual !== null && <span className="text-muted">{`; ${reason.actual}`}</span>}
    </p>
  );
}
