'use client';

import { useState } from 'react';
import type { Clock } from '@/server/queries/clock.ts';
import type { TypeDetail, TypeOutcome } from '@/server/queries/type.ts';
import { Issues, SaidLine } from '@/ui/primitives/issues.tsx';
import { Tabs } from '@/ui/primitives/tabs.tsx';
import { instantWords } from '../format.ts';
import { Panes } from '../panes.tsx';
import { PreviewFrame } from '../preview-frame.tsx';
import { Snippet } from '../snippet.tsx';
import { useOutcome } from '../use-outcome.ts';
import { useEdits } from '../use-edits.ts';
import { DesignTense, useRelease } from '../use-release.tsx';
import { BindingChain } from './binding-chain.tsx';

/** A content type as a chain of bindings, each with what it gives for one entry. */
export function TypeScreen({
  detail,
  outcome: first,
  specimen: firstSpecimen,
  clock,
}: {
  detail: TypeDetail;
  outcome: TypeOutcome;
  specimen: string | null;
  clock: Clock;
}) {
  const edits = useEdits(detail.spec, detail.version);
  const { spec, changed } = edits;
  const { key } = detail.spec;
  const [specimen, setSpecimen] = useState(firstSpecimen);
  const { outcome, problem } = useOutcome<TypeOutcome>(
    'type',
    { at: clock.at, seeing: clock.seeing, key, set: edits.set, specimen },
    first,
    changed || specimen !== firstSpecimen,
  );
  const readOnly = clock.tense !== 'now';
  const { issues, said, buttons, panel } = useRelease({
    part: 'types',
    key,
    edits,
    allowed: !readOnly && outcome.issues.length === 0,
    clock,
  });
  const at = detail.specimens.findIndex((s) => s.id === specimen);
  const stepTo = (i: number): void =>
    setSpecimen(detail.specimens.at(i % detail.specimens.length)?.id ?? null);
  const when = clock.tense === 'now' ? 'now' : instantWords(clock.at, clock.zone, clock.now);

  return (
    <Panes
      title={detail.spec.label}
      lead={detail.spec.description}
      actions={buttons}
      settings={
        <div className="flex flex-col gap-3">
          <SaidLine said={said} />
          <Issues issues={issues} title="Not released" />
          {panel}
          <DesignTense clock={clock} changed={changed} />
          <BindingChain
            spec={spec}
            detail={detail}
            outcome={outcome}
            readOnly={readOnly}
            onChange={edits.change}
          />
        </div>
      }
      outcome={
        <>
          <div className="flex h-10 shrink-0 items-center gap-2 border-b border-rule px-6">
            <label htmlFor="specimen" className="text-muted">
              Shown for
            </label>
            {detail.specimens.length === 0 ? (
              <span>{outcome.specimen}</span>
            ) : (
              <>
                <select
                  id="specimen"
                  className="control !h-7 !w-64"
                  value={specimen ?? ''}
                  onChange={(e) => setSpecimen(e.target.value)}
                >
                  {detail.specimens.map((s) => (
                    <option key={s.id} value={s.id}>
                      {s.name}
                    </option>
                  ))}
                </select>
                <button type="button" className="button-quiet h-7" onClick={() => stepTo(at - 1)}>
                  Previous
                </button>
                <button type="button" className="button-quiet h-7" onClick={() => stepTo(at + 1)}>
                  Next
                </button>
              </>
            )}
          </div>
          <Tabs
            label="Outcome"
            tabs={[
              {
                key: 'page',
                label: 'Page',
                content: (
                  <Frame
                    html={outcome.page}
                    none={outcome.noPath ?? 'No page'}
                    first={
                      problem ??
                      `Page of ${outcome.specimen} · ${when}${outcome.automatic ? ' · automatic' : ''}${changed ? ' · with unsaved settings' : ''}`
                    }
                    at={clock.at}
                    title="Page"
                  />
                ),
              },
              {
                key: 'card',
                label: 'Card',
                content: (
                  <Frame
                    html={outcome.card}
                    none="No card"
                    first={`Card of ${outcome.specimen}`}
                    at={clock.at}
                    title="Card"
                  />
                ),
              },
              {
                key: 'seo',
                label: 'Search result',
                content: (
                  <div className="p-6">
                    <Snippet
                      title={outcome.title}
                      description={outcome.description}
                      url={outcome.path}
                    />
                  </div>
                ),
              },
            ]}
          />
        </>
      }
    />
  );
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
