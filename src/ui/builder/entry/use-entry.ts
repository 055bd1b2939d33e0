'use client';

import { useRouter } from 'next/navigation';
import { useCallback, useMemo, useState } from 'react';
import type { CommandInput } from '@/server/commands/index.ts';
import type { Clock } from '@/server/queries/clock.ts';
import type { EntryDetail } from '@/server/queries/entry.ts';
import type { EntryOutcome } from '@/server/queries/entry-outcome.ts';
import { entryHref, instantWords } from '../format.ts';
import { command } from '../send.ts';
import { useClockParameters } from '../shell/use-clock.ts';
import { useAttempts } from '../use-attempts.ts';
import { useOutcome } from '../use-outcome.ts';
import { useRecovery } from './use-recovery.ts';

/** Unsaved words by field id, on top of the version they were begun on. */
interface Begun {
  edits: Record<string, unknown>;
  /** That version, and what it held. */
  revision: number | null;
  values: Record<string, unknown>;
}

/** A publication or retirement of the entry at hand. */
export type PlanOf = Omit<CommandInput<'planChange'>, 'entry'>;

/** The words in an entry's form, what they make of its page, and what can be done with them. */
export function useEntry(detail: EntryDetail, first: EntryOutcome, clock: Clock) {
  const router = useRouter();
  const { keep } = useClockParameters();
  const attempts = useAttempts();
  const { attempt, hush } = attempts;
  const [begun, setBegun] = useState<Begun | null>(null);
  const edits = begun?.edits ?? null;
  const values = useMemo(() => ({ ...detail.values, ...edits }), [detail.values, edits]);
  const changed = edits !== null;
  const unsaved = changed || detail.id === null;
  const recovery = useRecovery(detail.id ?? `new ${detail.type.key}`, detail.revision, edits);
  const { outcome, problem } = useOutcome<EntryOutcome>(
    'entry',
    {
      at: clock.at,
      seeing: clock.seeing,
      id: detail.id,
      type: detail.type.key,
      values: unsaved ? values : null,
    },
    first,
    unsaved,
  );
  const when = (at: number): string => instantWords(at, clock.zone, clock.now);

  const change = useCallback(
    (id: string, value: unknown) => {
      const { revision, values: stored } = detail;
      setBegun((b) => ({
        revision: b?.revision ?? revision,
        values: b?.values ?? stored,
        edits: { ...b?.edits, [id]: value },
      }));
      hush();
    },
    [detail, hush],
  );
  const begin = (words: Record<string, unknown>): void =>
    setBegun(
      Object.keys(words).length === 0
        ? null
        : { edits: words, revision: detail.revision, values: detail.values },
    );
  const bringBack = (): void => {
    begin(recovery.found!.edits);
    recovery.taken();
  };
  const save = (): Promise<boolean> =>
    attempt(
      () =>
        command('saveEntry', {
          id: detail.id,
          type: detail.type.key,
          values,
          seen: begun?.revision ?? detail.revision,
        }),
      ({ id, revision }) => {
        setBegun(null);
        recovery.forget();
        if (detail.id === null) router.push(keep(entryHref(id)));
        const plan = detail.plans.find((p) => p.action === 'publish' && p.revision === null);
        const then = plan ? `It goes live ${when(plan.at)}.` : 'Not public until it is published.';
        return { words: `Saved as version ${revision}. ${then}` };
      },
    );
  return {
    ...attempts,
    values,
    edits,
    changed,
    unsaved,
    outcome,
    problem,
    recovery,
    /** What the form was begun on, where somebody has saved a newer version since. */
    overtaken: begun !== null && begun.revision !== detail.revision ? begun : null,
    change,
    bringBack,
    /** Keeps these words on top of what is saved now, and drops the others. */
    settle: begin,
    drop: () => {
      setBegun(null);
      recovery.forget();
      hush();
    },
    save,
    ...useActs(detail, attempt, when),
  };
}

/** Publishing, retiring, planning, deleting: each told, and taken back where that can be. */
function useActs(
  detail: EntryDetail,
  attempt: ReturnType<typeof useAttempts>['attempt'],
  when: (at: number) => string,
) {
  const router = useRouter();
  const { keep } = useClockParameters();
  const entry = detail.id!;
  const publish = (revision: number | null): Promise<boolean> =>
    plan({ action: 'publish', at: null, revision });
  const plan = (input: PlanOf): Promise<boolean> =>
    attempt(
      () => command('planChange', { entry, ...input }),
      ({ at, seen }: { at: number; seen?: string }) => {
        if (input.at !== null)
          return {
            words: `${input.action === 'publish' ? 'Goes live' : 'Leaves'} ${when(at)}.`,
          };
        if (input.action === 'publish') return { words: seen ?? 'Published.' };
        const live = liveRevision(detail, at);
        return {
          words: 'Retired: it is not public any more.',
          undo: live === null ? undefined : { label: 'Undo', run: () => void publish(live) },
        };
      },
    );
  const cancel = (id: number): Promise<boolean> =>
    attempt(
      () => command('cancelPlan', { plan: id }),
      () => ({ words: 'The plan is cancelled.' }),
    );
  const remove = (): Promise<boolean> =>
    attempt(
      () => command('deleteEntry', { entry }),
      () => {
        const query = new URLSearchParams({ deleted: entry, name: detail.name });
        router.push(keep(`/build/content?${query}`));
        return { words: 'Deleted.' };
      },
    );
  return { plan, cancel, remove };
}

/** The revision that is public at an instant; null where none is. */
function liveRevision({ spans }: EntryDetail, at: number): number | null {
  return spans.find((s) => s.from <= at && (s.to === null || at <= s.to))?.revision ?? null;
}
