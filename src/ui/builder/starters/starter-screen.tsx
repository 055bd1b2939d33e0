'use client';

import { useMemo, useState } from 'react';
import type { Clock } from '@/server/queries/clock.ts';
import type { EntryOutcome } from '@/server/queries/entry-outcome.ts';
import type { StarterDetail } from '@/server/queries/starters.ts';
import { Issues, SaidLine } from '@/ui/primitives/issues.tsx';
import { EntryForm } from '../entry/entry-form.tsx';
import { EntryOutcomePane } from '../entry/entry-outcome.tsx';
import { LeaveGuard } from '../entry/leave-guard.tsx';
import { PresetLines } from '../entry/preset-lines.tsx';
import { instantWords } from '../format.ts';
import { Panes } from '../panes.tsx';
import { command } from '../send.ts';
import { ClockLink } from '../shell/clock-link.tsx';
import { useClockParameters } from '../shell/use-clock.ts';
import { type Attempts, useAttempts } from '../use-attempts.ts';
import { useOutcome } from '../use-outcome.ts';
import { starterHref } from './starter-href.ts';

interface Props {
  detail: StarterDetail;
  outcome: EntryOutcome;
  clock: Clock;
}

/** What new entries of a type begin with: a form at the left, what one would look like at the right. */
export function StarterScreen({ detail, outcome: first, clock }: Props) {
  const starter = useStarter(detail);
  const { name, values, changed, attempts, canSave } = starter;
  const { outcome, problem } = useOutcome<EntryOutcome>(
    'entry',
    { at: clock.at, seeing: 'draft', id: null, type: detail.type.id, values },
    first,
    changed,
  );
  const issues = [...attempts.issues, ...outcome.issues.filter(({ code }) => code !== 'required')];
  return (
    <Panes
      problem={clock.problem}
      title={detail.id === null ? `New starter: ${detail.type.label}` : `Starter: ${detail.name}`}
      lead={<Lead {...{ detail, clock, changed }} />}
      actions={<Buttons {...{ starter }} />}
      settings={
        <div className="flex flex-col gap-3">
          <LeaveGuard
            unsaved={changed}
            isKept={false}
            keeps={false}
            canSave={canSave}
            onSave={starter.save}
          />
          <label className="block">
            <span className="font-medium">Name of the starter</span>
            <input
              className="control mt-1 w-full"
              value={name}
              maxLength={200}
              onChange={(e) => starter.setName(e.target.value)}
            />
          </label>
          <p className="text-muted">
            What stands below is what a new {detail.type.label} begins with. Whatever is left open
            is filled in there.
          </p>
          <EntryForm
            readOnly={false}
            {...{ values, issues }}
            fields={detail.type.fields}
            zone={clock.zone}
            now={clock.now}
            entry={null}
            type={detail.type.key}
            onChange={starter.change}
          />
          <PresetLines
            {...{ values }}
            readOnly={false}
            type={detail.type}
            onChange={starter.change}
          />
        </div>
      }
      foot={
        <>
          <SaidLine said={attempts.said} />
          <Issues issues={attempts.issues} title="Not done" answers />
        </>
      }
      outcome={
        <EntryOutcomePane
          {...{ outcome, clock, problem, values }}
          id={null}
          onChange={starter.change}
          versions={null}
        />
      }
    />
  );
}

/** The words in a starter's form, and what can be done with them. */
function useStarter(detail: StarterDetail) {
  const { keep } = useClockParameters();
  const attempts = useAttempts();
  const { attempt, hush, busy, issues } = attempts;
  const { id, type } = detail;
  const [edits, setEdits] = useState<Record<string, unknown>>({});
  const [named, setName] = useState<string | null>(null);
  const values = useMemo(() => ({ ...detail.values, ...edits }), [detail.values, edits]);
  const name = named ?? detail.name;
  const changed = named !== null || Object.keys(edits).length > 0;
  const drop = (): void => {
    setEdits({});
    setName(null);
    hush();
  };
  const isOvertaken = issues.some(({ code }) => code === 'newer-starter');
  const save = (): Promise<boolean> =>
    attempt(
      () => {
        const seen = isOvertaken ? null : detail.saved;
        return command('saveStarter', { id, type: type.id, name, values, seen });
      },
      ({ id: saved }: { id: string }) => {
        drop();
        const path = starterHref(saved);
        return {
          words: 'Saved. It is never public; new entries can begin with it.',
          leadsTo: id === null ? { path: keep(path), replaces: true as const } : undefined,
        };
      },
    );
  const remove = (): Promise<boolean> =>
    attempt(
      () => command('deleteStarter', { id: id! }),
      (held: { type: string; name: string; values: Record<string, unknown> }) => {
        const path = keep(`/build/types/${type.key}`);
        const again = { ...held, id: null, seen: null };
        const undo = { label: 'Undo', run: () => void bringBack(attempts, again, keep) };
        return { words: `The starter “${held.name}” is deleted.`, undo, leadsTo: { path } };
      },
    );
  return {
    ...{ name, setName, values, changed, attempts, save, remove, drop },
    change: (field: string, value: unknown) => {
      hush();
      setEdits((before) => ({ ...before, [field]: value }));
    },
    canSave: !busy && name.trim() !== '' && (changed || id === null),
    isNew: id === null,
  };
}

/** Makes a starter again that was deleted. */
function bringBack(
  { attempt }: Attempts,
  held: { id: null; type: string; name: string; values: Record<string, unknown>; seen: null },
  keep: (href: string) => string,
): Promise<boolean> {
  return attempt(
    () => command('saveStarter', held),
    ({ id }: { id: string }) => ({
      words: `The starter “${held.name}” is back.`,
      leadsTo: { path: keep(starterHref(id)) },
    }),
  );
}

function Lead({ detail, clock, changed }: Omit<Props, 'outcome'> & { changed: boolean }) {
  const { id, type, author, saved } = detail;
  const when = saved === null ? '' : ` · saved ${instantWords(saved, clock.zone, clock.now)}`;
  return (
    <>
      {`${type.label} · never public${when}${author ? ` by ${author}` : ''}${changed ? ' · unsaved changes' : ''}`}
      {id !== null && (
        <>
          {' · '}
          <ClockLink
            className="underline"
            href={`/build/content/new/${type.key}?starter=${encodeURIComponent(id)}`}
          >
            {`New ${type.label} from it`}
          </ClockLink>
        </>
      )}
      {' · '}
      <ClockLink className="underline" href={`/build/types/${type.key}`}>
        Its type
      </ClockLink>
    </>
  );
}

function Buttons({ starter }: { starter: ReturnType<typeof useStarter> }) {
  const { changed, attempts, canSave, isNew, drop, save, remove } = starter;
  return (
    <div className="flex items-center gap-2">
      {changed && (
        <button type="button" className="button" disabled={attempts.busy} onClick={drop}>
          Undo changes
        </button>
      )}
      {!isNew && !changed && (
        <button
          type="button"
          className="button-quiet"
          disabled={attempts.busy}
          onClick={() => void remove()}
        >
          Delete
        </button>
      )}
      <button
        type="button"
        className={canSave ? 'button button-main' : 'button'}
        disabled={!canSave}
        onClick={() => void save()}
      >
        Save
      </button>
    </div>
  );
}
