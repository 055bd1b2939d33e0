'use client';

import { useRouter } from 'next/navigation';
import { useCallback, useEffect, useState } from 'react';
import type { Issue, Result } from '@/core/issue.ts';
import type { PlanInput } from '@/server/commands/plan-change.ts';
import type { SaveInput } from '@/server/commands/write-entry.ts';
import type { Clock } from '@/server/queries/clock.ts';
import type { EntryDetail, EntryOutcome } from '@/server/queries/entry.ts';
import { Issues, Said } from '@/ui/primitives/issues.tsx';
import { entryHref, instantWords } from '../format.ts';
import { Panes } from '../panes.tsx';
import { useClockParameters } from '../shell/use-clock.ts';
import { useOutcome } from '../use-outcome.ts';
import { EntryForm } from './entry-form.tsx';
import { EntryOutcomePane } from './entry-outcome.tsx';
import { LifePanel } from './life-panel.tsx';
import { useRecovery } from './use-recovery.ts';

/** What the screen can have done. */
export interface EntryActions {
  saveEntry: (input: SaveInput) => Promise<Result<{ id: string; revision: number }>>;
  planChange: (input: PlanInput) => Promise<Result<{ at: number; seen: string }>>;
  cancelPlan: (plan: number) => Promise<Result<{ entry: string }>>;
}

/** One entry: the form at the left, its page with unsaved values at the right. */
export function EntryScreen({ detail, outcome: first, clock, actions }: { detail: EntryDetail; outcome: EntryOutcome; clock: Clock; actions: EntryActions }) {
  const router = useRouter();
  const { keep } = useClockParameters();
  const [values, setValues] = useState(detail.values);
  const [changed, setChanged] = useState(false);
  /** The version the form's values came from; a newer one by somebody else is shown, or refuses the save where there are unsaved words. */
  const [seen, setSeen] = useState(detail.revision);
  const [issues, setIssues] = useState<Issue[]>([]);
  const [said, setSaid] = useState<string | null>(null);
  const [busy, setBusy] = useState(false);
  const recovery = useRecovery(detail, changed ? values : null);
  const unsaved = changed || detail.id === null;
  const { outcome, problem } = useOutcome('entry', { at: clock.at, seeing: clock.seeing, id: detail.id, type: detail.type.key, values: unsaved ? values : null }, first);
  useEffect(() => {
    if (changed || seen === detail.revision) return;
    setValues(detail.values);
    setSeen(detail.revision);
  }, [changed, seen, detail]);
  const readOnly = clock.tense === 'past';

  const change = useCallback((key: string, value: unknown) => {
    setValues((before) => ({ ...before, [key]: value }));
    setChanged(true);
    setSaid(null);
  }, []);
  const attempt = async <T,>(act: () => Promise<Result<T>>, then: (value: T) => string | null): Promise<boolean> => {
    setBusy(true);
    try {
      const result = await act();
      setIssues(result.ok ? [] : result.issues);
      setSaid(result.ok ? then(result.value) : null);
      return result.ok;
    } catch {
      setIssues([{ code: 'unreachable', message: 'The server cannot be reached; nothing was saved.', fix: 'Your words are kept in this browser. Try again in a moment.' }]);
      return false;
    } finally {
      setBusy(false);
    }
  };
  const save = (): Promise<boolean> =>
    attempt(
      () => actions.saveEntry({ id: detail.id, type: detail.type.key, values, seen }),
      ({ id, revision }) => {
        setChanged(false);
        setSeen(revision);
        recovery.forget();
        if (detail.id === null) router.push(keep(entryHref(id)));
        const waiting = detail.plans.find((p) => p.action === 'publish' && p.revision === null);
        if (waiting) return `Saved as version ${revision}. It goes live ${instantWords(waiting.at, clock.zone, clock.now)}.`;
        return `Saved as version ${revision}. Not public until it is published.`;
      },
    );
  const plan = (input: Omit<PlanInput, 'entry'>): Promise<boolean> =>
    attempt(
      () => actions.planChange({ entry: detail.id!, ...input }),
      ({ at, seen }) => (input.at === null ? seen : `${input.action === 'publish' ? 'Goes live' : 'Leaves'} ${instantWords(at, clock.zone, clock.now)}. ${input.action === 'publish' ? `Then: ${seen}` : ''}`),
    );

  const title = detail.id === null ? `New ${detail.type.label.toLowerCase()}` : detail.name;
  return (
    <Panes
      title={title}
      lead={`${detail.type.label} · ${clock.tense === 'now' ? '' : `at ${instantWords(clock.at, clock.zone, clock.now)}: `}${detail.state}${changed ? ' · unsaved changes' : ''}`}
      actions={
        readOnly ? (
          <button type="button" className="button button-main" disabled={busy} onClick={() => void save()}>
            Restore as draft
          </button>
        ) : (
          <button type="button" className={unsaved ? 'button button-main' : 'button'} disabled={busy || !unsaved} onClick={() => void save()}>
            Save
          </button>
        )
      }
      settings={
        <div className="flex flex-col gap-3">
          <Said words={said} />
          <Issues issues={issues} title="Not done" />
          {recovery.found && (
            <p className="border-l-[3px] border-spruce bg-white px-3 py-2">
              {`Unsaved words from ${instantWords(recovery.found.at, clock.zone, clock.now)}${recovery.found.revision !== null && recovery.found.revision !== detail.revision ? `, written on version ${recovery.found.revision},` : ''} are kept in this browser. `}
              <button type="button" className="button-quiet" onClick={() => { setValues(recovery.found!.values); setChanged(true); recovery.taken(); }}>
                Bring them back
              </button>
              <button type="button" className="button-quiet" onClick={recovery.forget}>
                Throw them away
              </button>
            </p>
          )}
          {detail.id !== null && <LifePanel detail={detail} clock={clock} unsaved={changed} busy={busy} onPlan={plan} onCancel={(id) => attempt(() => actions.cancelPlan(id), () => 'The plan is cancelled.')} />}
          {readOnly && <p className="text-amber-text">The past stays as it was: the form shows what had been saved by then and cannot be changed. “Restore as draft” saves it as the newest version.</p>}
          {clock.tense === 'future' && <FutureLine detail={detail} clock={clock} />}
          <EntryForm fields={detail.type.fields} values={values} zone={clock.zone} readOnly={readOnly} issues={[...issues, ...outcome.issues]} onChange={change} />
        </div>
      }
      outcome={<EntryOutcomePane outcome={outcome} clock={clock} problem={problem} />}
    />
  );
}

/** Which version will be public at an instant ahead, where it is not the one in the form. */
function FutureLine({ detail, clock }: { detail: EntryDetail; clock: Clock }) {
  const then = detail.spans.find((s) => s.from <= clock.at && (s.to === null || clock.at < s.to));
  if (!then || then.revision === detail.revision) return null;
  return <p className="text-amber-text">{`Version ${then.revision} will be public then; this form holds version ${detail.revision ?? 1}, the newest.`}</p>;
}
