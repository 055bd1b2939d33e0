'use client';

import type { AddressClash, AddressClashes } from '@/server/queries/address-clashes.ts';
import type { Clock } from '@/server/queries/clock.ts';
import { Table } from '@/ui/primitives/table.tsx';
import { counted, entryHref, instantWords } from '../format.ts';
import { ClockLink } from '../shell/clock-link.tsx';

/** Addresses that could not be had, over all of time, and those that were numbered. */
export function ClashLines({ clashes, clock }: { clashes: AddressClashes; clock: Clock }) {
  const { refused, refusedTotal, numbered, numberedTotal } = clashes;
  if (refusedTotal + numberedTotal === 0)
    return (
      <p className="px-6 py-3 text-muted">
        No two entries want one address, at any time. Those that do stand here, with what each has
        in its place.
      </p>
    );
  return (
    <div className="flex flex-col gap-4 px-6 py-3">
      {refusedTotal > 0 && (
        <section>
          <h2 className="mb-1">Could not be had</h2>
          <Clashes
            {...{ clashes: refused, total: refusedTotal, clock }}
            label="Refused addresses"
          />
        </section>
      )}
      {numberedTotal > 0 && (
        <section>
          <h2 className="mb-1">Numbered</h2>
          <Clashes
            {...{ clashes: numbered, total: numberedTotal, clock }}
            label="Numbered addresses"
          />
        </section>
      )}
    </div>
  );
}

function Clashes({
  clashes,
  total,
  clock,
  label,
}: {
  clashes: readonly AddressClash[];
  total: number;
  clock: Clock;
  label: string;
}) {
  return (
    <>
      <Table
        label={label}
        rows={clashes}
        keyOf={({ entry, at, path }) => `${entry} ${at} ${path ?? ''}`}
        columns={[
          {
            key: 'name',
            head: 'Entry',
            className: 'font-[550]',
            cell: ({ entry, name }) => (
              <ClockLink href={entryHref(entry)} className="text-ink hover:underline">
                {name}
              </ClockLink>
            ),
          },
          {
            key: 'what',
            head: 'What came of it',
            cell: ({ words, fix, base, path }) =>
              words === '' ? (
                <span className="font-mono text-note [overflow-wrap:anywhere]">{`${path ?? ''} for ${base ?? ''}`}</span>
              ) : (
                <>
                  {words} <span className="text-muted">{fix}</span>
                </>
              ),
          },
          {
            key: 'at',
            head: 'From',
            className: 'whitespace-nowrap',
            cell: ({ at }) => (
              <span className={at > clock.now ? 'text-amber-text' : 'text-muted'}>
                {instantWords(at, clock.zone, clock.now)}
              </span>
            ),
          },
        ]}
      />
      {total > clashes.length && (
        <p className="py-2 text-muted">{`and ${counted(total - clashes.length, 'older one')}`}</p>
      )}
    </>
  );
}
