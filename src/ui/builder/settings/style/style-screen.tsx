'use client';

import { useState } from 'react';
import { EXAMPLES } from '@/core/style/look-spec.ts';
import type { Clock } from '@/server/queries/clock.ts';
import type { StyleDetail, StyleOutcome } from '@/server/queries/style.ts';
import { Line } from '@/ui/primitives/line.tsx';
import { DesignFoot } from '../../design-foot.tsx';
import { instantWords } from '../../format.ts';
import { lookingOf } from '../../looking.ts';
import { OnBench } from '../../on-bench.tsx';
import { Panes } from '../../panes.tsx';
import { PreviewFrame } from '../../preview-frame.tsx';
import { reachOf } from '../../reach/reach-of.ts';
import { useDesignReadOnly } from '../../rights.tsx';
import { useEdits } from '../../use-edits.ts';
import { useOutcome } from '../../use-outcome.ts';
import { DesignTense, useRelease } from '../../use-release.tsx';
import { ColourLines } from './colour-lines.tsx';
import { OwnRules } from './own-rules.tsx';
import { StartChoice } from './start-choice.tsx';
import { TypeLines } from './type-lines.tsx';

interface Props {
  detail: StyleDetail;
  outcome: StyleOutcome;
  clock: Clock;
}

/** The style of the site: where it starts, its colours and type, and rules of its own. */
export function StyleScreen({ detail, outcome: first, clock }: Props) {
  const edits = useEdits('style', detail.spec);
  const { spec, changed, steps } = edits;
  const [page, setPage] = useState('/');
  const { outcome, problem } = useOutcome<StyleOutcome>(
    'style',
    { ...lookingOf(clock), steps, page },
    first,
    changed || page !== '/',
  );
  const readOnly = useDesignReadOnly(clock);
  const found = outcome.issues;
  const release = useRelease({ edits, allowed: !readOnly, found, clock });
  const when = clock.tense === 'now' ? 'now' : instantWords(clock.at, clock.zone, clock.now);
  const lines = { spec, readOnly, onChange: edits.change };
  return (
    <Panes
      problem={clock.problem}
      title="Style"
      lead="What every page looks like."
      actions={release.buttons}
      settings={
        <div className="flex flex-col gap-3">
          <OnBench lines={detail.onBench} />
          <DesignTense clock={clock} changed={changed} />
          <StartChoice {...lines} />
          {(spec.look || spec.css.trim() === '') && (
            <>
              <ColourLines {...lines} />
              <TypeLines {...lines} />
            </>
          )}
          <OwnRules {...lines} issues={outcome.issues} />
        </div>
      }
      foot={<DesignFoot {...{ release, clock }} reach={reachOf(clock, steps, outcome.issues)} />}
      outcome={
        <>
          <div className="border-b border-rule px-6 py-1">
            <Line label="Shown on" htmlFor="style-page">
              <select
                id="style-page"
                className="control"
                value={page}
                onChange={(e) => setPage(e.target.value)}
              >
                <option value={EXAMPLES}>Examples of everything</option>
                {detail.pages.map((path) => (
                  <option key={path}>{path}</option>
                ))}
              </select>
            </Line>
          </div>
          <PreviewFrame
            html={outcome.html}
            css={outcome.css}
            title="Page in this style"
            first={
              problem ??
              `${page === EXAMPLES ? 'Examples of everything' : page} · ${when}${changed ? ' · with unsaved style' : ''}`
            }
            at={clock.at}
          />
        </>
      }
    />
  );
}
