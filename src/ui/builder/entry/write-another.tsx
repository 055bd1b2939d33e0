'use client';

import { Popover } from 'radix-ui';
import { useEffect, useState } from 'react';
import type { FormField } from '@/server/queries/form-field.ts';

/** Publishes what is written and begins another one, which keeps the values of chosen fields. */
export function WriteAnother({
  type,
  fields,
  disabled,
  onGo,
}: {
  /** Key of the type. */
  type: string;
  fields: readonly FormField[];
  disabled: boolean;
  /** Hears the ids of the fields whose values are kept. */
  onGo: (keep: string[]) => void;
}) {
  const { kept, choose } = useKept(type);
  const offered = fields.filter(({ control }) => control !== 'computed');
  return (
    <Popover.Root>
      <Popover.Trigger className="button" disabled={disabled}>
        Publish and write another …
      </Popover.Trigger>
      <Popover.Portal>
        <Popover.Content
          align="end"
          sideOffset={4}
          aria-label="Publish and write another"
          className="z-30 max-h-[70vh] w-80 overflow-auto rounded-md border border-edge bg-white p-3"
        >
          <fieldset>
            <legend className="font-medium">The next one keeps</legend>
            {offered.map(({ id, label }) => (
              <label key={id} className="flex h-7 items-center gap-2">
                <input
                  type="checkbox"
                  checked={kept.includes(id)}
                  onChange={() =>
                    choose(kept.includes(id) ? kept.filter((k) => k !== id) : [...kept, id])
                  }
                />
                <span className="truncate">{label}</span>
              </label>
            ))}
          </fieldset>
          <Popover.Close className="button button-main mt-2" onClick={() => onGo(kept)}>
            Publish now, and go on
          </Popover.Close>
        </Popover.Content>
      </Popover.Portal>
    </Popover.Root>
  );
}

/** The fields that are kept from one entry of a type to the next, as they were chosen last. */
function useKept(type: string): { kept: string[]; choose: (ids: string[]) => void } {
  const key = `bontel.kept-fields.${type}`;
  const [kept, setKept] = useState<string[]>([]);
  useEffect(() => {
    try {
      const stored: unknown = JSON.parse(localStorage.getItem(key) ?? '[]');
      setKept(Array.isArray(stored) ? stored.map(String) : []);
    } catch {
      localStorage.removeItem(key);
    }
  }, [key]);
  return {
    kept,
    choose: (ids) => {
      setKept(ids);
      localStorage.setItem(key, JSON.stringify(ids));
    },
  };
}
