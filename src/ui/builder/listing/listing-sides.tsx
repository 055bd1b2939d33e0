'use client';

import { Fragment, useState } from 'react';
import type { Clock } from '@/server/queries/clock.ts';
import type { ListingOutcome } from '@/server/queries/listing.ts';
import { counted, instantWords } from '../format.ts';
import { ClockLink } from '../shell/clock-link.tsx';
import { useClockParameters } from '../shell/use-clock.ts';

/** Who is in, in order, with page breaks marked. */
export function InSide({ outcome }: { outcome: ListingOutcome }) {
  if (outcome.entries.length === 0) return <p className="p-6 text-muted">Nobody is in at this instant. “Left out” says, entry by entry, why.</p>;
  return (
    <div className="px-6 py-2">
      <table className="table">
        <tbody>
          {outcome.entries.map((entry, i) => (
            <Fragment key={entry.id}>
              {i % outcome.pageSize === 0 && (
                <tr>
                  <th colSpan={4} scope="rowgroup" className="!pt-3">{`Page ${i / outcome.pageSize + 1}`}</th>
                </tr>
              )}
              <tr>
                <td className="w-8 text-right text-muted">{i + 1}</td>
                <td className="font-[550]">
                  <ClockLink href={`/build/content/${entry.id}`} className="text-ink hover:underline">
                    {entry.name}
                  </ClockLink>
                </td>
                <td className="text-muted">{entry.sorted}</td>
                <td className="max-w-[200px] truncate text-muted">{entry.path}</td>
              </tr>
            </Fragment>
          ))}
        </tbody>
      </table>
      {outcome.total > outcome.entries.length && <p className="py-2 text-muted">{`and ${counted(outcome.total - outcome.entries.length, 'more entry', 'more entries')}`}</p>}
    </div>
  );
}

/** Who is left out, near misses first, with what keeps each out. */
export function LeftOutSide({ outcome, clock }: { outcome: ListingOutcome; clock: Clock }) {
  const [search, setSearch] = useState('');
  const { set } = useClockParameters();
  const found = outcome.leftOut.filter((e) => e.name.toLowerCase().includes(search.toLowerCase()));
  if (outcome.leftOutTotal === 0) return <p className="p-6 text-muted">Every entry of the type is in.</p>;
  return (
    <div className="px-6 py-3">
      <ul className="mb-2 flex flex-wrap gap-x-4 text-muted">
        {outcome.counts.map(({ words, count }) => (
          <li key={words}>{`${count} × ${words}`}</li>
        ))}
      </ul>
      <input aria-label="Find an entry" placeholder="Find an entry" className="control mb-2 !w-64" value={search} onChange={(e) => setSearch(e.target.value)} />
      <table className="table">
        <thead>
          <tr>
            <th scope="col">Entry</th>
            <th scope="col">Out because it fails</th>
          </tr>
        </thead>
        <tbody>
          {found.map((entry) => (
            <tr key={entry.id}>
              <td className="font-[550]">
                <ClockLink href={`/build/content/${entry.id}`} className="text-ink hover:underline">
                  {entry.name}
                </ClockLink>
              </td>
              <td>
                {entry.reasons.join('; ')}
                {entry.appears !== null && (
                  <button type="button" className="button-quiet text-amber-text" onClick={() => set({ at: entry.appears })}>
                    {`Appears ${instantWords(entry.appears, clock.zone, clock.now)}`}
                  </button>
                )}
              </td>
            </tr>
          ))}
        </tbody>
      </table>
      {found.length === 0 && <p className="py-2 text-muted">{`Nobody left out is called “${search}”.`}</p>}
    </div>
  );
}
