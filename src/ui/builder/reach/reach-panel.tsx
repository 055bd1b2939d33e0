'use client';

import { useState } from 'react';
import type { Reach, ReachExample, ReachInput } from '@/server/queries/reach.ts';
import { FullDialog } from '@/ui/primitives/dialog.tsx';
import { Issues } from '@/ui/primitives/issues.tsx';
import type { Clock } from '@/server/queries/clock.ts';
import { counted, instantWords } from '../format.ts';
import { PreviewFrame } from '../preview-frame.tsx';
import { useReach } from './use-reach.ts';

/** What becomes of pages, as sentences say it: of one, and of several. */
const WORDS = {
  appears: ['page appears', 'pages appear'],
  vanishes: ['page vanishes', 'pages vanish'],
  moves: ['page moves; its former address leads on', 'pages move; their former addresses lead on'],
  differs: ['page looks otherwise', 'pages look otherwise'],
} as const;
type Change = keyof typeof WORDS;

/** What a change does to the site: counts as they are found, and examples before and after. */
export function ReachPanel({ input, clock }: { input: ReachInput | null; clock: Clock }) {
  const { reach, problem, busy, stop } = useReach(input);
  const [comparing, setComparing] = useState<ReachExample | null>(null);
  if (input === null) return null;
  return (
    <section aria-label="Reach">
      <div className="flex items-baseline justify-between gap-4">
        <h2 className="!text-body">Reach</h2>
        <p className="text-note text-muted" role="status">
          {problem ?? progress(reach, busy)}
        </p>
        {busy && (
          <button type="button" className="button-quiet" onClick={stop}>
            Stop
          </button>
        )}
      </div>
      {reach && <Found {...{ reach, clock }} onCompare={setComparing} />}
      {comparing && (
        <Compare example={comparing} at={input.at} onClose={() => setComparing(null)} />
      )}
    </section>
  );
}

function progress(reach: Reach | null, busy: boolean): string {
  if (!reach) return busy ? 'Looking …' : '';
  if (reach.done) return `All ${counted(reach.of, 'page')} compared.`;
  const looked = `${reach.looked.toLocaleString('en')} of ${counted(reach.of, 'page')}`;
  return `${busy ? 'Comparing' : 'Stopped after'} ${looked}; counts are “at least”.`;
}

function Found({
  reach,
  clock,
  onCompare,
}: {
  reach: Reach;
  clock: Clock;
  onCompare: (example: ReachExample) => void;
}) {
  const changes = (Object.keys(WORDS) as Change[]).filter((change) => reach.counts[change] > 0);
  const { begin, end } = reach.refused;
  const { retimed } = reach;
  const nothing = changes.length + reach.listings.length + begin + end + retimed.total === 0;
  return (
    <>
      <Issues issues={reach.issues} title="Could not be" />
      {nothing && reach.done && reach.issues.length === 0 && (
        <p className="text-muted">No page changes.</p>
      )}
      {begin > reach.issues.length && (
        <p className="text-muted">{`${counted(begin, 'address', 'addresses')} in all could not be had, now or later.`}</p>
      )}
      <ul>
        {end > 0 && (
          <li className="py-0.5">
            {`${counted(end, 'address', 'addresses')} that cannot be had, or will not, can then.`}
          </li>
        )}
        {changes.map((change) => (
          <li key={change} className="py-0.5">
            <details>
              <summary className="cursor-pointer">
                {counted(reach.counts[change], WORDS[change][0], WORDS[change][1])}
              </summary>
              <ul className="pl-4">
                {reach.examples[change].map((example, i) => (
                  <Example key={i} example={example} onCompare={onCompare} />
                ))}
              </ul>
            </details>
          </li>
        ))}
        {retimed.total > 0 && <Retimed {...{ retimed, clock }} />}
        {reach.listings.map(({ label, totals }) => (
          <li key={label} className="py-0.5">{`${label}: ${listingWords(totals)}`}</li>
        ))}
      </ul>
    </>
  );
}

/** Live entries that leave at another time than before. */
function Retimed({ retimed: { total, first }, clock }: Pick<Reach, 'retimed'> & { clock: Clock }) {
  const words = (at: number | null): string =>
    at === null ? 'not by itself' : instantWords(at, clock.zone, clock.now);
  return (
    <li className="py-0.5">
      <details>
        <summary className="cursor-pointer">
          {counted(total, 'live entry leaves', 'live entries leave')} at another time
        </summary>
        <ul className="pl-4">
          {first.map(({ entry, name, was, leaves }) => (
            <li key={entry}>{`${name}: ${words(leaves)}, was ${words(was)}`}</li>
          ))}
          {total > first.length && (
            <li className="text-muted">{`… ${counted(total - first.length, 'other')}`}</li>
          )}
        </ul>
      </details>
    </li>
  );
}

function listingWords([before, after]: Reach['listings'][number]['totals']): string {
  if (before === null) return `is new, with ${counted(after!, 'entry', 'entries')}`;
  if (after === null) return 'goes';
  if (before === after) return `${counted(after, 'entry', 'entries')}, others or in another order`;
  return `${before.toLocaleString('en')} → ${counted(after, 'entry', 'entries')}`;
}

function Example({
  example,
  onCompare,
}: {
  example: ReachExample;
  onCompare: (example: ReachExample) => void;
}) {
  const { from, to, titles, html } = example;
  const where = from === to ? from : [from, to].filter((p) => p !== null).join(' → ');
  const [was, is] = titles;
  return (
    <li className="flex min-h-7 items-center justify-between gap-2">
      <span className="min-w-0 [overflow-wrap:anywhere]">
        <span className="font-mono text-note">{where}</span>{' '}
        <span className="text-muted">
          {was !== '' && is !== '' && was !== is && `“${was}” → “${is}”`}
        </span>
      </span>
      {html.some((h) => h !== null) && (
        <button
          type="button"
          className="button-quiet h-6 shrink-0"
          onClick={() => onCompare(example)}
        >
          Compare
        </button>
      )}
    </li>
  );
}

/** A page before and after, side by side. */
function Compare({
  example,
  at,
  onClose,
}: {
  example: ReachExample;
  at: number;
  onClose: () => void;
}) {
  const sides = [
    ['Before', example.from, example.html[0]],
    ['After', example.to, example.html[1]],
  ] as const;
  return (
    <FullDialog open onOpenChange={onClose} title="Before and after" actions={null}>
      <div className="grid min-h-0 flex-1 grid-cols-2 divide-x divide-rule">
        {sides.map(([side, path, html]) => (
          <div key={side} className="flex min-h-0 flex-col">
            {html === null ? (
              <p className="p-6 text-muted">{`${side}: there is no such page.`}</p>
            ) : (
              <PreviewFrame html={html} title={side} first={`${side} · ${path}`} at={at} />
            )}
          </div>
        ))}
      </div>
    </FullDialog>
  );
}
