'use client';

import { type ReactNode, useEffect } from 'react';
import type { Clock } from '@/server/queries/clock.ts';
import type { EntryDetail } from '@/server/queries/entry.ts';
import type { EntryOutcome } from '@/server/queries/entry-outcome.ts';
import type { Issue } from '@/core/issue.ts';
import { Issues, SaidLine } from '@/ui/primitives/issues.tsx';
import { instantWords } from '../format.ts';
import { Panes } from '../panes.tsx';
import { EntryForm } from './entry-form.tsx';
import { EntryLead } from './entry-lead.tsx';
import { EntryOutcomePane } from './entry-outcome.tsx';
import { goToNamedField } from './go-to-field.ts';
import { LanguageTabs } from './language-tabs.tsx';
import { LeaveGuard } from './leave-guard.tsx';
import { OthersHere } from './others-here.tsx';
import { Overtaken } from './overtaken.tsx';
import { PickLines } from './pick-lines.tsx';
import { PresetLines } from './preset-lines.tsx';
import { TimingLine } from './timing-line.tsx';
import { ToMend } from './to-mend.tsx';
import { useEntry } from './use-entry.ts';
import type { KeptEdits } from './use-recovery.ts';
import { Versions } from './versions.tsx';
import { WriteAnother } from './write-another.tsx';

interface Props {
  detail: EntryDetail;
  outcome: EntryOutcome;
  clock: Clock;
}

/** One entry: the form at the left, its page with what stands in the form at the right. */
export function EntryScreen({ detail, outcome: first, clock }: Props) {
  const entry = useEntry(detail, first, clock);
  const { issues, outcome, overtaken, changed, unsaved, busy } = entry;
  const past = clock.tense === 'past';
  const canSave = !busy && overtaken === null && (past ? !changed : unsaved);
  useSaveKey(canSave ? () => void entry.save() : null);
  useEffect(goToNamedField, []);
  return (
    <Panes
      problem={clock.problem}
      title={detail.id === null ? `New: ${detail.type.label}` : detail.name}
      lead={<EntryLead {...{ detail, clock, changed }} onMakeStarter={entry.makeStarter} />}
      actions={
        <SaveButtons
          changed={changed}
          canSave={canSave}
          busy={busy}
          past={past}
          onDrop={entry.drop}
          another={
            !past &&
            detail.language === null &&
            (detail.state === 'not yet written' || detail.state === 'draft') ? (
              <WriteAnother
                type={detail.type.key}
                fields={detail.type.fields}
                disabled={busy || overtaken !== null}
                onGo={(keep) => void entry.publishAndGoOn(keep)}
              />
            ) : null
          }
          onSave={() => void entry.save()}
        />
      }
      settings={<Settings {...{ detail, entry, clock, canSave }} />}
      foot={
        <>
          <SaidLine said={entry.said} />
          <Refusals {...{ issues, detail, busy }} onTake={() => void entry.save(true)} />
          {detail.id !== null && !past && <Warnings lines={outcome.warnings} />}
        </>
      }
      outcome={
        <EntryOutcomePane
          {...{ outcome, clock }}
          id={detail.id}
          problem={entry.problem}
          values={entry.values}
          onChange={entry.change}
          versions={versionsOf(detail, entry, clock)}
        />
      }
    />
  );
}

/** The versions of an entry that was saved; nothing for a new one. */
function versionsOf(
  { id, revision, language }: EntryDetail,
  { note, setNote, change }: ReturnType<typeof useEntry>,
  clock: Clock,
): ReactNode {
  if (id === null || language !== null) return null;
  const given = { id, newest: revision, clock, note };
  return <Versions {...given} onNote={setNote} onChange={change} />;
}

/** What is written of the entry, and all that is said of it there. */
function Settings({
  detail,
  entry,
  clock,
  canSave,
}: {
  detail: EntryDetail;
  entry: ReturnType<typeof useEntry>;
  clock: Clock;
  canSave: boolean;
}) {
  const { changed, overtaken, recovery, busy } = entry;
  return (
    <div className="flex flex-col gap-3">
      <LanguageTabs {...{ detail }} />
      <ToMend issues={[...entry.issues, ...entry.outcome.issues]} detail={detail} />
      <OthersHere others={entry.writing.others} clock={clock} />
      <LeaveGuard
        unsaved={changed}
        isKept={entry.writing.isKept}
        canSave={canSave}
        onSave={entry.save}
      />
      {overtaken && (
        <Overtaken detail={detail} begun={overtaken} edits={entry.edits!} onSettle={entry.settle} />
      )}
      {recovery.found && (
        <RecoveryLine
          found={recovery.found}
          newest={detail.revision}
          clock={clock}
          onTake={entry.bringBack}
          onForget={recovery.forget}
        />
      )}
      {detail.id !== null && (
        <TimingLine
          key={clock.tense === 'future' ? clock.at : clock.tense}
          detail={detail}
          clock={clock}
          unsaved={changed}
          busy={busy}
          onPlan={entry.plan}
          onCancel={entry.cancel}
          onDelete={entry.remove}
        />
      )}
      <TenseLine detail={detail} clock={clock} edits={entry.edits} />
      <Words {...{ detail, entry, clock }} />
    </div>
  );
}

/** What publishing would do besides, said before it is done. */
function Warnings({ lines }: { lines: string[] }) {
  if (lines.length === 0) return null;
  return (
    <div>
      {lines.map((words) => (
        <p key={words} className="text-amber-text">
          {words}
        </p>
      ))}
    </div>
  );
}

/** What is written of the entry: its fields, and what it has otherwise than its type. */
function Words({
  detail,
  entry,
  clock,
}: {
  detail: EntryDetail;
  entry: ReturnType<typeof useEntry>;
  clock: Clock;
}) {
  const readOnly = clock.tense === 'past';
  const { values, change } = entry;
  return (
    <>
      <EntryForm
        {...{ readOnly }}
        values={{ ...values, ...entry.outcome.computed }}
        fields={detail.type.fields}
        zone={clock.zone}
        now={clock.now}
        entry={detail.id}
        type={detail.type.key}
        issues={[...entry.issues, ...entry.outcome.issues]}
        onChange={change}
      />
      {detail.language === null && (
        <>
          <PresetLines {...{ values, readOnly }} type={detail.type} onChange={change} />
          <PickLines {...{ detail, clock }} busy={entry.busy} attempt={entry.attempt} />
        </>
      )}
    </>
  );
}

function SaveButtons({
  changed,
  canSave,
  busy,
  past,
  another,
  onDrop,
  onSave,
}: {
  changed: boolean;
  canSave: boolean;
  busy: boolean;
  past: boolean;
  /** Publishes and begins another one; null where it does not. */
  another: ReactNode;
  onDrop: () => void;
  onSave: () => void;
}) {
  return (
    <div className="flex items-center gap-2">
      <button
        type="button"
        className={`button ${changed ? '' : 'invisible'}`}
        disabled={busy}
        onClick={onDrop}
      >
        Undo changes
      </button>
      {another}
      <button
        type="button"
        className={canSave ? 'button button-main' : 'button'}
        disabled={!canSave}
        title="Ctrl or Cmd S"
        onClick={onSave}
      >
        {past ? 'Restore as draft' : 'Save'}
      </button>
    </div>
  );
}

function isAtField(detail: EntryDetail, path: string | undefined): boolean {
  return detail.type.fields.some((f) => f.key === path || f.id === path);
}

/** Saves by Ctrl or Cmd S; the browser's own way is kept from coming up. */
function useSaveKey(save: (() => void) | null): void {
  useEffect(() => {
    const press = (event: KeyboardEvent): void => {
      if (!(event.ctrlKey || event.metaKey) || event.key.toLowerCase() !== 's') return;
      event.preventDefault();
      save?.();
    };
    window.addEventListener('keydown', press);
    return () => window.removeEventListener('keydown', press);
  }, [save]);
}

/** Unsaved words of an earlier visit, to be brought back or thrown away. */
function RecoveryLine({
  found,
  newest,
  clock,
  onTake,
  onForget,
}: {
  found: KeptEdits;
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
      {`Unsaved words from ${instantWords(found.at, clock.zone, clock.now)}${older} are kept for you. `}
      <button type="button" className="button-quiet" onClick={onTake}>
        Bring them back
      </button>
      <button type="button" className="button-quiet" onClick={onForget}>
        Throw them away
      </button>
    </p>
  );
}

/**
 * What the form shows while the clock stands in the past or ahead, and what becomes of unsaved
 * words.
 */
function TenseLine({
  detail,
  clock,
  edits,
}: {
  detail: EntryDetail;
  clock: Clock;
  edits: Record<string, unknown> | null;
}) {
  if (clock.tense === 'now') return null;
  const fields = detail.type.fields.filter((f) => edits && f.id in edits);
  const unsaved =
    fields.length === 0
      ? ''
      : ` Your unsaved changes (${fields.map((f) => f.label).join(', ')}) stay, and are shown on top of it.`;
  if (clock.tense === 'past')
    return (
      <p className="text-amber-text">
        {`The past stays as it was: the form shows what had been saved by then and cannot be changed.${unsaved}`}
        {unsaved === ''
          ? ' “Restore as draft” saves it as the newest version.'
          : ' They can be saved at now.'}
      </p>
    );
  const then = detail.spans.find((s) => s.from <= clock.at && (s.to === null || clock.at < s.to));
  const other =
    then && then.revision !== detail.revision
      ? `Version ${then.revision} will be public then; this form holds version ${detail.revision ?? 1}, the newest.`
      : '';
  const words = `${other}${unsaved}`.trim();
  return words === '' ? null : <p className="text-amber-text">{words}</p>;
}

/** Why something was not done, where no field says it; and what can be done about it. */
function Refusals({
  issues,
  detail,
  busy,
  onTake,
}: {
  issues: Issue[];
  detail: EntryDetail;
  busy: boolean;
  onTake: () => void;
}) {
  return (
    <>
      <Issues issues={issues.filter((i) => !isAtField(detail, i.path))} title="Not done" answers />
      <TakeOver issues={issues} {...{ busy, onTake }} />
    </>
  );
}

/** Offers to take what only one may lead to away from those that lead to it. */
function TakeOver({
  issues,
  busy,
  onTake,
}: {
  issues: Issue[];
  busy: boolean;
  onTake: () => void;
}) {
  const taken = issues.filter(({ code }) => code === 'partner-taken');
  if (taken.length === 0) return null;
  return (
    <div role="status" className="border-l-[3px] border-amber-mark bg-white px-3 py-2">
      <p>{taken.map(({ message }) => message).join(' ')}</p>
      <button type="button" className="button mt-2" disabled={busy} onClick={onTake}>
        Take it away there, and save
      </button>
    </div>
  );
}
