'use client';

import type { Clock } from '@/server/queries/clock.ts';
import type { Leading } from '@/server/queries/leading-here.ts';
import { Issues, SaidLine } from '@/ui/primitives/issues.tsx';
import { EntryPicker } from '../entry-picker.tsx';
import { command } from '../send.ts';
import { ClockLink } from '../shell/clock-link.tsx';
import { useAsked } from '../use-asked.ts';
import { type Attempts, useAttempts } from '../use-attempts.ts';

/** The entries that lead to this one, by each reference; added and taken away from here. */
export function LeadingHere({ id, clock }: { id: string; clock: Clock }) {
  const attempts = useAttempts();
  const asked = { id, at: clock.at, after: attempts.said?.words ?? '' };
  const { answer, problem } = useAsked<Leading[]>('leading', asked);
  if (problem) return <p className="p-6 text-alarm">{problem}</p>;
  if (!answer) return <p className="p-6 text-muted">Looking …</p>;
  if (answer.length === 0)
    return (
      <p className="p-6 text-muted">
        No content type has a reference that leads here. A field of the kind <em>reference</em>{' '}
        makes one.
      </p>
    );
  return (
    <div className="relative flex flex-col gap-4 p-6">
      <SaidLine said={attempts.said} />
      <Issues issues={attempts.issues} title="Not saved" answers />
      {answer.map((leading) => (
        <Side
          key={`${leading.type.key} ${leading.field.id}`}
          {...{ id, clock, leading, attempts }}
        />
      ))}
    </div>
  );
}

function Side({
  id,
  clock,
  leading: { type, field, isEditable, isOne, total, entries },
  attempts: { busy, attempt },
}: {
  id: string;
  clock: Clock;
  leading: Leading;
  attempts: Attempts;
}) {
  const readOnly = clock.tense === 'past' || !isEditable;
  const set = (entry: string, name: string, leads: boolean): void =>
    void attempt(
      () => command('setReference', { entry, field: field.id, target: id, leads }),
      ({ revision }) => ({
        words: `Saved as revision ${revision} of “${name}”. It is public once that is published.`,
      }),
    );
  const how = isEditable ? '' : ' (set there)';
  const title = `${type.label}: ${field.label}${how}${field.otherSide ? ` · here “${field.otherSide}”` : ''}`;
  return (
    <section aria-label={title}>
      <h3 className="font-semibold">{title}</h3>
      {entries.length === 0 && <p className="text-muted">None leads here.</p>}
      <ul>
        {entries.map(({ id: entry, name, live }) => (
          <li key={entry} className="flex items-center gap-3 border-t border-rule py-1">
            <span className="min-w-0 flex-1 truncate">
              <ClockLink href={`/build/content/${entry}`}>{name}</ClockLink>
            </span>
            {!live && <span className="text-muted">not live</span>}
            {!readOnly && (
              <button
                type="button"
                className="button-quiet"
                disabled={busy}
                aria-label={`Take ${name} away from here`}
                onClick={() => set(entry, name, false)}
              >
                Take away
              </button>
            )}
          </li>
        ))}
      </ul>
      {total > entries.length && <p className="text-muted">{`… ${total} in all`}</p>}
      {!readOnly && !(isOne && total > 0) && (
        <div className="mt-1 max-w-[360px]">
          <EntryPicker
            id={`leading-${type.key}-${field.id}`}
            label={`Add ${type.label} …`}
            types={[type.key]}
            at={clock.at}
            without={id}
            hidden={entries.map((e) => e.id)}
            onPick={({ id: entry, name }) => set(entry, name, true)}
          />
        </div>
      )}
    </section>
  );
}
