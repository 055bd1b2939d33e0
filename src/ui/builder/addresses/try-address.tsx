'use client';

import { useState } from 'react';
import type { Clock } from '@/server/queries/clock.ts';
import type { AddressLinks, LinkedEntry, TriedAddress } from '@/server/queries/try-address.ts';
import { counted, entryHref } from '../format.ts';
import { PreviewFrame } from '../preview-frame.tsx';
import { useDesignReadOnly } from '../rights.tsx';
import { ClockLink } from '../shell/clock-link.tsx';
import type { ShowAddresses } from './address-parameters.ts';

const WORDS: Readonly<Record<number, string>> = {
  200: 'shows its page',
  400: 'not an address: 400',
  404: 'nothing there: 404',
  405: 'refused: 405',
  410: 'gone: 410',
};

/** Where an address leads, step by step, with what links there, or what may have been meant. */
export function TryAddress({
  answer,
  clock,
  show,
}: {
  answer: TriedAddress | null;
  clock: Clock;
  show: ShowAddresses;
}) {
  const onTry = (path: string): void => show({ try: path });
  return (
    <>
      <TryForm path={answer?.asked ?? '/'} onTry={onTry} />
      {answer === null ? (
        <p className="p-6 text-muted">
          Type an address, or press one at the left, to see step by step where it leads and why. A
          method and a host may stand before it: POST https://…
        </p>
      ) : (
        <div className="flex min-h-0 flex-1 flex-col overflow-auto">
          <Trace answer={answer} />
          <Near answer={answer} clock={clock} show={show} />
          {answer.links && <Links links={answer.links} />}
          {answer.html !== null && answer.location === null && (
            <PreviewFrame
              html={answer.html}
              title="Page at this address"
              first={`${answer.asked} · ${answer.status}`}
              at={clock.at}
              onPath={(to) => to.startsWith('/') && onTry(to)}
            />
          )}
        </div>
      )}
    </>
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

const LINE = 'grid grid-cols-[136px_minmax(0,1fr)] gap-2';

function Trace({ answer: { asked, steps, status, location, drawn } }: { answer: TriedAddress }) {
  const leads = location === null ? WORDS[status ?? 0] : `leads to ${location} (${status})`;
  return (
    <ol className="px-6 py-3">
      {steps.map((step, i) => (
        <li key={i} className={`${LINE} py-0.5 ${step.matched ? 'font-semibold' : 'text-muted'}`}>
          <span>{step.step}</span>
          <span className="break-words">{step.words}</span>
        </li>
      ))}
      <li className={`${LINE} border-t border-spruce py-1 font-semibold`}>
        <span>outcome</span>
        <span className="[overflow-wrap:anywhere]">
          {status === null ? 'not a page of the public site' : `${asked} ${leads ?? status}`}
        </span>
      </li>
      {drawn !== null && (
        <li className={`${LINE} py-0.5 text-muted`}>
          <span>drawn by</span>
          <span>{drawn}</span>
        </li>
      )}
    </ol>
  );
}

/** Addresses that may have been meant where nothing is, each to be led to at a press. */
function Near({
  answer: { path, near, status },
  clock,
  show,
}: {
  answer: TriedAddress;
  clock: Clock;
  show: ShowAddresses;
}) {
  const readOnly = useDesignReadOnly(clock);
  if (status !== 404 && status !== 410) return null;
  const lead = (to: string): void => show({ tab: 'redirects', from: path, to });
  return (
    <section aria-label="Near addresses" className="border-t border-rule px-6 py-2">
      {near.map(({ path: other, words }) => (
        <p key={other} className="flex flex-wrap items-baseline gap-x-3">
          <button
            type="button"
            className="text-left font-mono text-note text-spruce [overflow-wrap:anywhere] hover:underline"
            onClick={() => show({ try: other })}
          >
            {other}
          </button>
          <span className="text-muted">{words}</span>
          {!readOnly && (
            <button type="button" className="button-quiet" onClick={() => lead(other)}>
              Lead there
            </button>
          )}
        </p>
      ))}
      {near.length === 0 && (
        <p className="text-muted">
          No address is near to it.{' '}
          {!readOnly && (
            <button type="button" className="button-quiet" onClick={() => lead('')}>
              Lead it elsewhere …
            </button>
          )}
        </p>
      )}
    </section>
  );
}

/** The entries that lead to a page's, and those that it leads to. */
function Links({ links: { here, hereTotal, out, outTotal } }: { links: AddressLinks }) {
  return (
    <section aria-label="Links" className="border-t border-rule px-6 py-2">
      <Linked words="Linked from" entries={here} total={hereTotal} none="nothing" />
      <Linked words="Links to" entries={out} total={outTotal} none="nothing" />
    </section>
  );
}

function Linked({
  words,
  entries,
  total,
  none,
}: {
  words: string;
  entries: readonly LinkedEntry[];
  total: number;
  none: string;
}) {
  return (
    <details className={LINE}>
      <summary className="col-span-2 cursor-pointer text-muted">
        {`${words} ${total === 0 ? none : counted(total, 'entry', 'entries')}`}
      </summary>
      <ul className="col-start-2">
        {entries.map(({ id, name, path }) => (
          <li key={id}>
            <ClockLink href={entryHref(id)} className="text-ink hover:underline">
              {name}
            </ClockLink>{' '}
            <span className="font-mono text-note text-muted">{path ?? 'no page'}</span>
          </li>
        ))}
        {total > entries.length && (
          <li className="text-muted">{`and ${counted(total - entries.length, 'more', 'more')}`}</li>
        )}
      </ul>
    </details>
  );
}
