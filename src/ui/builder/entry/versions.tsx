'use client';

import { useState } from 'react';
import type { Clock } from '@/server/queries/clock.ts';
import type { Version, VersionChanges } from '@/server/queries/versions.ts';
import { instantWords } from '../format.ts';
import { useAsked } from '../use-asked.ts';
import { VersionLife } from './version-life.tsx';
import { ChangeLines } from './change-lines.tsx';

interface Props {
  id: string;
  /** The newest version's number; another one makes the list anew. */
  newest: number | null;
  clock: Clock;
  note: string;
  onNote: (note: string) => void;
  /** Puts values into the form. */
  onChange: (id: string, value: unknown) => void;
}

/** The versions of an entry: who saved them when, what was live, how two differ. */
export function Versions({ id, newest, clock, note, onNote, onChange }: Props) {
  const { answer, problem } = useAsked<Version[]>('versions', { id, newest });
  const [pair, setPair] = useState<{ before: number; after: number } | null>(null);
  if (!answer) return <p className="p-6 text-muted">{problem ?? 'Looking up the versions …'}</p>;
  const [last = 1, previous = last] = answer.map(({ number }) => number);
  const shown = pair ?? { before: previous, after: last };
  const compareTo = (after: number): void => {
    const older = answer.find(({ number }) => number < after)?.number ?? after;
    setPair({ before: older, after });
  };
  return (
    <div className="flex flex-col gap-4 p-6">
      {clock.tense !== 'past' && (
        <label>
          <span className="mb-1 block text-muted">Note to the version you save next</span>
          <input
            className="control"
            maxLength={500}
            placeholder="What changed, and why"
            value={note}
            onChange={(e) => onNote(e.target.value)}
          />
        </label>
      )}
      <VersionLife versions={answer} {...{ clock }} chosen={shown.after} onChoose={compareTo} />
      <VersionTable versions={answer} {...{ clock, shown }} onPair={setPair} />
      {answer.length > 1 && (
        <Compared key={`${shown.before} ${shown.after}`} {...{ id, clock, onChange }} {...shown} />
      )}
    </div>
  );
}

interface TableProps {
  versions: readonly Version[];
  clock: Clock;
  shown: { before: number; after: number };
  onPair: (pair: { before: number; after: number }) => void;
}

function VersionTable({ versions, clock, shown, onPair }: TableProps) {
  const when = (at: number): string => instantWords(at, clock.zone, clock.now);
  const pick = (side: 'before' | 'after', number: number) => (
    <input
      type="radio"
      name={`version-${side}`}
      aria-label={`Version ${number} as the ${side === 'before' ? 'earlier' : 'later'} one`}
      checked={shown[side] === number}
      onChange={() => onPair({ ...shown, [side]: number })}
    />
  );
  return (
    <table className="w-full text-table">
      <caption className="sr-only">Versions</caption>
      <thead>
        <tr className="border-b border-rule text-left text-muted">
          <th scope="col" className="w-10 py-1 font-normal">
            From
          </th>
          <th scope="col" className="w-10 font-normal">
            To
          </th>
          <th scope="col" className="font-normal">
            Version
          </th>
          <th scope="col" className="font-normal">
            Saved
          </th>
          <th scope="col" className="font-normal">
            Live
          </th>
        </tr>
      </thead>
      <tbody>
        {versions.map(({ number, saved, author, note, live }) => (
          <tr key={number} className="border-b border-rule align-top">
            <td className="py-1">{pick('before', number)}</td>
            <td className="py-1">{pick('after', number)}</td>
            <td className="py-1 font-[550] tabular-nums">{number}</td>
            <td className="py-1">
              {when(saved)}
              {author !== '' && <span className="text-muted">{` · ${author}`}</span>}
              {note !== '' && <span className="block text-muted">{note}</span>}
            </td>
            <td className="py-1 text-muted">
              {live.map(({ from, to }) => (
                <span key={from} className="block">
                  {to === null
                    ? `${from > clock.now ? 'from' : 'since'} ${when(from)}`
                    : `${when(from)} to ${when(to)}`}
                </span>
              ))}
              {live.length === 0 && 'never'}
            </td>
          </tr>
        ))}
      </tbody>
    </table>
  );
}

type ComparedProps = Pick<Props, 'id' | 'clock' | 'onChange'> & {
  before: number;
  after: number;
};

/** How two versions differ, field by field; the earlier one can be taken into the form again. */
function Compared({ id, before, after, clock, onChange }: ComparedProps) {
  const asked = { id, before, after, at: clock.at };
  const { answer, problem } = useAsked<VersionChanges>('versionChanges', asked);
  if (before === after) return <p className="text-muted">Choose two versions to compare.</p>;
  if (!answer) return <p className="text-muted">{problem ?? 'Comparing …'}</p>;
  return (
    <section aria-label={`From version ${before} to version ${after}`}>
      <div className="flex items-baseline gap-3">
        <h2 className="text-section font-semibold">{`From version ${before} to version ${after}`}</h2>
        {clock.tense !== 'past' && (
          <button
            type="button"
            className="button-quiet ml-auto"
            onClick={() => {
              for (const [field, value] of Object.entries(answer.values)) onChange(field, value);
            }}
          >
            {`Put version ${before} into the form`}
          </button>
        )}
      </div>
      <ChangeLines changes={answer.changes} />
    </section>
  );
}
