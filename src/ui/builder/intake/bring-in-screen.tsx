'use client';

import { useState } from 'react';
import type { Clock } from '@/server/queries/clock.ts';
import type { SourcesDetail } from '@/server/queries/sources.ts';
import { Issues } from '@/ui/primitives/issues.tsx';
import { counted, instantWords } from '../format.ts';
import { LongWork } from '../long-work.tsx';
import { ChooseFiles, DropPlace } from '../media/drop-place.tsx';
import { ClockLink } from '../shell/clock-link.tsx';
import { BusyLine } from '../start/busy-line.tsx';
import { Brought } from './brought.tsx';
import { Mapped } from './mapped.tsx';
import { useBringIn } from './use-bring-in.ts';

type Source = SourcesDetail['sources'][number];

/** Content of other tools: sent, mapped to a type, tried, and brought in; again whenever it changed. */
export function BringInScreen({
  detail: { sources, types },
  clock,
  type,
}: {
  detail: SourcesDetail;
  clock: Clock;
  type: string | null;
}) {
  const bringing = useBringIn();
  const [source, setSource] = useState<Source | null>(null);
  const { sent, busy, issues, done, send } = bringing;
  const pages = types.filter(({ single }) => !single);
  return (
    <main data-area tabIndex={-1} className="min-h-0 flex-1 overflow-y-auto">
      <div className="relative mx-auto flex max-w-[1080px] flex-col gap-4 px-6 py-4">
        <div className="flex items-baseline gap-4">
          <h1>Bring in</h1>
          <ClockLink href="/build/content" className="button-quiet">
            Back to Content
          </ClockLink>
        </div>
        <Issues issues={issues} title="Nothing was changed" answers />
        {done && <Brought done={done} />}
        {busy && <BusyLine {...busy} />}
        <LongWork work={{ busy: busy !== null, job: bringing.job }} />
        {!sent && !busy && (
          <>
            <Choose source={source} onFiles={(files) => void send(files)} />
            {!source && <Sources {...{ sources, clock }} onAgain={setSource} />}
            {source && (
              <button
                type="button"
                className="button-quiet self-start"
                onClick={() => setSource(null)}
              >
                Bring in something else instead
              </button>
            )}
          </>
        )}
        {sent && (
          <Mapped
            key={sent.id}
            {...{ sent, bringing, source, types: pages }}
            first={pages.find(({ key }) => key === (source?.mapping.type ?? type)) ?? pages[0]!}
          />
        )}
      </div>
    </main>
  );
}

function Choose({ source, onFiles }: { source: Source | null; onFiles: (files: File[]) => void }) {
  return (
    <DropPlace className="border border-dashed border-edge bg-white p-6" onFiles={onFiles}>
      <p className="mb-2">
        {source
          ? `Choose “${source.name}” again: what is new and changed comes in, what was changed here stays.`
          : 'Markdown with front matter, CSV, JSON or YAML of other tools, in a folder, a .zip, or one file. Pictures beside them come along.'}
      </p>
      <div className="flex gap-3">
        <ChooseFiles label="Choose a folder" accept="" folder main onFiles={onFiles} />
        <ChooseFiles
          label="Choose files"
          accept=".zip,.md,.markdown,.csv,.tsv,.json,.ndjson,.jsonl,.yaml,.yml"
          onFiles={onFiles}
        />
      </div>
    </DropPlace>
  );
}

/** What was brought in before, to be brought again. */
function Sources({
  sources,
  clock: { zone, now },
  onAgain,
}: {
  sources: Source[];
  clock: Clock;
  onAgain: (source: Source) => void;
}) {
  if (sources.length === 0) return null;
  return (
    <section aria-label="Brought in before">
      <h2>Brought in before</h2>
      <ul>
        {sources.map((source) => (
          <li key={source.id} className="flex items-center gap-3 border-t border-rule py-1">
            <span className="min-w-0 flex-1 truncate">
              <span className="font-medium">{source.name}</span>
              <span className="text-muted">
                {` · ${counted(source.entries, 'entry', 'entries')} of ${source.typeLabel} · ${instantWords(source.at, zone, now)}, ${source.person}`}
              </span>
            </span>
            <button
              type="button"
              className="button-quiet"
              aria-label={`Bring in ${source.name} again`}
              onClick={() => onAgain(source)}
            >
              Bring in again
            </button>
          </li>
        ))}
      </ul>
    </section>
  );
}
