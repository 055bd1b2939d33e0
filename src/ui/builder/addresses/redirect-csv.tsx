'use client';

import { useRef, useState } from 'react';
import type { PlannedRedirect, PlannedRedirects } from '@/core/design-edit/redirect-lines.ts';
import type { Clock } from '@/server/queries/clock.ts';
import type { RedirectTrial } from '@/server/queries/redirects.ts';
import { Table } from '@/ui/primitives/table.tsx';
import { counted } from '../format.ts';
import { ask, command } from '../send.ts';
import { toldOnBench } from '../type/told-on-bench.ts';
import type { Attempts } from '../use-attempts.ts';
import type { RedirectShown } from './redirect-shown.ts';

const MAX_BYTES = 900_000;

/** Redirects as CSV: tried first, then put on the bench at once; and all of them to be kept. */
export function RedirectCsv({
  redirects,
  clock,
  readOnly,
  attempts,
  here,
}: {
  redirects: readonly RedirectShown[];
  clock: Clock;
  readOnly: boolean;
  attempts: Attempts;
  here: string;
}) {
  const file = useRef<HTMLInputElement>(null);
  const [trial, setTrial] = useState<RedirectTrial | null>(null);
  const read = async (chosen: File | undefined): Promise<void> => {
    if (!chosen) return;
    if (chosen.size > MAX_BYTES) return setTrial({ problem: 'The file is larger than 900 kB.' });
    const given = { csv: await chosen.text() };
    const answer = await ask<RedirectTrial>('redirects', { at: clock.at, given });
    setTrial('value' in answer ? answer.value : { problem: answer.problem });
    if (file.current) file.current.value = '';
  };
  const put = (steps: PlannedRedirects['steps']): void =>
    void attempts
      .attempt(
        () => command('editDesign', { steps }),
        toldOnBench(attempts.attempt, { to: here, from: here }),
      )
      .then((done) => done && setTrial(null));
  return (
    <div className="mt-3 border-t border-rule pt-3">
      <div className="flex flex-wrap items-center gap-3">
        {!readOnly && (
          <label className="button inline-flex cursor-pointer items-center focus-within:outline-2">
            Bring in CSV …
            <input
              ref={file}
              type="file"
              accept=".csv,text/csv"
              className="sr-only"
              onChange={(e) => void read(e.target.files?.[0])}
            />
          </label>
        )}
        {redirects.length > 0 && (
          <button type="button" className="button" onClick={() => keep(redirects)}>
            Save as CSV
          </button>
        )}
        <span className="text-note text-muted">
          Columns: from, to, status, below (yes: with all below)
        </span>
      </div>
      {trial !== null && (
        <Trial trial={trial} busy={attempts.busy} onPut={put} onLeave={() => setTrial(null)} />
      )}
    </div>
  );
}

function Trial({
  trial,
  busy,
  onPut,
  onLeave,
}: {
  trial: RedirectTrial;
  busy: boolean;
  onPut: (steps: PlannedRedirects['steps']) => void;
  onLeave: () => void;
}) {
  if ('problem' in trial)
    return (
      <p role="alert" className="mt-2 text-alarm">
        {trial.problem}
      </p>
    );
  const { lines, steps } = trial;
  const count = (outcome: PlannedRedirect['outcome']): number =>
    lines.filter((line) => line.outcome === outcome).length;
  return (
    <section aria-label="What the file would do" className="mt-2">
      <p role="status" className="font-semibold">
        {`${count('new')} new, ${count('changed')} changed, ${count('same')} as they are, ${count('refused')} refused. Nothing is changed so far.`}
      </p>
      <div className="max-h-64 overflow-auto">
        <Table
          label="Lines of the file"
          rows={lines.map((line, i) => ({ ...line, nth: i + 1 }))}
          keyOf={({ nth }) => String(nth)}
          columns={[
            {
              key: 'outcome',
              head: 'Line',
              className: 'whitespace-nowrap',
              cell: ({ nth, outcome }) => (
                <span className={outcome === 'refused' ? 'text-alarm' : ''}>
                  {`${nth} ${outcome}`}
                </span>
              ),
            },
            {
              key: 'way',
              head: 'Redirect',
              className: 'font-mono text-note [overflow-wrap:anywhere]',
              cell: ({ from, to }) => `${from} → ${to}`,
            },
            { key: 'words', head: 'Note', className: 'text-muted', cell: ({ words }) => words },
          ]}
        />
      </div>
      <div className="mt-2 flex gap-2">
        <button
          type="button"
          className="button button-main"
          disabled={busy || steps.length === 0 || steps.length > 1000}
          onClick={() => onPut(steps)}
        >
          {`Put ${counted(count('new') + count('changed'), 'redirect')} on the bench`}
        </button>
        <button type="button" className="button" onClick={onLeave}>
          Leave it
        </button>
      </div>
      {steps.length > 1000 && (
        <p className="mt-1 text-alarm">At most 1,000 changes at once: bring them in two files.</p>
      )}
    </section>
  );
}

/** Has the browser keep all redirects as a CSV file. */
function keep(redirects: readonly RedirectShown[]): void {
  const cell = (text: string): string =>
    /[",\n\r]/.test(text) ? `"${text.replaceAll('"', '""')}"` : text;
  const lines = redirects.map(({ from, to, status, prefix }) =>
    [from, to, String(status), prefix ? 'yes' : 'no'].map(cell).join(','),
  );
  const text = `${['from,to,status,below', ...lines].join('\r\n')}\r\n`;
  const url = URL.createObjectURL(new Blob([text], { type: 'text/csv' }));
  const link = document.createElement('a');
  link.href = url;
  link.download = 'redirects.csv';
  link.click();
  URL.revokeObjectURL(url);
}
