'use client';

import { useMemo, useState } from 'react';
import { settingStep } from '@/core/design-edit/shared-settings.ts';
import type { TypeLine } from '@/server/queries/types.ts';
import type { Steps } from '../design-steps.ts';

type Value = string | boolean | null;

/** Settings of several types, set together and not saved yet. */
export interface Shared {
  steps: Steps;
  /** What a type would have. */
  valueOf: (line: TypeLine, property: string) => Value;
  set: (ids: readonly string[], property: string, value: Value) => void;
  drop: () => void;
}

/** Keeps what is set for several types until it is saved. */
export function useShared(types: readonly TypeLine[]): Shared {
  const [wanted, setWanted] = useState<ReadonlyMap<string, Value>>(new Map());
  const steps = useMemo(
    () =>
      [...wanted].flatMap(([name, value]) => {
        const [id, property] = name.split(' ') as [string, string];
        const line = types.find((type) => type.id === id);
        return (line && settingStep(line, property, value)) ?? [];
      }),
    [wanted, types],
  );
  return {
    steps,
    valueOf: ({ id, settings }, property) => {
      const value = wanted.get(`${id} ${property}`);
      return value === undefined ? (settings[property] ?? null) : value;
    },
    set: (ids, property, value) =>
      setWanted(new Map([...wanted, ...ids.map((id) => [`${id} ${property}`, value] as const)])),
    drop: () => setWanted(new Map()),
  };
}
