'use client';

import { useRouter } from 'next/navigation';
import { useState } from 'react';
import type { Clock } from '@/server/queries/clock.ts';
import type { GoneEntry } from '@/server/queries/purge.ts';
import { Issues } from '@/ui/primitives/issues.tsx';
import { entryHref, instantWords } from '../format.ts';
import { command } from '../send.ts';
import { useMay } from '../rights.tsx';
import { ClockLink } from '../shell/clock-link.tsx';
import { useClockParameters } from '../shell/use-clock.ts';
import { useAttempts } from '../use-attempts.ts';
import { AskPurge } from './ask-purge.tsx';

/** An entry that was deleted, or of which nothing is left: what can be done about it. */
export function GoneScreen({ gone, clock }: { gone: GoneEntry; clock: Clock }) {
  const { id, name, type, deleted, purged, last } = gone;
  const router = useRouter();
  const { keep } = useClockParameters();
  const { attempt, busy, issues } = useAttempts();
  const [asking, setAsking] = useState(false);
  const mayPurge = useMay('purge');
  const when = (at: number): string => instantWords(at, clock.zone, clock.now);
  const bringBack = async (): Promise<void> => {
    const done = await attempt(
      () => command('restoreEntry', { entry: id }),
      () => ({ words: 'It is back.' }),
    );
    if (done) router.push(keep(entryHref(id)));
  };
  return (
    <main data-area tabIndex={-1} className="max-w-[72ch] px-6 py-4">
      <h1>{purged === null ? (name ?? id) : 'Purged'}</h1>
      {purged === null ? (
        <>
          <p className="mt-2">
            {`${type ?? 'Entry'}, deleted ${when(deleted)}. It is public nowhere since; the past still shows it.`}
          </p>
          <div className="mt-4 flex flex-wrap items-center gap-2">
            <button
              type="button"
              className="button button-main"
              disabled={busy}
              onClick={() => void bringBack()}
            >
              Bring it back
            </button>
            <a className="button flex items-center no-underline" href={pastHref(id, last)}>
              Look at it as it was
            </a>
            {mayPurge && (
              <button type="button" className="button" onClick={() => setAsking(true)}>
                Purge …
              </button>
            )}
          </div>
        </>
      ) : (
        <p className="mt-2">
          {`${type ? `This was of the type ${type}. ` : ''}All that was stored of it was taken away ${when(purged)}; its addresses answer 410.`}
        </p>
      )}
      <Issues issues={issues} title="Not done" answers />
      <p className="mt-4">
        <ClockLink className="link" href="/build/content?state=deleted">
          All deleted entries
        </ClockLink>
      </p>
      {asking && <AskPurge id={id} clock={clock} onClose={() => setAsking(false)} />}
    </main>
  );
}

/** The entry's screen with the clock at an instant. */
function pastHref(id: string, at: number): string {
  return `${entryHref(id)}?${new URLSearchParams({ at: new Date(at).toISOString() })}`;
}
