'use client';

import { useState } from 'react';
import { isReserved } from '@/core/address/path.ts';
import { slugOf } from '@/core/outline/names.ts';
import type { Clock } from '@/server/queries/clock.ts';
import { Issues, SaidLine } from '@/ui/primitives/issues.tsx';
import { useDesignReadOnly } from '../rights.tsx';
import { AddLine } from '../settings/add-line.tsx';
import { usePartList } from '../settings/use-part-list.ts';
import { useAttempts } from '../use-attempts.ts';

interface Props {
  listings: readonly { id: string; key: string; address?: string | undefined }[];
  types: readonly { key: string; plural: string }[];
  language: string;
  clock: Clock;
}

/** Makes a listing of a type, under an address made of its name: to be gone on with. */
export function NewListing({ listings, types, language, clock }: Props) {
  const attempts = useAttempts();
  const readOnly = useDesignReadOnly(clock);
  const [type, setType] = useState(types[0]?.key ?? '');
  const { add } = usePartList(
    {
      ...{ list: 'listings', parts: listings, language, here: '/build/listings' },
      next: (key) => `/build/listings/${key}`,
    },
    attempts,
  );
  const taken = new Set(listings.map(({ address }) => address));
  const addressOf = (name: string): { address?: string } => {
    const address = `/${slugOf(name, language)}`;
    return address === '/' || isReserved(address) || taken.has(address) ? {} : { address };
  };
  if (readOnly || types.length === 0) return null;
  return (
    <>
      <SaidLine said={attempts.said} />
      <Issues issues={attempts.issues} title="Not done" answers />
      <AddLine
        label="Name of the new listing"
        placeholder="New listing, such as “All boats”"
        button="Make it"
        busy={attempts.busy}
        onAdd={(name) => add(name, { type, ...addressOf(name) })}
      >
        <select
          aria-label="What it lists"
          className="control !w-44 shrink-0"
          value={type}
          onChange={(e) => setType(e.target.value)}
        >
          {types.map(({ key, plural }) => (
            <option key={key} value={key}>
              {`of ${plural}`}
            </option>
          ))}
        </select>
      </AddLine>
    </>
  );
}
