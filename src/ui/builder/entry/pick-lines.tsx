import { useState } from 'react';
import type { Clock } from '@/server/queries/clock.ts';
import type { EntryDetail } from '@/server/queries/entry.ts';
import type { EntryPicks } from '@/server/queries/picks.ts';
import { picking } from '../picks/picking.ts';
import { stretchWords } from '../picks/stretch-words.ts';
import { ClockLink } from '../shell/clock-link.tsx';
import type { Attempts } from '../use-attempts.ts';

interface Props {
  detail: EntryDetail;
  clock: Clock;
  busy: boolean;
  attempt: Attempts['attempt'];
}

/** In which picks an entry stands: those of its type, and others; changed at once. */
export function PickLines(props: Props) {
  const { detail, clock } = props;
  const { picks } = detail;
  if (picks.length === 0) return null;
  const shown = picks.filter(({ isPreset, stretches }) => isPreset || stretches.length > 0);
  const rest = picks.filter((own) => !shown.includes(own));
  const isIn = shown.filter(({ stretches }) => stretches.some((s) => s.isIn)).length;
  return (
    <details className="border-t border-rule pt-2">
      <summary className="cursor-pointer font-medium">
        Picks
        <span className="font-normal text-muted">
          {detail.id === null ? joining(shown) : isIn === 0 ? ': in none' : `: in ${isIn}`}
        </span>
      </summary>
      <ul>
        {shown.map((own) => (
          <PicksOf key={own.picks.id} {...props} {...own} />
        ))}
      </ul>
      {detail.id !== null && clock.tense === 'now' && rest.length > 0 && (
        <AddTo {...props} picks={rest} />
      )}
    </details>
  );
}

function joining(shown: EntryPicks[]): string {
  if (shown.length === 0) return ': joins none';
  return `: joins ${shown.map(({ picks }) => picks.label).join(', ')} when it is saved`;
}

/** How an entry stands to some picks, and what can be done about it. */
function PicksOf({
  detail: { id, name, type },
  clock,
  busy,
  attempt,
  picks,
  isPreset,
  stretches,
}: Props & EntryPicks) {
  const own = picking(picks, attempt);
  const canChange = id !== null && clock.tense === 'now';
  const why = isPreset ? 'as the type has it' : 'joined here';
  return (
    <li className="py-1">
      <ClockLink className="link" href={`/build/listings/picks/${picks.key}`}>
        {picks.label}
      </ClockLink>
      {stretches.map((stretch) => (
        <span key={stretch.id} className="flex items-center gap-3">
          <span className={`flex-1 ${stretch.isIn ? 'text-muted' : 'text-amber-text'}`}>
            {[stretch.isIn ? 'In it' : 'Joins it', stretchWords(stretch, clock), `(${why})`].join(
              ' ',
            )}
          </span>
          {canChange && (
            <button
              type="button"
              className="button-quiet"
              disabled={busy}
              aria-label={`Take it out of ${picks.label}`}
              onClick={() => own.takeOut({ id: stretch.id, name })}
            >
              Take out
            </button>
          )}
        </span>
      ))}
      {stretches.length === 0 && id !== null && (
        <span className="flex items-center gap-3">
          <span className="flex-1 font-medium">
            {`Not in it, though new entries of ${type.label} join it`}
          </span>
          {canChange && (
            <button
              type="button"
              className="button-quiet"
              disabled={busy}
              aria-label={`${picks.label}: as the type has it`}
              onClick={() => own.add({ id, name })}
            >
              Go back
            </button>
          )}
        </span>
      )}
      {id === null && <span className="block text-muted">Joins it when it is saved first.</span>}
    </li>
  );
}

/** Lets it stand in other picks. */
function AddTo({ detail: { id, name }, busy, attempt, picks }: Props & { picks: EntryPicks[] }) {
  const [chosen, setChosen] = useState('');
  const own = picks.find(({ picks: one }) => one.id === chosen)?.picks;
  return (
    <div className="flex max-w-[420px] gap-2 py-1">
      <select
        className="control"
        aria-label="Other picks"
        value={own?.id ?? ''}
        onChange={(e) => setChosen(e.target.value)}
      >
        <option value="">Add to other picks …</option>
        {picks.map(({ picks: one }) => (
          <option key={one.id} value={one.id}>
            {one.label}
          </option>
        ))}
      </select>
      <button
        type="button"
        className="button shrink-0"
        disabled={busy || !own}
        onClick={() => own && picking(own, attempt).add({ id: id!, name })}
      >
        Add
      </button>
    </div>
  );
}
