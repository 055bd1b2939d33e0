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
import { starterHref } from '../starters/starter-href.ts';
import { useRecovery } from './use-recovery.ts';
import { useWriting } from './use-writing.ts';

/** Unsaved words by field id, on top of the version they were begun on. */
interface Begun {
  edits: Record<string, unknown>;
  /** That version, and what it held. */
  revision: number | null;
  values: Record<string, unknown>;
}

/** A publication or retirement of the entry at hand. */
export type PlanOf = Omit<CommandInput<'planChange'>, 'entry' | 'language'>;

/** The words in an entry's form, what they make of its page, and what can be done with them. */
export function useEntry(detail: EntryDetail, first: EntryOutcome, clock: Clock) {
  const attempts = useAttempts();
  const { attempt, hush } = attempts;
  const { begun, change, begin } = useBegun(detail, hush);
  const edits = begun?.edits ?? null;
  const values = useMemo(() => ({ ...detail.values, ...edits }), [detail.values, edits]);
  const unsaved = edits !== null || detail.id === null;
  const { id: entry, revision, type } = detail;
  const [note, setNote] = useState('');
  const { language } = detail;
  const spoken = language === null ? '' : ` in ${language}`;
  const writing = useWriting({ entry, type: type.key, language, revision }, edits);
  const recovery = useRecovery(`${entry ?? `new ${type.key}`}${spoken}`, revision, edits, writing);
  const form = { id: entry, type: type.id, values: unsaved ? values : null, language };
  const { outcome, problem } = useOutcome<EntryOutcome>(
    'entry',
    { at: clock.at, seeing: clock.seeing, ...form },
    first,
    unsaved,
  );
  const when = (at: number): string => instantWords(at, clock.zone, clock.now);
  const forget = (): void => {
    begin({});
    setNote('');
    recovery.forget();
  };
  return {
    ...attempts,
    values,
    edits,
    changed: edits !== null,
    unsaved,
    outcome,
    problem,
    recovery,
    writing,
    /** What is said of the version that is saved next. */
    note,
    setNote,
    /** What the form was begun on, where somebody has saved a newer version since. */
    overtaken: begun !== null && begun.revision !== detail.revision ? begun : null,
    change,
    bringBack: () => {
      begin(recovery.found!.edits);
      recovery.taken();
    },
    /** Keeps these words on top of what is saved now, and drops the others. */
    settle: begin,
    drop: () => {
      forget();
      hush();
    },
    save: useSave(detail, { values, seen: begun?.revision ?? detail.revision, note }, attempt, {
      when,
      onSaved: forget,
    }),
    publishAndGoOn: usePublishAndGoOn(
      detail,
      { values, seen: begun?.revision ?? detail.revision, unsaved },
      { attempt, onSaved: forget },
    ),
    ...useActs(detail, attempt, when),
  };
}

/**
 * Saves and publishes what stands in the form, and begins another that keeps some of it. Where it
 * cannot be published, it is saved, and its own screen says why.
 */
function usePublishAndGoOn(
  { id, type, like }: EntryDetail,
  { values, seen, unsaved }: Written & { unsaved: boolean },
  { attempt, onSaved }: { attempt: Attempt; onSaved: () => void },
): (keep: string[]) => Promise<boolean> {
  const { keep: atClock } = useClockParameters();
  return (keep) =>
    attempt(
      async () => {
        const saving = { id, type: type.id, values, seen, takeOver: false };
        const saved = unsaved ? await command('saveEntry', saving) : null;
        if (saved && !saved.ok) return saved;
        onSaved();
        const entry = saved?.value.id ?? id!;
        const left = saved ? await join(entry, like) : '';
        const plan = { action: 'publish', at: null, revision: null } as const;
        const published = await command('planChange', { entry, ...plan });
        const why = published.ok ? null : published.issues.map(({ message }) => message).join(' ');
        return { ok: true, value: { entry, why, left } };
      },
      ({ entry, why, left }) => {
        const query = new URLSearchParams({ like: entry, keep: keep.join(',') });
        const next = `/build/content/new/${type.key}?${query}`;
        return {
          words:
            why === null
              ? `Published. Here is the next one.${left}`
              : `Saved, and not published: ${why}${left}`,
          leadsTo: { path: atClock(why === null ? next : entryHref(entry)) },
        };
      },
    );
}

/** Lets a new entry join the picks that it was begun for; says why where it could not. */
async function join(entry: string, like: EntryDetail['like']): Promise<string> {
  if (!like?.joins) return '';
  const done = await command('pick', { picks: like.joins.id, entry });
  if (done.ok) return '';
  return ` It did not join ${like.joins.label}: ${done.issues.map((i) => i.message).join(' ')}`;
}

/** What stands in a form, and the version it was begun on. */
interface Written {
  values: Record<string, unknown>;
  seen: number | null;
}

type Attempt = ReturnType<typeof useAttempts>['attempt'];

/** Unsaved words, and the version that they were begun on. */
function useBegun(detail: EntryDetail, onChange: () => void) {
  const [begun, setBegun] = useState<Begun | null>(null);
  const { revision, values } = detail;
  const change = useCallback(
    (id: string, value: unknown) => {
      setBegun((b) => ({
        revision: b?.revision ?? revision,
        values: b?.values ?? values,
        edits: { ...b?.edits, [id]: value },
      }));
      onChange();
    },
    [revision, values, onChange],
  );
  const begin = (edits: Record<string, unknown>): void =>
    setBegun(Object.keys(edits).length === 0 ? null : { edits, revision, values });
  return { begun, change, begin };
}

/** Saves what stands in the form, and says what becomes of it. */
function useSave(
  detail: EntryDetail,
  { values, seen, note }: Written & { note: string },
  attempt: Attempt,
  { when, onSaved }: { when: (at: number) => string; onSaved: () => void },
): (takeOver?: boolean) => Promise<boolean> {
  const { keep } = useClockParameters();
  const { id, type, plans, like, language } = detail;
  return (takeOver = false) =>
    attempt(
      async () => {
        const saved =
          language === null
            ? await command('saveEntry', { id, type: type.id, values, seen, takeOver, note })
            : await command('saveWords', { entry: id!, language, values, seen, note });
        if (!saved.ok) return saved;
        return { ok: true, value: { ...saved.value, left: await join(saved.value.id, like) } };
      },
      (saved) => {
        onSaved();
        const plan = plans.find((p) => p.action === 'publish' && p.revision === null);
        const then = plan ? `It goes live ${when(plan.at)}.` : 'Not public until it is published.';
        return {
          words: `Saved as version ${saved.revision}. ${then}${saved.left}`,
          leadsTo: id === null ? { path: keep(entryHref(saved.id)) } : undefined,
        };
      },
    );
}

/** Publishing, retiring, planning, deleting: each told, and taken back where that can be. */
function useActs(detail: EntryDetail, attempt: Attempt, when: (at: number) => string) {
  const router = useRouter();
  const { keep } = useClockParameters();
  const entry = detail.id!;
  const spoken = detail.language === null ? {} : { language: detail.language };
  const publish = (revision: number | null): Promise<boolean> =>
    plan({ action: 'publish', at: null, revision });
  const plan = (input: PlanOf): Promise<boolean> =>
    attempt(
      () => command('planChange', { entry, ...input, ...spoken }),
      ({ at, seen }: { at: number; seen?: string }) => {
        const verb = input.action === 'publish' ? 'Goes live' : 'Leaves';
        if (input.at !== null) return { words: `${verb} ${when(at)}.` };
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
  const makeStarter = (): Promise<boolean> =>
    attempt(
      () => command('makeStarter', { entry }),
      ({ id, name }: { id: string; name: string }) => ({
        words: `“${name}” is a starter of ${detail.type.label} now: new ones can begin with it.`,
        undo: { label: 'Open it', run: () => router.push(keep(starterHref(id))) },
      }),
    );
  return { plan, cancel, remove, makeStarter };
}

/** The revision that is public at an instant; null where none is. */
function liveRevision({ spans }: EntryDetail, at: number): number | null {
  return spans.find((s) => s.from <= at && (s.to === null || at <= s.to))?.revision ?? null;
}
