'use client';

import { useMemo, useState } from 'react';
import { EXAMPLES } from '@/core/style/look-spec.ts';
import { tokensOf } from '@/core/style/sheet.ts';
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
import { useEditsTogether } from '../../use-edits.ts';
import { useOutcome } from '../../use-outcome.ts';
import { DesignTense, useRelease } from '../../use-release.tsx';
import { ColourLines } from './colour-lines.tsx';
import { FontLines } from './font-lines.tsx';
import { NamedStyles, type NamedStyleSpec } from './named-styles.tsx';
import { OwnRules } from './own-rules.tsx';
import { StartChoice } from './start-choice.tsx';
import { type StyleSpec, lookOf } from './style-lines.ts';
import { TypeLines } from './type-lines.tsx';

interface Props {
  detail: StyleDetail;
  outcome: StyleOutcome;
  clock: Clock;
}

/** The style of the site: where it starts, its colours and type, and rules of its own. */
export function StyleScreen({ detail, outcome: first, clock }: Props) {
  const edits = useEditsTogether(useMemo(() => partsOf(detail), [detail]));
  const { specs, changed, steps, change } = edits;
  const spec = specs.style as StyleSpec;
  const [page, setPage] = useState('/');
  const { outcome, problem } = useOutcome<StyleOutcome>(
    'style',
    { ...lookingOf(clock), steps, page },
    first,
    changed || page !== '/',
  );
  const readOnly = useDesignReadOnly(clock);
  const found = outcome.issues;
  const words = page === EXAMPLES ? 'Examples of everything' : page;
  const release = useRelease({ edits, allowed: !readOnly, found, clock });
  const when = clock.tense === 'now' ? 'now' : instantWords(clock.at, clock.zone, clock.now);
  const lines = { spec, readOnly, onChange: (next: StyleSpec) => change('style', next) };
  const hasLook = spec.look !== undefined || spec.css.trim() === '';
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
          {hasLook && (
            <>
              <ColourLines {...lines} />
              <TypeLines {...lines} />
            </>
          )}
          <FontLines {...lines} hasLook={hasLook} />
          <NamedStyles
            styles={detail.styles.map(({ id }) => specs[`styles/${id}`] as NamedStyleSpec)}
            latest={detail.styles}
            colours={hasLook ? coloursOf(spec) : null}
            language={detail.language}
            attempts={release}
            readOnly={readOnly}
            onChange={(style) => change(`styles/${style.id}`, style)}
            onOpen={() => setPage(EXAMPLES)}
          />
          <OwnRules {...lines} issues={outcome.issues} />
        </div>
      }
      foot={<DesignFoot {...{ release, clock }} reach={reachOf(clock, steps, outcome.issues)} />}
      outcome={
        <ShownOn
          {...{ page, setPage, outcome }}
          pages={detail.pages}
          first={problem ?? `${words} · ${when}${changed ? ' · with unsaved style' : ''}`}
          at={clock.at}
        />
      }
    />
  );
}

/** All that is edited here, by its path. */
function partsOf({ spec, styles }: StyleDetail): Record<string, object> {
  const named = styles.map((style) => [`styles/${style.id}`, style] as const);
  return { style: spec, ...Object.fromEntries(named) };
}

function coloursOf(spec: StyleSpec) {
  const { light, dark } = tokensOf(lookOf(spec));
  return [light, dark] as const;
}

/** A page in the style, and the choice of which. */
function ShownOn({
  page,
  setPage,
  pages,
  outcome,
  first,
  at,
}: {
  page: string;
  setPage: (page: string) => void;
  pages: readonly string[];
  outcome: StyleOutcome;
  first: string;
  at: number;
}) {
  return (
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
            {pages.map((path) => (
              <option key={path}>{path}</option>
            ))}
          </select>
        </Line>
      </div>
      <PreviewFrame
        html={outcome.html}
        css={outcome.css}
        title="Page in this style"
        {...{ first, at }}
      />
    </>
  );
}
