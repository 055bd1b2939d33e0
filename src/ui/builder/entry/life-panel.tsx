'use client';

import { useState } from 'react';
import type { PlanInput } from '@/server/commands/plan-change.ts';
import type { Clock } from '@/server/queries/clock.ts';
import type { EntryDetail } from '@/server/queries/entry.ts';
import { LifeBar, lifeScale, lifeWords } from '../content/life-bar.tsx';
import { instantWords, localValue } from '../format.ts';

interface Props {
  detail: EntryDetail;
  clock: Clock;
  unsaved: boolean;
  busy: boolean;
  onPlan: (input: Omit<PlanInput, 'entry'>) => Promise<boolean>;
  onCancel: (plan: number) => Promise<boolean>;
}

/** When an entry is public: its life, its plans as sentences, and how to change them. */
export function LifePanel({ detail, clock, unsaved, busy, onPlan, onCancel }: Props) {
  const [at, setAt] = useState(clock.tense === 'future' ? localValue(clock.at, clock.zone) : '');
  const [until, setUntil] = useState('');
  const scale = lifeScale(clock.at, clock.now, clock.zone);
  const live = detail.spans.some((s) => s.from <= clock.now && (s.to === null || clock.now < s.to));
  const current = detail.spans.some(
    (s) =>
      s.from <= clock.now && (s.to === null || clock.now < s.to) && s.revision === detail.revision,
  );
  const when = (t: number): string => instantWords(t, clock.zone, clock.now);
  const blocked = busy || unsaved;
  const past = clock.tense === 'past';
  return (
    <section aria-label="When it is public" className="border-y border-rule py-3">
      <LifeBar spans={detail.spans} scale={scale} tall />
      <p className="mt-1">{lifeWords(detail.spans, scale)}.</p>
      <ul>
        {detail.plans.map((plan) => (
          <li key={plan.id} className="mt-1 text-amber-text">
            {plan.action === 'retire'
              ? `Leaves ${when(plan.at)}.`
              : plan.revision === null
                ? `What you last saved before ${when(plan.at)} goes live.`
                : `Version ${plan.revision} goes live ${when(plan.at)}.`}
            {!past && (
              <span className="whitespace-nowrap">
                {plan.action === 'publish' &&
                  plan.revision === null &&
                  detail.revision !== null && (
                    <button
                      type="button"
                      className="button-quiet"
                      disabled={busy}
                      onClick={() =>
                        void onPlan({
                          action: 'publish',
                          at: new Date(plan.at).toISOString(),
                          revision: detail.revision,
                        })
                      }
                    >
                      Keep this version instead
                    </button>
                  )}
                <button
                  type="button"
                  className="button-quiet"
                  disabled={busy}
                  onClick={() => void onCancel(plan.id)}
                >
                  Cancel
                </button>
              </span>
            )}
          </li>
        ))}
      </ul>
      {detail.refusals.map((r) => (
        <p key={r.at} className="mt-1 text-alarm">{`${when(r.at)}: ${r.message} ${r.fix}`}</p>
      ))}
      {!past && (
        <div className="mt-2 flex flex-col gap-1">
          <Act
            label="Goes live"
            verb="Publish"
            clock={clock}
            at={at}
            onAt={setAt}
            main={!unsaved && (clock.tense === 'future' || !current)}
            nowDisabled={blocked || current}
            thenDisabled={blocked}
            onAct={(instant) => void onPlan({ action: 'publish', at: instant, revision: null })}
          />
          {detail.spans.length > 0 && (
            <Act
              label="Leaves"
              verb="Retire"
              clock={clock}
              at={until}
              onAt={setUntil}
              main={false}
              nowDisabled={busy || !live}
              thenDisabled={busy}
              onAct={(instant) => void onPlan({ action: 'retire', at: instant, revision: null })}
            />
          )}
        </div>
      )}
      {!past && (
        <p className="mt-1 text-note text-muted">
          {unsaved ? 'Save first: publishing takes what is saved.' : `Times are in ${clock.zone}.`}
        </p>
      )}
    </section>
  );
}

interface ActProps {
  label: string;
  verb: string;
  clock: Clock;
  at: string;
  onAt: (at: string) => void;
  /** Whether it is the screen's one filled action. */
  main: boolean;
  nowDisabled: boolean;
  thenDisabled: boolean;
  /** With null for now, else a local time. */
  onAct: (at: string | null) => void;
}

/** One thing to do now or at an instant; looking ahead, the instant comes first. */
function Act({ label, verb, clock, at, onAt, main, nowDisabled, thenDisabled, onAct }: ActProps) {
  const ahead = clock.tense === 'future';
  const now = (
    <button
      type="button"
      className={`button ${main && !ahead ? 'button-main' : ''}`}
      disabled={nowDisabled}
      onClick={() => onAct(null)}
    >
      {ahead ? `${verb} now (today ${localValue(clock.now, clock.zone).slice(11)})` : `${verb} now`}
    </button>
  );
  const then = (
    <span className="flex gap-2">
      <input
        type="datetime-local"
        aria-label={`${verb} at (${clock.zone})`}
        title={`Day and time in ${clock.zone}`}
        className="control !w-52"
        value={at}
        onChange={(e) => onAt(e.target.value)}
      />
      <button
        type="button"
        className={`button ${main && ahead ? 'button-main' : ''}`}
        disabled={thenDisabled || at === ''}
        onClick={() => onAct(at)}
      >
        {at === '' ? `${verb} then` : `${verb} at ${words(at)}`}
      </button>
    </span>
  );
  return (
    <div className="grid grid-cols-[72px_minmax(0,1fr)]">
      <span className="pt-1.5 text-muted">{label}</span>
      <div className="flex flex-wrap gap-2">
        {ahead
          ? [<span key="then">{then}</span>, <span key="now">{now}</span>]
          : [<span key="now">{now}</span>, <span key="then">{then}</span>]}
      </div>
    </div>
  );
}

/** A date-time control's value in words: "Thu 12 Mar, 08:00". */
function words(local: string): string {
  return instantWords(Date.parse(`${local}:00Z`), 'UTC', Date.parse(`${local}:00Z`));
}
