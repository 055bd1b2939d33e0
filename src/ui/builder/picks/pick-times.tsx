import { useState } from 'react';
import type { Clock } from '@/server/queries/clock.ts';
import type { PickLine } from '@/server/queries/picks.ts';
import { isoInZone } from '@/core/time/zone.ts';
import { InstantField, exactInstant } from '../instant/instant-field.tsx';
import type { Times } from './picking.ts';

/** From when and until when an entry stands in picks. */
export function PickTimes({
  line: { name, from, to },
  clock: { zone, now },
  busy,
  onSet,
}: {
  line: PickLine;
  clock: Clock;
  busy: boolean;
  onSet: (times: Times) => void;
}) {
  const words = (at: number | null): string =>
    at === null ? '' : isoInZone(at, zone).slice(0, 16).replace('T', ' ');
  const [start, setStart] = useState(words(from));
  const [end, setEnd] = useState(words(to));
  const isAhead = from !== null && from > now;
  const read = { from: exactInstant(start, now, zone), to: exactInstant(end, now, zone) };
  const isWrong = (isAhead && start.trim() !== '' && !read.from) || (end.trim() !== '' && !read.to);
  return (
    <form
      aria-label={`When ${name} is in`}
      className="grid grid-cols-[72px_minmax(0,1fr)] gap-y-2 pb-2 pl-8"
      onSubmit={(event) => {
        event.preventDefault();
        onSet({ from: isAhead ? read.from : null, to: read.to });
      }}
    >
      {isAhead && (
        <>
          <span className="pt-1.5 text-muted">Joins</span>
          <InstantField
            label={`${name} joins at (${zone})`}
            value={start}
            {...{ zone, now }}
            onChange={setStart}
          />
        </>
      )}
      <span className="pt-1.5 text-muted">Leaves</span>
      <InstantField
        label={`${name} leaves at (${zone})`}
        value={end}
        {...{ zone, now }}
        onChange={setEnd}
      />
      <span />
      <span className="flex items-center gap-3">
        <button type="submit" className="button" disabled={busy || isWrong}>
          Set
        </button>
        <span className="text-note text-muted">Blank: it does not leave by itself.</span>
      </span>
    </form>
  );
}
