'use client';

import { useState } from 'react';
import type { Result } from '@/core/issue.ts';
import type { DesignEdit } from '@/server/commands/release-design.ts';
import type { Clock } from '@/server/queries/clock.ts';
import type { ListingDetail, ListingOutcome } from '@/server/queries/listing.ts';
import { Issues, Said } from '@/ui/primitives/issues.tsx';
import { Tabs } from '@/ui/primitives/tabs.tsx';
import { instantWords } from '../format.ts';
import { Panes } from '../panes.tsx';
import { PreviewFrame } from '../preview-frame.tsx';
import { useOutcome } from '../use-outcome.ts';
import { useRelease } from '../use-release.tsx';
import { InSide, LeftOutSide } from './listing-sides.tsx';
import { QuerySentence } from './query-sentence.tsx';

/** A listing: its query as a sentence, who is in, who is left out and why. */
export function ListingScreen({
  detail,
  outcome: first,
  clock,
  release,
}: {
  detail: ListingDetail;
  outcome: ListingOutcome;
  clock: Clock;
  release: (edit: DesignEdit) => Promise<Result<{ at: number }>>;
}) {
  const [spec, setSpec] = useState(detail.spec);
  const [find, setFind] = useState('');
  const { outcome, problem } = useOutcome<ListingOutcome>(
    'listing',
    { at: clock.at, seeing: clock.seeing, key: detail.spec.key, spec, find },
    first,
  );
  const readOnly = clock.tense !== 'now';
  const { changed, issues, said, buttons } = useRelease({
    part: 'listings',
    saved: detail.spec,
    spec,
    undo: () => setSpec(detail.spec),
    allowed: !readOnly && outcome.issues.length === 0,
    clock,
    release,
  });
  return (
    <Panes
      title={detail.spec.label}
      lead={detail.spec.address ?? 'Stands inside templates only'}
      actions={buttons}
      settings={
        <div className="flex flex-col gap-3">
          <Said words={said} />
          <Issues issues={issues} title="Not released" />
          <Issues issues={outcome.issues} title="To mend" />
          {readOnly && (
            <p className="text-amber-text">
              The design is changed at now only; set the clock to now to edit. The result is as of
              the clock.
            </p>
          )}
          <QuerySentence spec={spec} detail={detail} readOnly={readOnly} onChange={setSpec} />
        </div>
      }
      outcome={
        <>
          <p className="border-b border-rule px-6 py-2 text-note font-semibold">
            {problem ??
              `${detail.spec.label} · ${clock.tense === 'now' ? 'now' : instantWords(clock.at, clock.zone, clock.now)}${changed ? ' · with unsaved settings' : ''}`}
          </p>
          <Tabs
            label="Result"
            tabs={[
              { key: 'in', label: `In (${outcome.total})`, content: <InSide outcome={outcome} /> },
              ...(outcome.page === null
                ? []
                : [
                    {
                      key: 'page',
                      label: 'Page',
                      content: (
                        <div className="flex h-full flex-col">
                          <PreviewFrame
                            html={outcome.page}
                            title="Page"
                            first={`First page at ${spec.address ?? '/'}`}
                            at={clock.at}
                          />
                        </div>
                      ),
                    },
                  ]),
              {
                key: 'out',
                label: `Left out (${outcome.leftOutTotal})`,
                content: (
                  <LeftOutSide outcome={outcome} clock={clock} find={find} onFind={setFind} />
                ),
              },
            ]}
          />
        </>
      }
    />
  );
}
