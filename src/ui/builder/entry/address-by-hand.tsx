'use client';

import { useState } from 'react';
import { readInstantWords } from '@/core/time/words.ts';
import { BEGINNING } from '@/core/time/interval.ts';
import { isoInZone } from '@/core/time/zone.ts';
import type { AddressByHand } from '@/server/queries/by-hand.ts';
import type { Clock } from '@/server/queries/clock.ts';
import { Issues, SaidLine } from '@/ui/primitives/issues.tsx';
import { instantWords } from '../format.ts';
import { InstantField } from '../instant/instant-field.tsx';
import { useMay } from '../rights.tsx';
import { command } from '../send.ts';
import { useAsked } from '../use-asked.ts';
import { type Attempts, useAttempts } from '../use-attempts.ts';

/** An entry's addresses set by hand: those that run or lie ahead, and a new one. */
export function AddressByHandLines({ id, clock }: { id: string; clock: Clock }) {
  const attempts = useAttempts();
  const mayPublish = useMay('publish') && clock.tense !== 'past';
  const asked = { id, at: clock.at, after: attempts.said?.words ?? '' };
  const { answer, problem } = useAsked<AddressByHand[]>('byHand', asked);
  return (
    <section className="mt-6 border-t border-rule pt-4">
      <h2 className="mb-1">By hand</h2>
      <p className="mb-2 text-muted">
        In place of what the type’s pattern gives, while it lasts; the address before it leads on.
      </p>
      <SaidLine said={attempts.said} />
      <Issues issues={attempts.issues} title="Not done" answers />
      {problem && <p className="text-alarm">{problem}</p>}
      <ul>
        {(answer ?? []).map((line) => (
          <Line key={line.id} {...{ line, id, clock, attempts, mayPublish }} />
        ))}
      </ul>
      {mayPublish && <NewAddress {...{ id, clock, attempts }} />}
    </section>
  );
}

function Line({
  line: { id: row, path, from, to },
  id,
  clock,
  attempts: { busy, attempt },
  mayPublish,
}: {
  line: AddressByHand;
  id: string;
  clock: Clock;
  attempts: Attempts;
  mayPublish: boolean;
}) {
  const words = (at: number): string => instantWords(at, clock.zone, clock.now);
  const since =
    from === BEGINNING ? '' : from > clock.now ? `from ${words(from)}` : `since ${words(from)}`;
  const until = to === null ? '' : `until ${words(to)}`;
  const end = (): void =>
    void attempt(
      () => command('endByHand', { id: row, entry: id }),
      () => ({ words: `${path} is not set by hand any more.` }),
    );
  return (
    <li className="flex flex-wrap items-baseline gap-x-3 border-t border-rule py-1.5">
      <span className="font-mono text-table [overflow-wrap:anywhere]">{path}</span>
      <span className={from > clock.now ? 'text-amber-text' : 'text-muted'}>
        {[since, until].filter((part) => part !== '').join(', ')}
      </span>
      {mayPublish && (
        <button type="button" className="button-quiet ml-auto" disabled={busy} onClick={end}>
          {from > clock.now ? 'Take back' : 'End it now'}
        </button>
      )}
    </li>
  );
}

function NewAddress({ id, clock, attempts }: { id: string; clock: Clock; attempts: Attempts }) {
  const { zone, now } = clock;
  const [path, setPath] = useState('');
  const [from, setFrom] = useState('');
  const [to, setTo] = useState('');
  const read = (words: string): string | null => {
    const instant = readInstantWords(words, now, zone);
    return instant ? isoInZone(instant.at, zone) : null;
  };
  const isWrong = (words: string): boolean => words.trim() !== '' && read(words) === null;
  const set = (): void =>
    void attempts
      .attempt(
        () =>
          command('setByHand', { entry: id, path: path.trim(), from: read(from), to: read(to) }),
        ({ at }) => ({
          words: `${path.trim()} is its address from ${instantWords(at, zone, Date.now())} on.`,
        }),
      )
      .then((done) => {
        if (!done) return;
        setPath('');
        setFrom('');
        setTo('');
      });
  return (
    <form
      className="mt-3 flex flex-col gap-2"
      onSubmit={(event) => {
        event.preventDefault();
        set();
      }}
    >
      <label className="text-note text-muted">
        Address
        <input
          className="control font-mono !text-table text-ink"
          placeholder="/about/us"
          spellCheck={false}
          maxLength={1024}
          value={path}
          onChange={(e) => setPath(e.target.value)}
        />
      </label>
      <div className="grid grid-cols-2 gap-2">
        <Time {...{ clock, value: from, onChange: setFrom }} label="From" none="now" />
        <Time {...{ clock, value: to, onChange: setTo }} label="Until" none="for good" />
      </div>
      <button
        type="submit"
        className="button self-start"
        disabled={attempts.busy || path.trim() === '' || isWrong(from) || isWrong(to)}
      >
        Set address
      </button>
    </form>
  );
}

function Time({
  clock: { zone, now },
  label,
  none,
  value,
  onChange,
}: {
  clock: Clock;
  label: string;
  /** What is meant where nothing is written. */
  none: string;
  value: string;
  onChange: (value: string) => void;
}) {
  const words = `${label} (${none} where left out)`;
  return (
    <div>
      <span aria-hidden className="text-note text-muted">
        {words}
      </span>
      <InstantField {...{ zone, now, value, onChange }} label={words} />
    </div>
  );
}
