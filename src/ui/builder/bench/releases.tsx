import type { BenchDetail } from '@/server/queries/bench.ts';
import type { Clock } from '@/server/queries/clock.ts';
import type { ReleaseLine } from '@/server/queries/releases.ts';
import { counted, instantWords } from '../format.ts';
import type { Bench } from './use-bench.ts';

/** The releases that are planned, and the last one that was made; each can be taken back. */
export function Releases({
  detail: { planned, last },
  bench,
  clock,
}: {
  detail: BenchDetail;
  bench: Bench;
  clock: Clock;
}) {
  if (planned.length === 0 && !last) return null;
  const when = (at: number): string => instantWords(at, clock.zone, clock.now);
  return (
    <section aria-label="Releases">
      <h2>Releases</h2>
      <ul>
        {planned.map((line) => (
          <Release key={line.release} line={line} amber words={`Planned for ${when(line.at)}`}>
            <button
              type="button"
              className="button-quiet self-start"
              disabled={bench.busy}
              onClick={() => void bench.undoRelease(line.release, true)}
            >
              Cancel
            </button>
          </Release>
        ))}
        {last && (
          <Release line={last} words={`Last, ${when(last.at)}`}>
            <button
              type="button"
              className="button-quiet self-start"
              disabled={bench.busy}
              onClick={() => void bench.undoRelease(last.release, false)}
            >
              {last.undoes ? 'Release it again' : 'Take back now'}
            </button>
          </Release>
        )}
      </ul>
    </section>
  );
}

const SHOWN = 4;

function Release({
  line: { person, sentences, drafts, undoes },
  words,
  amber = false,
  children,
}: {
  line: ReleaseLine;
  words: string;
  amber?: boolean;
  children: React.ReactNode;
}) {
  const what = [
    ...sentences,
    ...(drafts.length === 0 ? [] : [`${counted(drafts.length, 'draft')}: ${drafts.join(', ')}`]),
  ];
  return (
    <li className="grid grid-cols-[minmax(0,1fr)_auto] gap-x-2 border-t border-rule py-1.5">
      <div className="min-w-0 break-words">
        <p className={amber ? 'text-amber-text' : 'text-muted'}>
          {`${words}, by ${person}${undoes ? ', taking an earlier one back' : ''}`}
        </p>
        {what.slice(0, SHOWN).map((sentence, i) => (
          <p key={i}>{sentence}</p>
        ))}
        {what.length > SHOWN && <p className="text-muted">{`… and ${what.length - SHOWN} more`}</p>}
      </div>
      {children}
    </li>
  );
}
