'use client';

import type { Clock } from '@/server/queries/clock.ts';
import type { SubjectUsers } from '@/server/queries/subject-users.ts';
import type { SubjectsDetail } from '@/server/queries/subjects.ts';
import { Issues, SaidLine } from '@/ui/primitives/issues.tsx';
import { counted, entryHref } from '../format.ts';
import { LongWork } from '../long-work.tsx';
import { Panes } from '../panes.tsx';
import { ClockLink } from '../shell/clock-link.tsx';
import { useAttempts } from '../use-attempts.ts';
import { AddSubjects } from './add-subjects.tsx';
import { Deeds } from './deeds.tsx';
import { LookAlikes } from './look-alikes.tsx';
import { SubjectForm } from './subject-form.tsx';
import { SubjectList } from './subject-list.tsx';
import { changing, undoing } from './use-change.ts';

/** A subject set, or one subject of it: what is in it, and where it is taken from. */
export function SubjectsScreen({
  detail,
  subject,
  clock,
}: {
  detail: SubjectsDetail;
  /** Key of the one that is opened; null for all. */
  subject: string | null;
  clock: Clock;
}) {
  const { set, subjects } = detail;
  const { attempt, busy, said, issues, work } = useAttempts();
  const readOnly = clock.tense !== 'now';
  const change = changing(set.id, attempt);
  const line = subjects.find(({ key }) => key === subject);
  const kind = set.kind === 'tree' ? 'Categories, one below the other.' : 'Tags, in any number.';
  const here = `/build/settings/subjects/${set.key}`;
  const unused = subjects.filter((s) => s.unused).length;
  const lead = `${kind} ${subjects.length.toLocaleString('en')} in all${unused > 0 ? `, ${unused.toLocaleString('en')} without an entry` : ''}.`;
  return (
    <Panes
      problem={clock.problem}
      title={line ? line.name : set.label}
      lead={
        subject === null ? (
          lead
        ) : (
          <ClockLink className="link" href={here}>{`All of ${set.label}`}</ClockLink>
        )
      }
      settings={
        <div className="flex flex-col gap-3">
          {readOnly && <p className="text-amber-text">{TENSE[clock.tense]}</p>}
          {line && (
            <SubjectForm
              key={`${line.key} ${line.name} ${line.slug} ${line.description} ${line.picture}`}
              {...{ detail, line, readOnly, busy, issues, change }}
            />
          )}
          {subject !== null && !line && (
            <p className="text-muted">It is not there as of this instant.</p>
          )}
          {subject === null && !readOnly && <AddSubjects {...{ detail, busy, attempt }} />}
          {subject === null && !readOnly && subjects.length > 1 && (
            <LookAlikes set={set.id} language={detail.language} {...{ subjects, change }} />
          )}
          {subject === null && <SubjectList {...{ detail, readOnly, change }} />}
        </div>
      }
      foot={
        <>
          <SaidLine said={said} />
          <LongWork work={work} />
          <Issues issues={issues} title="Not done" answers />
        </>
      }
      outcome={
        <div className="min-h-0 overflow-auto p-6">
          {detail.users && line ? <Having users={detail.users} /> : <Users detail={detail} />}
          <Deeds
            deeds={detail.deeds}
            zone={clock.zone}
            now={clock.now}
            readOnly={readOnly || busy}
            onUndo={(at) => void undoing(set.id, attempt)(at)}
          />
        </div>
      }
    />
  );
}

const TENSE: Record<Clock['tense'], string> = {
  now: '',
  past: 'As it was then. Subjects are changed as of now.',
  future: 'As it will be, if nothing is changed. Subjects are changed as of now.',
};

/** The entries that have a subject. */
function Having({ users: { entries, total } }: { users: SubjectUsers }) {
  return (
    <section aria-label="Entries with it">
      <h2>Entries with it</h2>
      <p className="mt-1 text-muted">
        {total === 0
          ? 'No entry has it.'
          : `${counted(total, 'entry', 'entries')}, in what was saved last.`}
      </p>
      <ul className="mt-2">
        {entries.map(({ id, name, live }) => (
          <li key={id} className="flex gap-3 border-t border-rule py-1.5">
            <ClockLink className="link min-w-0 flex-1 truncate" href={entryHref(id)}>
              {name}
            </ClockLink>
            {!live && <span className="text-muted">not live</span>}
          </li>
        ))}
        {total > entries.length && (
          <li className="border-t border-rule py-1.5 text-muted">{`… ${counted(total - entries.length, 'other')}`}</li>
        )}
      </ul>
    </section>
  );
}

function Users({ detail: { fields } }: { detail: SubjectsDetail }) {
  return (
    <section aria-label="Where it is used">
      <h2>Where it is used</h2>
      <ul className="mt-2">
        {fields.map(({ type, label }) => (
          <li key={label}>
            <ClockLink className="link" href={`/build/types/${type}`}>
              {label}
            </ClockLink>
          </li>
        ))}
      </ul>
      {fields.length === 0 && <p className="mt-2 text-muted">No field takes from it.</p>}
    </section>
  );
}
