import type { Clock } from '@/server/queries/clock.ts';
import type { Starter } from '@/server/queries/starters.ts';
import { instantWords } from '../format.ts';
import { ClockLink } from '../shell/clock-link.tsx';
import { starterHref } from './starter-href.ts';

/** The starters of a type, each with the way to a new entry from it, and to a new starter. */
export function StarterLines({
  type: { key, label },
  starters,
  clock: { zone, now },
}: {
  type: { key: string; label: string };
  starters: Starter[];
  clock: Clock;
}) {
  return (
    <div className="py-1.5">
      {starters.length === 0 ? (
        <p className="text-muted">
          {`None. A starter is a filled form that new entries begin with; it is never public. “Make a starter” on any ${label} makes one of it.`}
        </p>
      ) : (
        <ul>
          {starters.map(({ id, name, author, saved }) => (
            <li key={id} className="flex flex-wrap items-baseline gap-x-3 py-0.5">
              <ClockLink className="min-w-0 break-words" href={starterHref(id)}>
                {name}
              </ClockLink>
              <span className="text-note text-muted">
                {`saved ${instantWords(saved, zone, now)} by ${author}`}
              </span>
              <ClockLink
                className="ml-auto"
                href={`/build/content/new/${key}?starter=${encodeURIComponent(id)}`}
                aria-label={`New ${label} from ${name}`}
              >
                New from it
              </ClockLink>
            </li>
          ))}
        </ul>
      )}
      <p className="mt-1">
        <ClockLink className="link" href={`/build/content/starters/new/${key}`}>
          New starter
        </ClockLink>
      </p>
    </div>
  );
}
