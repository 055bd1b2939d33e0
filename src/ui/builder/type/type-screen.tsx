'use client';

import { useState } from 'react';
import type { Clock } from '@/server/queries/clock.ts';
import type { TypeDetail, TypeOutcome } from '@/server/queries/type.ts';
import { Tabs } from '@/ui/primitives/tabs.tsx';
import { entryHref } from '../format.ts';
import { lookingOf } from '../looking.ts';
import { OnBench } from '../on-bench.tsx';
import { DesignFoot } from '../design-foot.tsx';
import { reachOf } from '../reach/reach-of.ts';
import { Panes } from '../panes.tsx';
import { PatternWorldProvider } from '../pattern-world.tsx';
import { PreviewFrame } from '../preview-frame.tsx';
import { ClockLink } from '../shell/clock-link.tsx';
import { Snippet } from '../snippet.tsx';
import { SpecimenChoice } from '../specimen-choice.tsx';
import { useDesignReadOnly } from '../rights.tsx';
import { useOutcome } from '../use-outcome.ts';
import { useWhen } from '../use-when.ts';
import { DesignTense, useRelease } from '../use-release.tsx';
import { BindingChain } from './binding-chain.tsx';
import { DuplicateType } from './duplicate-type.tsx';
import { TakeAway } from './take-away.tsx';
import { renaming } from './renaming.ts';
import { useTypeEdits } from './use-type-edits.ts';

/** A content type as a chain of bindings, each with what it gives for one entry. */
export function TypeScreen({
  detail,
  outcome: first,
  specimen: firstSpecimen,
  opened,
  from,
  clock,
}: {
  detail: TypeDetail;
  outcome: TypeOutcome;
  specimen: string | null;
  /** Id of the field that is opened; null for none. */
  opened: string | null;
  /** Id of the entry that one comes from; null where one does not. */
  from: string | null;
  clock: Clock;
}) {
  const { id } = detail.spec;
  const edits = useTypeEdits(detail);
  const { spec, changed } = edits;
  const [specimen, setSpecimen] = useState(firstSpecimen);
  const { outcome, problem } = useOutcome<TypeOutcome>(
    'type',
    { ...lookingOf(clock), id, steps: edits.steps, specimen },
    first,
    changed || specimen !== firstSpecimen,
  );
  const readOnly = useDesignReadOnly(clock);
  const release = useRelease({
    edits,
    allowed: !readOnly,
    found: outcome.issues,
    clock,
  });
  const rename = renaming(release.attempt);
  return (
    <Panes
      problem={clock.problem}
      title={detail.spec.label}
      lead={<Lead description={detail.spec.description} from={from} />}
      actions={release.buttons}
      settings={
        <div className="flex flex-col gap-3">
          <OnBench lines={detail.onBench} />
          <DesignTense clock={clock} changed={changed} />
          <PatternWorldProvider type={detail.spec.key} {...{ specimen, clock }}>
            <BindingChain
              {...{ spec, detail, outcome, clock, opened, readOnly }}
              onChange={edits.change}
              onRename={rename}
            />
          </PatternWorldProvider>
          {!readOnly && (
            <div className="flex flex-wrap gap-4">
              <DuplicateType detail={detail} attempt={release.attempt} />
              <TakeAway detail={detail} attempt={release.attempt} />
            </div>
          )}
        </div>
      }
      foot={
        <DesignFoot {...{ release, clock }} reach={reachOf(clock, edits.steps, outcome.issues)} />
      }
      outcome={
        <>
          <SpecimenChoice specimens={detail.specimens} chosen={specimen} onChoose={setSpecimen} />
          <OutcomeTabs outcome={outcome} problem={problem} clock={clock} changed={changed} />
        </>
      }
    />
  );
}

/** What the type is for, and the way back to the entry that one comes from. */
function Lead({ description, from }: { description: string; from: string | null }) {
  if (from === null) return description;
  return (
    <>
      {description === '' ? '' : `${description} · `}
      <ClockLink className="underline" href={entryHref(from)}>
        Back to the entry
      </ClockLink>
    </>
  );
}

/** Page, card and search result of the specimen. */
function OutcomeTabs({
  outcome,
  problem,
  clock,
  changed,
}: {
  outcome: TypeOutcome;
  problem: string | null;
  clock: Clock;
  changed: boolean;
}) {
  const { specimen, automatic, page, noPath, card, title, description, shownAt } = outcome;
  const when = useWhen(clock);
  const first = `Page of ${specimen} · ${when}${automatic ? ' · automatic' : ''}${changed ? ' · with unsaved settings' : ''}`;
  const frame = { at: clock.at };
  const tabs = [
    {
      key: 'page',
      label: 'Page',
      content: (
        <Frame
          {...frame}
          html={page}
          none={noPath ?? 'No page'}
          first={problem ?? first}
          title="Page"
        />
      ),
    },
    {
      key: 'card',
      label: 'Card',
      content: (
        <Frame {...frame} html={card} none="No card" first={`Card of ${specimen}`} title="Card" />
      ),
    },
    {
      key: 'seo',
      label: 'Search result',
      content: (
        <div className="p-6">
          <Snippet title={title} description={description} url={shownAt} />
        </div>
      ),
    },
  ];
  return <Tabs label="Outcome" tabs={tabs} />;
}

function Frame({
  html,
  none,
  first,
  at,
  title,
}: {
  html: string | null;
  none: string;
  first: string;
  at: number;
  title: string;
}) {
  return (
    <div className="flex h-full flex-col">
      {html === null ? (
        <p className="p-6 text-muted">{none}</p>
      ) : (
        <PreviewFrame html={html} title={title} first={first} at={at} />
      )}
    </div>
  );
}
