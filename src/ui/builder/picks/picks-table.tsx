'use client';

import { useState } from 'react';
import { freeKey, typeKeyOf } from '@/core/outline/names.ts';
import type { Part } from '@/core/design-edit/parts.ts';
import type { Clock } from '@/server/queries/clock.ts';
import type { PicksLine } from '@/server/queries/picks.ts';
import { Issues, SaidLine } from '@/ui/primitives/issues.tsx';
import { counted } from '../format.ts';
import { useDesignReadOnly } from '../rights.tsx';
import { newId } from '../design-steps.ts';
import { command } from '../send.ts';
import { ClockLink } from '../shell/clock-link.tsx';
import { toldOnBench } from '../type/told-on-bench.ts';
import { useAttempts } from '../use-attempts.ts';

/** All picks, each leading to its screen; new ones are made on the bench. */
export function PicksTable({
  lines,
  language,
  clock,
}: {
  lines: readonly PicksLine[];
  language: string;
  clock: Clock;
}) {
  const readOnly = useDesignReadOnly(clock);
  const { attempt, busy, said, issues } = useAttempts();
  const [label, setLabel] = useState('');
  const name = label.trim();
  const make = async (): Promise<void> => {
    const key = freeKey(typeKeyOf(name, language), new Set(lines.map((line) => line.key)));
    const part = { id: newId(), key, label: name, description: '' } as Part & { id: string };
    const after = lines.at(-1)?.id ?? null;
    const step = { do: 'add', within: '', list: 'picks', after, part } as const;
    await attempt(
      () => command('editDesign', { steps: [step] }),
      toldOnBench(attempt, { to: `/build/listings/picks/${key}`, from: '/build/listings' }),
    );
  };
  return (
    <section aria-label="Picks" className="mt-8">
      <h2 className="text-section font-semibold">Picks</h2>
      <p className="mb-2 text-muted">
        Entries chosen and put in order by hand, each from when and until when it is wanted.
      </p>
      <ul>
        {lines.map(({ key, label: own, description, count }) => (
          <li key={key} className="flex gap-4 border-t border-rule py-1.5">
            <ClockLink
              className="w-60 shrink-0 truncate font-[550] text-ink hover:underline"
              href={`/build/listings/picks/${key}`}
            >
              {own}
            </ClockLink>
            <span className="min-w-0 flex-1 truncate text-muted" title={description}>
              {description}
            </span>
            <span className="text-muted">{counted(count, 'entry', 'entries')}</span>
          </li>
        ))}
      </ul>
      {lines.length === 0 && (
        <p className="border-t border-rule py-3 text-muted">
          None so far. Picks are for what no rule finds: a shelf on the front page, a week’s choice.
        </p>
      )}
      {!readOnly && (
        <NewPicks name={label} busy={busy} onName={setLabel} onMake={() => void make()} />
      )}
      <SaidLine said={said} />
      <Issues issues={issues} title="Not done" answers />
    </section>
  );
}

function NewPicks({
  name,
  busy,
  onName,
  onMake,
}: {
  name: string;
  busy: boolean;
  onName: (name: string) => void;
  onMake: () => void;
}) {
  const isBlank = name.trim() === '';
  return (
    <form
      className="mt-2 flex max-w-[420px] gap-2"
      onSubmit={(event) => {
        event.preventDefault();
        if (!isBlank) onMake();
      }}
    >
      <input
        className="control"
        aria-label="Name of the new picks"
        placeholder="New picks, such as “Front shelf”"
        maxLength={200}
        value={name}
        onChange={(e) => onName(e.target.value)}
      />
      <button type="submit" className="button shrink-0" disabled={busy || isBlank}>
        Make them
      </button>
    </form>
  );
}
