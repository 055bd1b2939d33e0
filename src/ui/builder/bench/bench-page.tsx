'use client';

import { useRouter } from 'next/navigation';
import { useState } from 'react';
import type { TriedAddress } from '@/server/queries/try-address.ts';
import type { Clock } from '@/server/queries/clock.ts';
import { instantWords } from '../format.ts';
import { PreviewFrame } from '../preview-frame.tsx';
import { useClockParameters } from '../shell/use-clock.ts';

/** A page as it would be if all of the bench were released at the clock's instant. */
export function BenchPage({ page, clock }: { page: TriedAddress | null; clock: Clock }) {
  const router = useRouter();
  const { keep } = useClockParameters();
  const [path, setPath] = useState(page?.path ?? '/');
  const when = clock.tense === 'now' ? 'now' : instantWords(clock.at, clock.zone, clock.now);
  return (
    <>
      <form
        className="flex items-end gap-2 border-b border-rule px-6 py-2"
        onSubmit={(event) => {
          event.preventDefault();
          router.replace(keep(`/build/bench?page=${encodeURIComponent(path.trim())}`));
        }}
      >
        <label className="min-w-0 flex-1 text-note text-muted">
          Page with the whole bench
          <input
            className="control font-mono !text-table text-ink"
            spellCheck={false}
            value={path}
            onChange={(e) => setPath(e.target.value)}
          />
        </label>
        <button type="submit" className="button">
          Show
        </button>
      </form>
      {page && page.html !== null && page.location === null ? (
        <PreviewFrame
          html={page.html}
          title="Page with the whole bench"
          first={`${page.path} · ${page.status} · with the whole bench · ${when}`}
          at={clock.at}
        />
      ) : (
        <p className="p-6 text-muted">
          {page?.location
            ? `${page.path} leads to ${page.location} (${page.status}).`
            : 'No page of the public site stands there.'}
        </p>
      )}
    </>
  );
}
