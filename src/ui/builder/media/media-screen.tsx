'use client';

import { usePathname, useRouter } from 'next/navigation';
import { useState } from 'react';
import type { Clock } from '@/server/queries/clock.ts';
import type { MediaFilters } from '@/core/content/media-filters.ts';
import type { MediaFound } from '@/server/queries/media.ts';
import { Issues, SaidLine } from '@/ui/primitives/issues.tsx';
import { useClockParameters } from '../shell/use-clock.ts';
import { useAttempts } from '../use-attempts.ts';
import { DropPlace } from './drop-place.tsx';
import { MediaGrid } from './media-grid.tsx';
import { MediaFilterBar } from './media-filters.tsx';
import { MediumPanel } from './medium-panel.tsx';
import { SentFiles } from './sent-files.tsx';
import { useMedia } from './use-media.ts';
import { useSending } from './use-sending.ts';

/** The site's pictures and files as of the clock: found, added, described, replaced. */
export function MediaScreen({
  found,
  clock,
  filters,
  medium,
}: {
  found: MediaFound;
  clock: Clock;
  filters: MediaFilters;
  /** The one that is open. */
  medium: string | null;
}) {
  const readOnly = clock.tense === 'past';
  const [wanted, setWanted] = useState(filters);
  const [stamp, setStamp] = useState(0);
  const again = (): void => setStamp((n) => n + 1);
  const shown = useMedia(readOnly ? clock.at : null, wanted, { first: found, stamp });
  const attempts = useAttempts();
  const open = useOpen();
  const sending = useSending(({ id }, isAlone) => {
    again();
    if (isAlone) open(id);
  });
  return (
    <main data-area tabIndex={-1} className="flex min-h-0 flex-1">
      <DropPlace
        disabled={readOnly}
        className="flex min-w-0 flex-1 flex-col"
        onFiles={(files) => sending.send(files)}
      >
        <MediaFilterBar
          filters={wanted}
          total={shown.total}
          readOnly={readOnly}
          onFilter={(change) => setWanted({ ...wanted, ...change })}
          onFiles={(files) => sending.send(files)}
        />
        <div className="flex min-h-0 flex-1 flex-col gap-3 overflow-y-auto px-6 pb-6">
          <SaidLine said={attempts.said} />
          <Issues issues={attempts.issues} title="Not done" answers />
          <SentFiles sending={sending} />
          <div>
            <MediaGrid shown={shown} chosen={medium} onPick={({ id }) => open(id)}>
              <Nothing filters={wanted} readOnly={readOnly} />
            </MediaGrid>
          </div>
        </div>
      </DropPlace>
      {medium !== null && (
        <MediumPanel
          key={medium}
          id={medium}
          {...{ clock, attempts, stamp }}
          onChanged={again}
          onReplace={(file) => sending.send([file], medium)}
          onClose={() => open(null)}
        />
      )}
    </main>
  );
}

/** Why there is nothing, and what to do. */
function Nothing({ filters, readOnly }: { filters: MediaFilters; readOnly: boolean }) {
  const isNarrowed = filters.words.trim() !== '' || filters.formats || filters.lacking;
  if (isNarrowed)
    return <p className="py-3 text-muted">Nothing fits. Clear the search, or choose all files.</p>;
  return (
    <p className="py-3 text-muted">
      {readOnly
        ? 'There were no pictures or files then.'
        : 'There are no pictures or files yet. Drop some here, or choose “Add files”: JPEG, PNG, WebP, AVIF, GIF, SVG or PDF, up to 50 MB each.'}
    </p>
  );
}

/** Which medium is open stands in the address bar, so that it can be sent to others. */
function useOpen(): (id: string | null) => void {
  const router = useRouter();
  const path = usePathname();
  const { keep } = useClockParameters();
  return (id) =>
    router.replace(keep(id === null ? path : `${path}?medium=${encodeURIComponent(id)}`), {
      scroll: false,
    });
}
