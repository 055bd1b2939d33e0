'use client';

import { useState } from 'react';
import type { Clock } from '@/server/queries/clock.ts';
import type { EntryDetail } from '@/server/queries/entry.ts';
import { LifeBar, lifeScale, lifeWords } from '../content/life-bar.tsx';
import { instantWords } from '../format.ts';
import { ClockLink } from '../shell/clock-link.tsx';
import { AskPurge } from './ask-purge.tsx';
import { AskRetire } from './ask-retire.tsx';
import { PlanForm } from './plan-form.tsx';
import type { PlanOf } from './use-entry.ts';

interface Props {
  detail: EntryDetail;
  clock: Clock;
  unsaved: boolean;
  busy: boolean;
  onPlan: (input: PlanOf) => Promise<boolean>;
  onCancel: (plan: number) => Promise<boolean>;
  onDelete: () => Promise<boolean>;
}

/** When an entry is public: one line, which unfolds to what can be planned. */
export function TimingLine(props: Props) {
  const { detail, clock, onPlan, onDelete } = props;
  const [open, setOpen] = useState(false);
  const [asking, setAsking] = useState<'retire' | 'delete' | 'purge' | null>(null);
  const past = clock.tense === 'past';
  const live = detail.spans.find((s) => s.from <= clock.now && (s.to === null || clock.now < s.to));
  const current = live?.revision === detail.revision;
  const act = (): Promise<boolean> =>
    asking === 'delete' ? onDelete() : onPlan({ action: 'retire', at: null, revision: null });
  return (
    <section aria-label="When it is public" className="border-y border-rule py-2">
      <ClosedLine {...props} current={current} open={open} onToggle={() => setOpen(!open)} />
      <Plans {...props} />
      {open && !past && (
        <PlanForm
          {...props}
          live={live !== undefined}
          current={current}
          onRetire={() => setAsking('retire')}
          onDelete={() => setAsking('delete')}
          onPurge={() => setAsking('purge')}
        />
      )}
      {asking === 'purge' && (
        <AskPurge id={detail.id!} clock={clock} onClose={() => setAsking(null)} />
      )}
      {asking !== null && asking !== 'purge' && (
        <AskRetire
          what={asking}
          detail={detail}
          clock={clock}
          onClose={() => setAsking(null)}
          onDo={() => void act()}
        />
      )}
    </section>
  );
}

/** The life of an entry in one line, and what is done most: publishing it now. */
function ClosedLine({
  detail,
  clock,
  unsaved,
  busy,
  current,
  open,
  onPlan,
  onToggle,
}: Props & { current: boolean; open: boolean; onToggle: () => void }) {
  const scale = lifeScale(clock.at, clock.now, clock.zone);
  return (
    <div className="flex flex-wrap items-center gap-x-3 gap-y-1">
      <span className="w-36 shrink-0">
        <LifeBar spans={detail.spans} created={null} scale={scale} />
      </span>
      <span className="min-w-0 flex-1">{lifeWords(detail.spans, scale)}</span>
      {clock.tense === 'now' && !current && (
        <button
          type="button"
          className={`button ${unsaved ? '' : 'button-main'}`}
          disabled={busy || unsaved}
          title={unsaved ? 'Save first: publishing takes what is saved.' : undefined}
          onClick={() => void onPlan({ action: 'publish', at: null, revision: null })}
        >
          Publish now
        </button>
      )}
      <button type="button" className="button-quiet h-8" aria-expanded={open} onClick={onToggle}>
        Timing
      </button>
    </div>
  );
}

/** What is planned, as sentences, and what could not be had. */
function Plans({ detail, clock, busy, onPlan, onCancel }: Props) {
  const when = (t: number): string => instantWords(t, clock.zone, clock.now);
  const past = clock.tense === 'past';
  return (
    <>
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
                {plan.action === 'publish' && plan.revision === null && (
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
      {detail.byRules.map(({ at, action }) => (
        <p key={at} className="mt-1 text-amber-text">
          {`${action === 'retire' ? 'Leaves' : 'Goes live'} ${when(at)}, by a `}
          <ClockLink className="underline" href={`/build/types/${detail.type.key}`}>
            {`timing rule of ${detail.type.label}`}
          </ClockLink>
          .
        </p>
      ))}
      {detail.refusals.map((r) => (
        <p key={r.at} className="mt-1 text-alarm">{`${when(r.at)}: ${r.message} ${r.fix}`}</p>
      ))}
    </>
  );
}
