'use client';

import type { Part } from '@/core/design-edit/parts.ts';
import type { Clock } from '@/server/queries/clock.ts';
import { Issues, SaidLine } from '@/ui/primitives/issues.tsx';
import { Table, type TableColumn } from '@/ui/primitives/table.tsx';
import { counted } from '../format.ts';
import { useDesignReadOnly } from '../rights.tsx';
import { command } from '../send.ts';
import { toldOnBench } from '../type/told-on-bench.ts';
import { type Attempts, useAttempts } from '../use-attempts.ts';
import { type AddressParameters, type ShowAddresses, addressesHref } from './address-parameters.ts';
import { NewRedirect } from './new-redirect.tsx';
import { RedirectCsv } from './redirect-csv.tsx';
import type { RedirectShown } from './redirect-shown.ts';

const HERE = addressesHref({ tab: 'redirects' });

/** Redirects set by hand: all that there are, new ones, and CSV in and out. */
export function RedirectLines({
  redirects,
  shown,
  clock,
  show,
}: {
  redirects: readonly RedirectShown[];
  shown: AddressParameters;
  clock: Clock;
  show: ShowAddresses;
}) {
  const attempts = useAttempts();
  const readOnly = useDesignReadOnly(clock);
  const remove = removing(redirects, attempts);
  return (
    <div className="px-6 py-3">
      <SaidLine said={attempts.said} />
      <Issues issues={attempts.issues} title="Not done" answers />
      {!readOnly && (
        <NewRedirect
          key={`${shown.from} ${shown.to}`}
          {...{ shown, clock, attempts, here: HERE }}
          onDone={() => show({ from: '', to: '' })}
        />
      )}
      {redirects.length === 0 ? (
        <p className="py-2 text-muted">
          No redirect is set by hand. Entries whose addresses change are led on by themselves; what
          stood elsewhere before is led on from here.
        </p>
      ) : (
        <Table
          label="Redirects"
          rows={redirects}
          keyOf={({ id }) => id}
          columns={columnsFor(readOnly ? null : remove, (path) => show({ try: path }))}
        />
      )}
      <RedirectCsv {...{ redirects, clock, readOnly, attempts, here: HERE }} />
    </div>
  );
}

function removing(
  redirects: readonly RedirectShown[],
  { attempt }: Attempts,
): (id: string) => void {
  return (id) => {
    const at = redirects.findIndex((one) => one.id === id);
    const { hits: _, ...was } = redirects[at]!;
    const step = {
      do: 'remove',
      part: `redirects/${id}`,
      was: was as unknown as Part & { id: string },
      within: '',
      list: 'redirects',
      after: redirects[at - 1]?.id ?? null,
    } as const;
    const told = toldOnBench(attempt, { to: HERE, from: HERE });
    void attempt(() => command('editDesign', { steps: [step] }), told);
  };
}

function columnsFor(
  remove: ((id: string) => void) | null,
  onTry: (path: string) => void,
): TableColumn<RedirectShown>[] {
  return [
    {
      key: 'from',
      head: 'From',
      className: 'font-mono text-note [overflow-wrap:anywhere]',
      cell: ({ from, prefix }) => (
        <button
          type="button"
          className="text-left text-spruce hover:underline"
          onClick={() => onTry(from)}
        >
          {from}
          {prefix && <span className="font-sans text-muted"> and all below</span>}
        </button>
      ),
    },
    {
      key: 'to',
      head: 'Leads to',
      className: 'font-mono text-note [overflow-wrap:anywhere]',
      cell: ({ to, status }) => (
        <>
          {to} <span className="font-sans text-muted">{status === 308 ? '' : `(${status})`}</span>
        </>
      ),
    },
    {
      key: 'hits',
      head: 'Led on',
      className: 'whitespace-nowrap text-muted',
      cell: ({ hits }) => <Hits hits={hits} />,
    },
    ...(remove ? [removeColumn(remove)] : []),
  ];
}

function removeColumn(remove: (id: string) => void): TableColumn<RedirectShown> {
  return {
    key: 'remove',
    head: <span className="sr-only">Take away</span>,
    className: 'text-right',
    cell: ({ id, from }) => (
      <button
        type="button"
        className="button-quiet"
        aria-label={`Take ${from} away`}
        onClick={() => remove(id)}
      >
        Take away
      </button>
    ),
  };
}

/** How often it led on: in all, and on each of the last days. */
function Hits({ hits: { total, days } }: Pick<RedirectShown, 'hits'>) {
  if (total === 0) return <>never yet</>;
  return (
    <details>
      <summary className="cursor-pointer">{counted(total, 'time')}</summary>
      <ul>
        {days.slice(0, 14).map(({ day, count }) => (
          <li key={day}>{`${day}: ${count}`}</li>
        ))}
      </ul>
    </details>
  );
}
