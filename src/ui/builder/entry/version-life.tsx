import type { Clock } from '@/server/queries/clock.ts';
import type { Version } from '@/server/queries/versions.ts';
import { dayWords, instantWords } from '../format.ts';

interface Stretch {
  number: number;
  from: number;
  /** Null for no end known. */
  to: number | null;
}

/** Beyond what is known the bar goes on for so much of its length. */
const ON = 0.08;
/** A stretch of less of the bar, per cent, has no room for its number. */
const LEAST_NUMBERED = 4;

/** Which version was public when, on one bar; a stretch leads to its version. */
export function VersionLife({
  versions,
  clock,
  chosen,
  onChoose,
}: {
  versions: readonly Version[];
  clock: Clock;
  chosen: number;
  onChoose: (number: number) => void;
}) {
  const stretches: Stretch[] = versions
    .flatMap(({ number, live }) => live.map((interval) => ({ ...interval, number })))
    .sort((a, b) => a.from - b.from);
  if (stretches.length === 0) return null;
  const { at, now, zone } = clock;
  const first = stretches[0]!.from;
  const known = Math.max(now, at, ...stretches.map(({ from, to }) => to ?? from));
  const end = known + (known - first) * ON + 1;
  const place = (t: number): number => ((t - first) / (end - first)) * 100;
  const when = (t: number): string => instantWords(t, zone, now);
  return (
    <figure aria-label="Which version was public when">
      <div className="relative h-9 border-b border-edge">
        {stretches.map(({ number, from, to }) => {
          const [left, right] = [place(from), place(to ?? end)];
          const words = to === null ? `from ${when(from)} on` : `${when(from)} to ${when(to)}`;
          const tone = from > now ? 'stretch-planned' : 'bg-spruce text-white';
          return (
            <button
              key={from}
              type="button"
              title={`Version ${number}: ${words}`}
              aria-label={`Version ${number}, public ${words}`}
              aria-pressed={chosen === number}
              className={`absolute top-1 bottom-0 cursor-pointer overflow-hidden border-r border-white text-center text-note tabular-nums ${tone} ${chosen === number ? 'font-semibold' : ''}`}
              style={{ left: `${left}%`, width: `max(4px, ${right - left}%)` }}
              onClick={() => onChoose(number)}
            >
              {right - left < LEAST_NUMBERED ? '' : number}
            </button>
          );
        })}
        {/* What lies ahead is lighter: it is not certain. */}
        <i
          aria-hidden
          className="pointer-events-none absolute top-1 right-0 bottom-0 bg-white/55"
          style={{ left: `${place(now)}%` }}
        />
        {at >= first && (
          <i
            aria-hidden
            className="absolute -top-1 -bottom-1 border-l-2 border-amber-mark"
            style={{ left: `${place(at)}%` }}
          />
        )}
      </div>
      <figcaption className="relative flex justify-between text-note text-muted">
        <span>{dayWords(first, zone)}</span>
        <span>{`Version ${chosen} is compared below`}</span>
      </figcaption>
    </figure>
  );
}
