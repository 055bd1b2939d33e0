'use client';

import { useState } from 'react';
import type { Issue, Result } from '@/core/issue.ts';
import type { DesignEdit } from '@/server/commands/release-design.ts';
import type { Clock } from '@/server/queries/clock.ts';
import type { TypeDetail, TypeOutcome } from '@/server/queries/type.ts';
import { Issues, Said } from '@/ui/primitives/issues.tsx';
import { Tabs } from '@/ui/primitives/tabs.tsx';
import { instantWords } from '../format.ts';
import { Panes } from '../panes.tsx';
import { PreviewFrame } from '../preview-frame.tsx';
import { Snippet } from '../snippet.tsx';
import { useOutcome } from '../use-outcome.ts';
import { BindingChain } from './binding-chain.tsx';

type Spec = TypeDetail['spec'];

/** A content type as a chain of bindings, each with what it gives for one entry. */
export function TypeScreen({ detail, outcome: first, specimen: firstSpecimen, clock, release }: { detail: TypeDetail; outcome: TypeOutcome; specimen: string | null; clock: Clock; release: (edit: DesignEdit) => Promise<Result<{ at: number }>> }) {
  const [spec, setSpec] = useState<Spec>(detail.spec);
  const [specimen, setSpecimen] = useState(firstSpecimen);
  const [issues, setIssues] = useState<Issue[]>([]);
  const [said, setSaid] = useState<string | null>(null);
  const [busy, setBusy] = useState(false);
  const { outcome, problem } = useOutcome<TypeOutcome>('type', { at: clock.at, seeing: clock.seeing, key: detail.spec.key, spec, specimen }, first);
  const changed = JSON.stringify(spec) !== JSON.stringify(detail.spec);
  const readOnly = clock.tense !== 'now';

  const save = async (): Promise<void> => {
    setBusy(true);
    const result = await release({ part: 'types', key: detail.spec.key, spec }).catch(() => null);
    setBusy(false);
    setIssues(result === null ? [{ code: 'unreachable', message: 'The server cannot be reached; nothing was changed.', fix: 'Try again in a moment.' }] : result.ok ? [] : result.issues);
    setSaid(result?.ok ? `Released ${instantWords(result.value.at, clock.zone, clock.now)}. Former addresses lead to the new ones.` : null);
  };
  const at = detail.specimens.findIndex((s) => s.id === specimen);
  const stepTo = (i: number): void => setSpecimen(detail.specimens.at(i % detail.specimens.length)?.id ?? null);
  const when = clock.tense === 'now' ? 'now' : instantWords(clock.at, clock.zone, clock.now);

  return (
    <Panes
      title={detail.spec.label}
      lead={detail.spec.description}
      actions={
        <div className="flex gap-2">
          {changed && (
            <button type="button" className="button" onClick={() => setSpec(detail.spec)}>
              Undo changes
            </button>
          )}
          <button type="button" className={changed ? 'button button-main' : 'button'} disabled={!changed || busy || readOnly || outcome.issues.length > 0} onClick={() => void save()}>
            Save and release now
          </button>
        </div>
      }
      settings={
        <div className="flex flex-col gap-3">
          <Said words={said} />
          <Issues issues={issues} title="Not released" />
          {readOnly && <p className="text-amber-text">The design is changed at now only; set the clock to now to edit.</p>}
          <BindingChain spec={spec} detail={detail} outcome={outcome} readOnly={readOnly} onChange={setSpec} />
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
                <select id="specimen" className="control !h-7 !w-64" value={specimen ?? ''} onChange={(e) => setSpecimen(e.target.value)}>
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
              { key: 'page', label: 'Page', content: <Frame html={outcome.page} none={outcome.noPath ?? 'No page'} first={problem ?? `Page of ${outcome.specimen} · ${when}${outcome.automatic ? ' · automatic' : ''}${changed ? ' · with unsaved settings' : ''}`} at={clock.at} title="Page" /> },
              { key: 'card', label: 'Card', content: <Frame html={outcome.card} none="No card" first={`Card of ${outcome.specimen}`} at={clock.at} title="Card" /> },
              { key: 'seo', label: 'Search result', content: <div className="p-6"><Snippet title={outcome.title} description={outcome.description} url={outcome.path} /></div> },
            ]}
          />
        </>
      }
    />
  );
}

function Frame({ html, none, first, at, title }: { html: string | null; none: string; first: string; at: number; title: string }) {
  return <div className="flex h-full flex-col">{html === null ? <p className="p-6 text-muted">{none}</p> : <PreviewFrame html={html} title={title} first={first} at={at} />}</div>;
}
