'use client';

import type { ReactNode } from 'react';
import type { Clock } from '@/server/queries/clock.ts';
import type { EntryOutcome } from '@/server/queries/entry-outcome.ts';
import { Tabs } from '@/ui/primitives/tabs.tsx';
import { PreviewFrame } from '../preview-frame.tsx';
import { AddressByHandLines } from './address-by-hand.tsx';
import { AddressParts } from '../address-parts.tsx';
import { LeadingHere } from './leading-here.tsx';
import { Snippet } from '../snippet.tsx';
import { ClockLink } from '../shell/clock-link.tsx';
import { instantWords } from '../format.ts';

/** What an entry becomes: its page, its search result, where it is listed, its address. */
export function EntryOutcomePane({
  outcome,
  clock,
  problem,
  id,
  values,
  onChange,
  versions,
}: {
  /** Null for an entry that was never saved. */
  id: string | null;
  outcome: EntryOutcome;
  clock: Clock;
  problem: string | null;
  /** What the form holds. */
  values: Record<string, unknown>;
  onChange: (id: string, value: unknown) => void;
  /** What was saved of it; null for an entry that never was. */
  versions: ReactNode;
}) {
  const when = clock.tense === 'now' ? 'now' : instantWords(clock.at, clock.zone, clock.now);
  const first = `${outcome.status} · ${when}${outcome.automatic ? ' · automatic page: no template is bound to the type' : ''}`;
  const page =
    outcome.html === null ? (
      <p className="p-6 text-muted">{outcome.status}</p>
    ) : (
      <PreviewFrame html={outcome.html} title="Page" first={problem ?? first} at={clock.at} />
    );
  return (
    <Tabs
      label="Outcome"
      tabs={[
        { key: 'page', label: 'Page', content: <div className="flex h-full flex-col">{page}</div> },
        {
          key: 'snippet',
          label: 'Search result',
          content: (
            <div className="p-6">
              <Snippet
                title={outcome.title}
                description={outcome.description}
                url={outcome.url}
                picture={outcome.picture}
              />
            </div>
          ),
        },
        { key: 'listed', label: 'Where listed', content: <Listed outcome={outcome} /> },
        ...(id === null
          ? []
          : [
              {
                key: 'leading',
                label: 'What leads here',
                content: <LeadingHere {...{ id, clock, values, onChange }} />,
              },
            ]),
        ...(versions === null ? [] : [{ key: 'versions', label: 'Versions', content: versions }]),
        {
          key: 'address',
          label: 'Address',
          content: (
            <div className="p-6">
              <AddressParts path={outcome.path} pieces={outcome.pieces} />
              {id !== null && <AddressByHandLines id={id} clock={clock} />}
            </div>
          ),
        },
      ]}
    />
  );
}

function Listed({ outcome }: { outcome: EntryOutcome }) {
  if (outcome.keptOut)
    return (
      <p className="p-6 text-muted">
        It is kept out of lists, by its presets here or those of its type. Its page stays where it
        is, and picks that it was put in show it.
      </p>
    );
  if (outcome.listed.length === 0)
    return (
      <p className="p-6 text-muted">
        Every listing of its type leaves it out at this instant. A listing’s “Left out” side says
        why.
      </p>
    );
  return (
    <div className="p-6">
      {!outcome.live && (
        <p className="mb-2 text-muted">
          Not live at this instant; published as it is here, it would stand:
        </p>
      )}
      <ul>
        {outcome.listed.map(({ listing, label, place, isPinned }) => (
          <li key={listing} className="border-t border-rule py-1.5">
            {place === 1 ? 'First' : `Number ${place}`} in{' '}
            <ClockLink href={`/build/listings/${listing}`}>{label}</ClockLink>
            {isPinned && <span className="text-muted"> by its pin</span>}
          </li>
        ))}
      </ul>
    </div>
  );
}
