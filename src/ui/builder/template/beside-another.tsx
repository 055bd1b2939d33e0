'use client';

import { useState } from 'react';
import type { Step } from '@/core/design-edit/steps.ts';
import type { Clock } from '@/server/queries/clock.ts';
import type { TemplateDetail } from '@/server/queries/template.ts';
import type { TemplateOutcome } from '@/server/queries/template-outcome.ts';
import { lookingOf } from '../looking.ts';
import { PreviewFrame } from '../preview-frame.tsx';
import { SpecimenChoice } from '../specimen-choice.tsx';
import { useAsked } from '../use-asked.ts';

/** What a template makes of one entry, beside what it makes of another. */
export function BesideAnother({
  outcome,
  detail: { spec, specimens },
  specimen,
  steps,
  clock,
}: {
  outcome: TemplateOutcome;
  detail: TemplateDetail;
  specimen: string | null;
  steps: Step[];
  clock: Clock;
}) {
  const next = specimens.find(({ id }) => id !== specimen)?.id ?? null;
  const [chosen, setChosen] = useState(next);
  const asked = { ...lookingOf(clock), id: spec.id, steps, specimen: chosen };
  const { answer: other, problem } = useAsked<TemplateOutcome>('template', asked);
  return (
    <div className="grid h-full min-h-0 grid-cols-2">
      <Page outcome={outcome} clock={clock} />
      <div className="flex min-h-0 min-w-0 flex-col border-l border-rule">
        <SpecimenChoice id="other" isNarrow {...{ specimens, chosen }} onChoose={setChosen} />
        {problem !== null && <p className="px-6 py-2 text-alarm">{problem}</p>}
        {other && <Page outcome={other} clock={clock} />}
      </div>
    </div>
  );
}

function Page({
  outcome: { html, none, shownFor },
  clock,
}: {
  outcome: TemplateOutcome;
  clock: Clock;
}) {
  if (html === null) return <p className="p-6 text-muted">{none}</p>;
  return (
    <div className="flex min-h-0 min-w-0 flex-1 flex-col">
      <PreviewFrame {...{ html }} first={shownFor} title={`Page of ${shownFor}`} at={clock.at} />
    </div>
  );
}
