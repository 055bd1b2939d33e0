'use client';

import type { Clock } from '@/server/queries/clock.ts';
import type { EntryDetail, EntryOutcome } from '@/server/queries/entry.ts';
import { Issues, Said } from '@/ui/primitives/issues.tsx';
import { instantWords } from '../format.ts';
import { Panes } from '../panes.tsx';
import { EntryForm } from './entry-form.tsx';
import { EntryOutcomePane } from './entry-outcome.tsx';
import { LifePanel } from './life-panel.tsx';
import { type EntryActions, useEntry } from './use-entry.ts';
import type { KeptValues } from './use-recovery.ts';

/** One entry: the form at the left, its page with unsaved values at the right. */
export function EntryScreen({
  detail,
  outcome: first,
  clock,
  actions,
}: {
  detail: EntryDetail;
  outcome: EntryOutcome;
  clock: Clock;
  actions: EntryActions;
}) {
  const {
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
  } = useEntry(detail, first, clock, actions);
  const readOnly = clock.tense === 'past';
  const title = detail.id === null ? `New ${detail.type.label.toLowerCase()}` : detail.name;
  return (
    <Panes
      title={title}
      lead={`${detail.type.label} · ${clock.tense === 'now' ? '' : `at ${instantWords(clock.at, clock.zone, clock.now)}: `}${detail.state}${changed ? ' · unsaved changes' : ''}`}
      actions={
        <SaveButton restores={readOnly} unsaved={unsaved} busy={busy} onSave={() => void save()} />
      }
      settings={
        <div className="flex flex-col gap-3">
          <Said words={said} />
          <Issues issues={issues} title="Not done" />
          {recovery.found && (
            <RecoveryLine
              found={recovery.found}
              newest={detail.revision}
              clock={clock}
              onTake={bringBack}
              onForget={recovery.forget}
            />
          )}
          {detail.id !== null && (
            <LifePanel
              detail={detail}
              clock={clock}
              unsaved={changed}
              busy={busy}
              onPlan={plan}
              onCancel={cancel}
            />
          )}
          {readOnly && (
            <p className="text-amber-text">
              The past stays as it was: the form shows what had been saved by then and cannot be
              changed. “Restore as draft” saves it as the newest version.
            </p>
          )}
          {clock.tense === 'future' && <FutureLine detail={detail} clock={clock} />}
          <EntryForm
            fields={detail.type.fields}
            values={values}
            zone={clock.zone}
            readOnly={readOnly}
            issues={[...issues, ...outcome.issues]}
            onChange={change}
          />
        </div>
      }
      outcome={<EntryOutcomePane outcome={outcome} clock={clock} problem={problem} />}
    />
  );
}

function SaveButton({
  restores,
  unsaved,
  busy,
  onSave,
}: {
  restores: boolean;
  unsaved: boolean;
  busy: boolean;
  onSave: () => void;
}) {
  return (
    <button
      type="button"
      className={restores || unsaved ? 'button button-main' : 'button'}
      disabled={busy || !(restores || unsaved)}
      onClick={onSave}
    >
      {restores ? 'Restore as draft' : 'Save'}
    </button>
  );
}

/** Unsaved words of an earlier visit, to be brought back or thrown away. */
function RecoveryLine({
  found,
  newest,
  clock,
  onTake,
  onForget,
}: {
  found: KeptValues;
  newest: number | null;
  clock: Clock;
  onTake: () => void;
  onForget: () => void;
}) {
  const older =
    found.revision !== null && found.revision !== newest
      ? `, written on version ${found.revision},`
      : '';
  return (
    <p className="border-l-[3px] border-spruce bg-white px-3 py-2">
      {`Unsaved words from ${instantWords(found.at, clock.zone, clock.now)}${older} are kept in this browser. `}
      <button type="button" className="button-quiet" onClick={onTake}>
        Bring them back
      </button>
      <button type="button" className="button-quiet" onClick={onForget}>
        Throw them away
      </button>
    </p>
  );
}

/** Which version will be public at an instant ahead, where it is not the one in the form. */
function FutureLine({ detail, clock }: { detail: EntryDetail; clock: Clock }) {
  const then = detail.spans.find((s) => s.from <= clock.at && (s.to === null || clock.at < s.to));
  if (!then || then.revision === detail.revision) return null;
  return (
    <p className="text-amber-text">{`Version ${then.revision} will be public then; this form holds version ${detail.revision ?? 1}, the newest.`}</p>
  );
}
