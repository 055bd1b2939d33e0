'use client';

import { Popover } from 'radix-ui';
import type { ContentColumn } from '@/server/queries/content.ts';
import { Moves } from '@/ui/primitives/moves.tsx';

/** Chooses which columns stand in the table, and in what order, for whoever is at work. */
export function ChooseColumns({
  columns,
  onChoose,
}: {
  columns: readonly ContentColumn[];
  /** Names of columns in their order; null for those that the type shows. */
  onChoose: (names: string[] | null) => void;
}) {
  const shown = columns.filter((c) => c.shown).map(({ name }) => name);
  const move = (name: string, by: -1 | 1): void => {
    const names = [...shown];
    const at = names.indexOf(name);
    [names[at], names[at + by]] = [names[at + by]!, names[at]!];
    onChoose(names);
  };
  return (
    <Popover.Root>
      <Popover.Trigger className="button">Columns …</Popover.Trigger>
      <Popover.Portal>
        <Popover.Content
          align="end"
          sideOffset={4}
          aria-label="Columns"
          className="z-30 max-h-[70vh] w-80 overflow-auto rounded-md border border-edge bg-white p-3"
        >
          <ul>
            {columns.map(({ name, label, shown: is }) => (
              <li key={name} className="flex h-8 items-center gap-2">
                <label className="flex min-w-0 flex-1 items-center gap-2">
                  <input
                    type="checkbox"
                    checked={is}
                    onChange={() =>
                      onChoose(is ? shown.filter((n) => n !== name) : [...shown, name])
                    }
                  />
                  <span className="truncate">{label}</span>
                </label>
                {is && (
                  <Moves
                    of={label}
                    isFirst={shown[0] === name}
                    isLast={shown.at(-1) === name}
                    onMove={(by) => move(name, by)}
                  />
                )}
              </li>
            ))}
          </ul>
          <button type="button" className="button-quiet mt-2" onClick={() => onChoose(null)}>
            As the type has them
          </button>
        </Popover.Content>
      </Popover.Portal>
    </Popover.Root>
  );
}
