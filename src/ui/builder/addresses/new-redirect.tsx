'use client';

import { useState } from 'react';
import type { Clock } from '@/server/queries/clock.ts';
import type { RedirectTrial } from '@/server/queries/redirects.ts';
import { ask, command, failure } from '../send.ts';
import { toldOnBench } from '../type/told-on-bench.ts';
import type { Attempts } from '../use-attempts.ts';
import type { AddressParameters } from './address-parameters.ts';

const STATUSES: readonly [number, string][] = [
  [308, 'for good (308)'],
  [301, 'for good, as of old (301)'],
  [307, 'for now (307)'],
  [302, 'for now, as of old (302)'],
];

/** A redirect that is set, on the bench: where it starts, where it leads, and how. */
export function NewRedirect({
  shown,
  clock,
  attempts,
  here,
  onDone,
}: {
  shown: AddressParameters;
  clock: Clock;
  attempts: Attempts;
  /** The path of this screen. */
  here: string;
  onDone: () => void;
}) {
  const [from, setFrom] = useState(shown.from);
  const [to, setTo] = useState(shown.to);
  const [status, setStatus] = useState(308);
  const [prefix, setPrefix] = useState(false);
  const add = async (): Promise<void> => {
    const { attempt } = attempts;
    const line = { from: from.trim(), to: to.trim(), status, ...(prefix ? { prefix } : {}) };
    const told = toldOnBench(attempt, { to: here, from: here });
    const done = await attempt(() => setRedirect(line, clock), told);
    if (!done) return;
    setFrom('');
    setTo('');
    setPrefix(false);
    if (shown.from !== '') onDone();
  };
  return (
    <form
      className="mb-3 grid grid-cols-2 gap-2 border-b border-rule pb-3"
      onSubmit={(event) => {
        event.preventDefault();
        void add();
      }}
    >
      <Path label="From" value={from} placeholder="/old" onChange={setFrom} />
      <Path label="Leads to" value={to} placeholder="/new or https://…" onChange={setTo} />
      <div className="col-span-2 flex flex-wrap items-center gap-x-4 gap-y-2">
        <select
          aria-label="How it leads"
          className="control !w-48"
          value={status}
          onChange={(e) => setStatus(Number(e.target.value))}
        >
          {STATUSES.map(([value, label]) => (
            <option key={value} value={value}>
              {label}
            </option>
          ))}
        </select>
        <label className="flex items-center gap-2">
          <input type="checkbox" checked={prefix} onChange={(e) => setPrefix(e.target.checked)} />
          with all below it
        </label>
        <button
          type="submit"
          className="button ml-auto"
          disabled={attempts.busy || from.trim() === '' || to.trim() === ''}
        >
          Set redirect
        </button>
      </div>
    </form>
  );
}

/** Tries one first: what stands there, or a circle, is told before anything is put on the bench. */
async function setRedirect(line: object, { at }: Clock): ReturnType<typeof putOnBench> {
  const answer = await ask<RedirectTrial>('redirects', { at, given: { lines: [line] } });
  const problem = 'problem' in answer ? answer.problem : null;
  if (problem !== null) return failure({ code: 'refused', message: problem });
  const trial = (answer as { value: RedirectTrial }).value;
  if ('problem' in trial) return failure({ code: 'refused', message: trial.problem });
  const [planned] = trial.lines;
  if (planned?.outcome === 'refused')
    return failure({ code: 'refused', message: planned.words, fix: 'Start at another path.' });
  if (trial.steps.length === 0)
    return failure({ code: 'same', message: 'This redirect is set already.' });
  return putOnBench(trial.steps);
}

const putOnBench = (steps: Parameters<typeof command<'editDesign'>>[1]['steps']) =>
  command('editDesign', { steps });

function Path({
  label,
  value,
  placeholder,
  onChange,
}: {
  label: string;
  value: string;
  placeholder: string;
  onChange: (value: string) => void;
}) {
  return (
    <label className="text-note text-muted">
      {label}
      <input
        className="control font-mono !text-table text-ink"
        spellCheck={false}
        maxLength={3072}
        placeholder={placeholder}
        value={value}
        onChange={(e) => onChange(e.target.value)}
      />
    </label>
  );
}
