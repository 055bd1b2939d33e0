'use client';

import type { Clock } from '@/server/queries/clock.ts';
import type { LostLine } from '@/server/queries/lost-paths.ts';
import { Issues, SaidLine } from '@/ui/primitives/issues.tsx';
import { Table } from '@/ui/primitives/table.tsx';
import { counted, instantWords } from '../format.ts';
import { useDesignReadOnly } from '../rights.tsx';
import { posted } from '../send.ts';
import { useAttempts } from '../use-attempts.ts';
import type { ShowAddresses } from './address-parameters.ts';

/** Paths that visitors asked for lately and where nothing is, with what may have been meant. */
export function LostLines({
  lost: { lines, total },
  clock,
  show,
}: {
  lost: { lines: LostLine[]; total: number };
  clock: Clock;
  show: ShowAddresses;
}) {
  const attempts = useAttempts();
  const readOnly = useDesignReadOnly(clock);
  const forget = (path: string): void =>
    void attempts.attempt(
      () => posted('/api/lost', { path }),
      () => ({ words: `${path} is told again once somebody asks for it.` }),
    );
  if (lines.length === 0)
    return (
      <p className="px-6 py-3 text-muted">
        Nobody asked in vain lately. Paths where visitors find nothing stand here, with the nearest
        addresses to lead them to.
      </p>
    );
  return (
    <div className="px-6 py-3">
      <SaidLine said={attempts.said} />
      <Issues issues={attempts.issues} title="Not done" answers />
      <Table
        label="Asked for in vain"
        rows={lines}
        keyOf={({ path }) => path}
        columns={[
          {
            key: 'path',
            head: 'Path',
            className: 'font-mono text-note [overflow-wrap:anywhere]',
            cell: ({ path }) => (
              <button
                type="button"
                className="text-left text-spruce hover:underline"
                onClick={() => show({ try: path })}
              >
                {path}
              </button>
            ),
          },
          {
            key: 'asked',
            head: 'Asked',
            className: 'text-muted',
            cell: ({ count, last }) =>
              `${counted(count, 'time')}, last ${instantWords(last, clock.zone, clock.now)}`,
          },
          {
            key: 'near',
            head: 'Perhaps meant',
            cell: ({ path, near }) => (
              <Meant {...{ path, near, readOnly, show }} onForget={() => forget(path)} />
            ),
          },
        ]}
      />
      {total > lines.length && (
        <p className="py-2 text-muted">{`${counted(total, 'path')} in all; those asked for last are looked at.`}</p>
      )}
    </div>
  );
}

function Meant({
  path,
  near,
  readOnly,
  show,
  onForget,
}: Pick<LostLine, 'path' | 'near'> & {
  readOnly: boolean;
  show: ShowAddresses;
  onForget: () => void;
}) {
  const lead = (to: string): void => show({ tab: 'redirects', from: path, to });
  return (
    <>
      {near.slice(0, 2).map(({ path: to, words }) => (
        <p key={to}>
          {readOnly ? (
            <span className="font-mono text-note">{to}</span>
          ) : (
            <button
              type="button"
              className="text-left font-mono text-note text-spruce [overflow-wrap:anywhere] hover:underline"
              title="Begin a redirect to it"
              onClick={() => lead(to)}
            >
              {`→ ${to}`}
            </button>
          )}{' '}
          <span className="text-note text-muted">{words}</span>
        </p>
      ))}
      {!readOnly && (
        <p className="flex gap-2">
          <button type="button" className="button-quiet" onClick={() => lead('')}>
            Lead elsewhere …
          </button>
          <button type="button" className="button-quiet" onClick={onForget}>
            Leave it
          </button>
        </p>
      )}
    </>
  );
}
