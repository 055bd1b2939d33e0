'use client';

import type { Clock } from '@/server/queries/clock.ts';
import type { SubjectLine, SubjectsDetail } from '@/server/queries/subjects.ts';
import { Issues, SaidLine } from '@/ui/primitives/issues.tsx';
import { Table, type TableColumn } from '@/ui/primitives/table.tsx';
import { entriesCounted } from '../format.ts';
import { Panes } from '../panes.tsx';
import { command } from '../send.ts';
import { ClockLink } from '../shell/clock-link.tsx';
import { type Attempts, useAttempts } from '../use-attempts.ts';
import { AddSubjects } from './add-subjects.tsx';

/** A subject set: what is in it, and where it is taken from. */
export function SubjectsScreen({ detail, clock }: { detail: SubjectsDetail; clock: Clock }) {
  const { set, subjects, fields } = detail;
  const { attempt, busy, said, issues } = useAttempts();
  const readOnly = clock.tense !== 'now';
  return (
    <Panes
      problem={clock.problem}
      title={set.label}
      lead={set.kind === 'tree' ? 'Categories, one below the other.' : 'Tags, in any number.'}
      settings={
        <div className="flex flex-col gap-3">
          <SaidLine said={said} />
          <Issues issues={issues} title="Not done" answers />
          {!readOnly && <AddSubjects detail={detail} busy={busy} attempt={attempt} />}
          <Table
            label={set.label}
            columns={columnsOf(set.id, readOnly, attempt)}
            rows={subjects}
            keyOf={({ key }) => key}
          />
          {subjects.length === 0 && (
            <p className="border-t border-rule py-3 text-muted">
              Nothing in it yet. Write the first ones above; tags are also made while writing an
              entry.
            </p>
          )}
        </div>
      }
      outcome={
        <section aria-label="Where it is used" className="p-6">
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
      }
    />
  );
}

function columnsOf(
  set: string,
  readOnly: boolean,
  attempt: Attempts['attempt'],
): TableColumn<SubjectLine>[] {
  const take = ({ key, name, parent }: SubjectLine): void => {
    const undo = { label: 'Undo', run: () => void back() };
    const back = (): Promise<boolean> =>
      attempt(
        () => command('addSubjects', { set, names: [name], parent }),
        () => ({ words: `${name} is back.` }),
      );
    void attempt(
      () => command('deleteSubject', { set, key }),
      () => ({ words: `${name} is taken away.`, undo }),
    );
  };
  return [
    {
      key: 'name',
      head: 'Name',
      className: 'font-[550]',
      cell: ({ name, depth }) => <span style={{ paddingLeft: depth * 16 }}>{name}</span>,
    },
    {
      key: 'slug',
      head: 'In addresses',
      cell: ({ slug }) => <span className="font-mono text-note">{slug}</span>,
    },
    {
      key: 'used',
      head: 'Live entries',
      className: 'text-right whitespace-nowrap text-muted',
      headClassName: 'text-right',
      cell: ({ used }) => (used === 0 ? 'none' : entriesCounted(used)),
    },
    {
      key: 'act',
      head: <span className="sr-only">What can be done</span>,
      className: 'text-right',
      cell: (line) =>
        !readOnly &&
        line.used === 0 && (
          <button
            type="button"
            className="button-quiet"
            aria-label={`Take ${line.name} away`}
            onClick={() => take(line)}
          >
            Take away
          </button>
        ),
    },
  ];
}
