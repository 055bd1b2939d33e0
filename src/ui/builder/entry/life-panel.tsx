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
  const scale = lifeScale(clock.at, clock.now, clock.zone);
  const live = detail.spans.some((s) => s.from <= clock.now && (s.to === null || clock.now < s.to));
  const current = detail.spans.some((s) => s.from <= clock.now && (s.to === null || clock.now < s.to) && s.revision === detail.revision);
  const when = (t: number): string => instantWords(t, clock.zone, clock.now);
  const blocked = busy || unsaved;
  const past = clock.tense === 'past';
  return (
    <section aria-label="When it is public" className="border-y border-rule py-3">
      <LifeBar spans={detail.spans} scale={scale} tall />
      <p className="mt-1">{lifeWords(detail.spans, scale)}.</p>
      <ul>
        {detail.plans.map((plan) => (
          <li key={plan.id} className="mt-1 flex flex-wrap items-center gap-x-2 text-amber-text">
            {plan.action === 'retire' ? `Leaves ${when(plan.at)}.` : plan.revision === null ? `What you last saved before ${when(plan.at)} goes live.` : `Version ${plan.revision} goes live ${when(plan.at)}.`}
            {!past && plan.action === 'publish' && plan.revision === null && detail.revision !== null && (
              <button type="button" className="button-quiet" disabled={busy} onClick={() => void onPlan({ action: 'publish', at: new Date(plan.at).toISOString(), revision: detail.revision })}>
                Keep this version instead
              </button>
            )}
            {!past && (
              <button type="button" className="button-quiet" disabled={busy} onClick={() => void onCancel(plan.id)}>
                Cancel
              </button>
            )}
          </li>
        ))}
      </ul>
      {detail.refusals.map((r) => (
        <p key={r.at} className="mt-1 text-alarm">{`${when(r.at)}: ${r.message} ${r.fix}`}</p>
      ))}
      {!past && (
        <div className="mt-2 flex flex-wrap items-end gap-2">
          <button type="button" className={`button ${clock.tense === 'now' && !unsaved && !current ? 'button-main' : ''}`} disabled={blocked || current} onClick={() => void onPlan({ action: 'publish', at: null, revision: null })}>
            {clock.tense === 'now' ? 'Publish now' : `Publish now (today ${localValue(clock.now, clock.zone).slice(11)})`}
          </button>
          <label className="text-note text-muted">
            At ({clock.zone})
            <input type="datetime-local" className="control !w-52" value={at} onChange={(e) => setAt(e.target.value)} />
          </label>
          <button type="button" className={`button ${clock.tense === 'future' && !unsaved ? 'button-main' : ''}`} disabled={blocked || at === ''} onClick={() => void onPlan({ action: 'publish', at, revision: null })}>
            {at === '' ? 'Publish then' : `Publish at ${words(at)}`}
          </button>
          <button type="button" className="button" disabled={busy || at === '' || detail.spans.length === 0} onClick={() => void onPlan({ action: 'retire', at, revision: null })}>
            {at === '' ? 'Retire then' : `Retire at ${words(at)}`}
          </button>
          {live && (
            <button type="button" className="button" disabled={busy} onClick={() => void onPlan({ action: 'retire', at: null, revision: null })}>
              Retire now
            </button>
          )}
        </div>
      )}
      {!past && unsaved && <p className="mt-1 text-note text-muted">Save first: publishing takes what is saved.</p>}
    </section>
  );
}

/** A date-time control's value in words: "Thu 12 Mar, 08:00". */
function words(local: string): string {
  return instantWords(Date.parse(`${local}:00Z`), 'UTC', Date.parse(`${local}:00Z`));
}
