'use client';

import { useState } from 'react';
import type { FilterSpec } from '@/core/design/listing-spec.ts';
import type { Clock } from '@/server/queries/clock.ts';
import type { ListingDetail } from '@/server/queries/listing.ts';
import type { Proposal } from '@/server/queries/proposed.ts';
import { EntryPicker } from '../entry-picker.tsx';
import { counted } from '../format.ts';
import { lookingOf } from '../looking.ts';
import { ask } from '../send.ts';
import type { Edits } from '../use-edits.ts';

type Spec = ListingDetail['spec'];

const NOT_LIVE = 'All of them must be live as of the clock, and of the type that is listed.';

/** Conditions found from entries that are to stand in the listing. */
export function FromEntries({
  edits: { spec, steps, change },
  clock,
}: {
  edits: Edits<Spec>;
  clock: Clock;
}) {
  const [chosen, setChosen] = useState<{ id: string; name: string }[]>([]);
  const [proposal, setProposal] = useState<Proposal | string | null>(null);
  const [busy, setBusy] = useState(false);
  const propose = async (): Promise<void> => {
    setBusy(true);
    const entries = chosen.map(({ id }) => id);
    const input = { ...lookingOf(clock), id: spec.id, steps, entries };
    const answer = await ask<Proposal | null>('proposed', input);
    setBusy(false);
    setProposal('value' in answer ? (answer.value ?? NOT_LIVE) : answer.problem);
  };
  const put = (next: typeof chosen): void => {
    setChosen(next);
    setProposal(null);
  };
  return (
    <details className="border-t border-rule pt-2">
      <summary className="cursor-pointer font-semibold">Conditions from entries</summary>
      <p className="my-1 text-muted">
        Choose some that are to stand here: what they have in common becomes conditions that leave
        as few others as possible.
      </p>
      <Chosen chosen={chosen} onPut={put} />
      <EntryPicker
        id="from-entries"
        label="Choose an entry …"
        types={[spec.type]}
        at={clock.at}
        onPick={({ id, name }) =>
          put(chosen.some((one) => one.id === id) ? chosen : [...chosen, { id, name }])
        }
      />
      <button
        type="button"
        className="button mt-2"
        disabled={busy || chosen.length === 0}
        onClick={() => void propose()}
      >
        {busy ? 'Looking …' : 'Find conditions'}
      </button>
      {typeof proposal === 'string' && (
        <p role="alert" className="mt-1 text-alarm">
          {proposal}
        </p>
      )}
      {proposal !== null && typeof proposal !== 'string' && (
        <Proposed
          proposal={proposal}
          count={chosen.length}
          onUse={() => {
            change({ ...spec, where: { all: proposal.conditions } as FilterSpec });
            setProposal(null);
          }}
        />
      )}
    </details>
  );
}

function Chosen({
  chosen,
  onPut,
}: {
  chosen: readonly { id: string; name: string }[];
  onPut: (next: { id: string; name: string }[]) => void;
}) {
  return (
    <ul>
      {chosen.map((entry) => (
        <li key={entry.id} className="flex items-center justify-between gap-2 py-0.5">
          {entry.name}
          <button
            type="button"
            className="button-quiet"
            aria-label={`Not ${entry.name}`}
            onClick={() => onPut(chosen.filter(({ id }) => id !== entry.id))}
          >
            Not this one
          </button>
        </li>
      ))}
    </ul>
  );
}

function Proposed({
  proposal: { words, total, others },
  count,
  onUse,
}: {
  proposal: Proposal;
  count: number;
  onUse: () => void;
}) {
  if (words.length === 0)
    return (
      <p className="mt-1 text-muted">
        They have nothing in common that others do not have as well; nothing is asked.
      </p>
    );
  const more = total - count;
  return (
    <div role="status" className="mt-2">
      <ul className="list-disc pl-5">
        {words.map((line) => (
          <li key={line}>{line}</li>
        ))}
      </ul>
      <p className="text-muted">
        {more === 0
          ? 'Lets these in and nobody else.'
          : `Lets these in and ${counted(more, 'other')}: ${others.join(', ')}${more > others.length ? ', …' : ''}.`}
      </p>
      <button type="button" className="button mt-1" onClick={onUse}>
        Use them as conditions
      </button>
    </div>
  );
}
