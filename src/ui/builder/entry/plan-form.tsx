'use client';

import { useState } from 'react';
import { readInstantWords } from '@/core/time/words.ts';
import { isoInZone } from '@/core/time/zone.ts';
import type { Clock } from '@/server/queries/clock.ts';
import { instantWords } from '../format.ts';
import { InstantField } from '../instant/instant-field.tsx';
import { useMay } from '../rights.tsx';
import type { PlanOf } from './use-entry.ts';

interface Props {
  clock: Clock;
  unsaved: boolean;
  busy: boolean;
  /** Whether some version is public now, and whether it is the newest. */
  live: boolean;
  current: boolean;
  onPlan: (input: PlanOf) => Promise<boolean>;
  onRetire: () => void;
  onDelete: () => void;
  onPurge: () => void;
}

/** Publishing and retiring at an instant or now, and deleting. */
export function PlanForm(props: Props) {
  const { clock, unsaved, busy, live, current, onPlan, onRetire, onDelete, onPurge } = props;
  const mayPurge = useMay('purge');
  const ahead = clock.tense === 'future';
  const nowWords = ahead ? ` (today ${isoInZone(clock.now, clock.zone).slice(11, 16)})` : '';
  return (
    <div className="mt-2 grid grid-cols-[72px_minmax(0,1fr)] gap-y-3">
      <span className="pt-1.5 text-muted">Goes live</span>
      <div>
        <At
          {...props}
          action="publish"
          verb="Publish"
          main={ahead && !unsaved}
          disabled={busy || unsaved}
        />
        {ahead && (
          <button
            type="button"
            className="button mt-1"
            disabled={busy || unsaved || current}
            onClick={() => void onPlan({ action: 'publish', at: null, revision: null })}
          >
            {`Publish now${nowWords}`}
          </button>
        )}
        {unsaved && (
          <p className="mt-1 text-note text-muted">Save first: publishing takes what is saved.</p>
        )}
      </div>
      <span className="pt-1.5 text-muted">Leaves</span>
      <div>
        <At {...props} action="retire" verb="Retire" main={false} disabled={busy} />
        <div className="mt-1 flex gap-2">
          <button type="button" className="button" disabled={busy || !live} onClick={onRetire}>
            {`Retire now${nowWords} …`}
          </button>
          <button type="button" className="button" disabled={busy} onClick={onDelete}>
            Delete …
          </button>
          {mayPurge && (
            <button type="button" className="button-quiet" disabled={busy} onClick={onPurge}>
              Purge …
            </button>
          )}
        </div>
      </div>
    </div>
  );
}

interface AtProps extends Props {
  action: PlanOf['action'];
  verb: string;
  /** Whether it is the screen's one filled action. */
  main: boolean;
  disabled: boolean;
}

/** One thing to do at an instant that is typed. */
function At({ action, verb, main, disabled, clock, onPlan }: AtProps) {
  const { zone, now } = clock;
  const looked = clock.tense === 'future' ? isoInZone(clock.at, zone).replace('T', ' ') : '';
  const [value, setValue] = useState(looked);
  const read = readInstantWords(value, now, zone);
  const plan = async (): Promise<void> => {
    const done = await onPlan({ action, at: isoInZone(read!.at, zone), revision: null });
    if (done) setValue('');
  };
  return (
    <div className="flex flex-wrap items-start gap-2">
      <InstantField
        label={`${verb} at (${zone})`}
        zone={zone}
        now={now}
        value={value}
        onChange={setValue}
      />
      <button
        type="button"
        className={`button ${main ? 'button-main' : ''}`}
        disabled={disabled || read === null}
        onClick={() => void plan()}
      >
        {read === null ? `${verb} then` : `${verb} at ${instantWords(read.at, zone, now)}`}
      </button>
    </div>
  );
}
