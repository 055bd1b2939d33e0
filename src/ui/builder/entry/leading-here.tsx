'use client';

import { ORDER, inOrder, orderOf } from '@/core/design/other-order.ts';
import type { Clock } from '@/server/queries/clock.ts';
import type { Leading } from '@/server/queries/leading-here.ts';
import { Moves } from '@/ui/primitives/moves.tsx';
import { Issues, SaidLine } from '@/ui/primitives/issues.tsx';
import { EntryPicker } from '../entry-picker.tsx';
import { command } from '../send.ts';
import { ClockLink } from '../shell/clock-link.tsx';
import { useAsked } from '../use-asked.ts';
import { type Attempts, useAttempts } from '../use-attempts.ts';

interface Props {
  id: string;
  clock: Clock;
  /** What the entry's form holds, the order of those that lead here among it. */
  values: Record<string, unknown>;
  onChange: (id: string, value: unknown) => void;
}

/** The entries that lead to this one, by each reference; added and taken away from here. */
export function LeadingHere({ id, clock, values, onChange }: Props) {
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
          {...{ id, clock, leading, attempts, values, onChange }}
        />
      ))}
    </div>
  );
}

function Side({
  id,
  clock,
  leading: { type, field, reference, isEditable, isOne, total, entries: found },
  attempts: { busy, attempt },
  values,
  onChange,
}: Props & {
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
  const entries = inOrder(found, orderOf(values, reference));
  const move = (from: number, by: -1 | 1): void => {
    const ids = entries.map((entry) => entry.id);
    const [moved] = ids.splice(from, 1);
    ids.splice(from + by, 0, moved!);
    onChange(ORDER, { ...(values[ORDER] as object | null), [reference]: ids });
  };
  const how = isEditable ? '' : ' (set there)';
  const title = `${type.label}: ${field.label}${how}${field.otherSide ? ` · here “${field.otherSide}”` : ''}`;
  return (
    <section aria-label={title}>
      <h3 className="font-semibold">{title}</h3>
      {entries.length === 0 && <p className="text-muted">None leads here.</p>}
      <ul>
        {entries.map(({ id: entry, name, live }, i) => (
          <Line
            key={entry}
            {...{ entry, name, live, readOnly, busy }}
            moves={!readOnly && !isOne && entries.length > 1}
            isFirst={i === 0}
            isLast={i === entries.length - 1}
            onMove={(by) => move(i, by)}
            onTake={() => set(entry, name, false)}
          />
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

/** One that leads here: its place among the others, and whether it goes on to. */
function Line({
  entry,
  name,
  live,
  readOnly,
  busy,
  moves,
  isFirst,
  isLast,
  onMove,
  onTake,
}: {
  entry: string;
  name: string;
  live: boolean;
  readOnly: boolean;
  busy: boolean;
  moves: boolean;
  isFirst: boolean;
  isLast: boolean;
  onMove: (by: -1 | 1) => void;
  onTake: () => void;
}) {
  return (
    <li className="flex items-center gap-3 border-t border-rule py-1">
      <span className="min-w-0 flex-1 truncate">
        <ClockLink href={`/build/content/${entry}`}>{name}</ClockLink>
      </span>
      {!live && <span className="text-muted">not live</span>}
      {moves && <Moves of={name} {...{ isFirst, isLast, onMove }} />}
      {!readOnly && (
        <button
          type="button"
          className="button-quiet"
          disabled={busy}
          aria-label={`Take ${name} away from here`}
          onClick={onTake}
        >
          Take away
        </button>
      )}
    </li>
  );
}
