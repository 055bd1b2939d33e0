'use client';

import { useRouter } from 'next/navigation';
import { useCallback, useEffect, useState } from 'react';
import type { Issue, Result } from '@/core/issue.ts';
import type { PlanInput } from '@/server/commands/plan-change.ts';
import type { SaveInput } from '@/server/commands/write-entry.ts';
import type { Clock } from '@/server/queries/clock.ts';
import type { EntryDetail, EntryOutcome } from '@/server/queries/entry.ts';
import { entryHref, instantWords } from '../format.ts';
import { useClockParameters } from '../shell/use-clock.ts';
import { useOutcome } from '../use-outcome.ts';
import { useRecovery } from './use-recovery.ts';

/** What the screen can have done. */
export interface EntryActions {
  saveEntry: (input: SaveInput) => Promise<Result<{ id: string; revision: number }>>;
  planChange: (input: PlanInput) => Promise<Result<{ at: number; seen: string }>>;
  cancelPlan: (plan: number) => Promise<Result<{ entry: string }>>;
}

const UNREACHABLE: Issue = {
  code: 'unreachable',
  message: 'The server cannot be reached; nothing was saved.',
  fix: 'Your words are kept in this browser. Try again in a moment.',
};

/** Has things done one at a time, and tells what came of the last. */
function useAttempts(): {
  busy: boolean;
  issues: Issue[];
  said: string | null;
  hush: () => void;
  attempt: <T>(act: () => Promise<Result<T>>, then: (value: T) => string) => Promise<boolean>;
} {
  const [issues, setIssues] = useState<Issue[]>([]);
  const [said, setSaid] = useState<string | null>(null);
  const [busy, setBusy] = useState(false);
  const attempt = async <T>(
    act: () => Promise<Result<T>>,
    then: (value: T) => string,
  ): Promise<boolean> => {
    setBusy(true);
    const result = await act().catch((): Result<T> => ({ ok: false, issues: [UNREACHABLE] }));
    setBusy(false);
    setIssues(result.ok ? [] : result.issues);
    setSaid(result.ok ? then(result.value) : null);
    return result.ok;
  };
  return { busy, issues, said, hush: useCallback(() => setSaid(null), []), attempt };
}

/** The values in an entry's form, what they make of its page, and what can be done with them. */
export function useEntry(
  detail: EntryDetail,
  first: EntryOutcome,
  clock: Clock,
  actions: EntryActions,
) {
  const router = useRouter();
  const { keep } = useClockParameters();
  const { busy, issues, said, hush, attempt } = useAttempts();
  const [values, setValues] = useState(detail.values);
  const [changed, setChanged] = useState(false);
  /** The version the form's values came from; a newer one by somebody else is shown, or refuses the save where there are unsaved words. */
  const [seen, setSeen] = useState(detail.revision);
  const recovery = useRecovery(detail, changed ? values : null);
  const unsaved = changed || detail.id === null;
  const { outcome, problem } = useOutcome(
    'entry',
    {
      at: clock.at,
      seeing: clock.seeing,
      id: detail.id,
      type: detail.type.key,
      values: unsaved ? values : null,
    },
    first,
  );
  useEffect(() => {
    if (changed || seen === detail.revision) return;
    setValues(detail.values);
    setSeen(detail.revision);
  }, [changed, seen, detail]);
  const when = (at: number): string => instantWords(at, clock.zone, clock.now);

  const change = useCallback(
    (key: string, value: unknown) => {
      setValues((before) => ({ ...before, [key]: value }));
      setChanged(true);
      hush();
    },
    [hush],
  );
  const bringBack = (): void => {
    setValues(recovery.found!.values);
    setChanged(true);
    recovery.taken();
  };
  const saved = ({ id, revision }: { id: string; revision: number }): string => {
    setChanged(false);
    setSeen(revision);
    recovery.forget();
    if (detail.id === null) router.push(keep(entryHref(id)));
    const waiting = detail.plans.find((p) => p.action === 'publish' && p.revision === null);
    return `Saved as version ${revision}. ${waiting ? `It goes live ${when(waiting.at)}.` : 'Not public until it is published.'}`;
  };
  const save = (): Promise<boolean> =>
    attempt(() => actions.saveEntry({ id: detail.id, type: detail.type.key, values, seen }), saved);
  const plan = (input: Omit<PlanInput, 'entry'>): Promise<boolean> =>
    attempt(
      () => actions.planChange({ entry: detail.id!, ...input }),
      ({ at, seen: where }) =>
        input.at === null
          ? where
          : input.action === 'publish'
            ? `Goes live ${when(at)}. Then: ${where}`
            : `Leaves ${when(at)}.`,
    );
  const cancel = (id: number): Promise<boolean> =>
    attempt(
      () => actions.cancelPlan(id),
      () => 'The plan is cancelled.',
    );
  return {
    values,
    changed,
    unsaved,
    issues,
    said,
    busy,
    outcome,
    problem,
    recovery,
    change,
    bringBack,
    save,
    plan,
    cancel,
  };
}
