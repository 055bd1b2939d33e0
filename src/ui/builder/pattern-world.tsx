'use client';

import { type ReactNode, createContext, useContext, useMemo } from 'react';
import type { Clock } from '@/server/queries/clock.ts';
import type { BeingWritten } from '@/server/queries/completions.ts';
import { lookingOf } from './looking.ts';

/** What patterns of a screen are read from. */
export type PatternWorld = Pick<BeingWritten, 'type' | 'inFrame' | 'over' | 'specimen'> &
  ReturnType<typeof lookingOf>;

const World = createContext<PatternWorld | null>(null);

/** Says what the patterns within are read from: then they are completed while they are written. */
export function PatternWorldProvider({
  type,
  inFrame = false,
  over = [],
  specimen,
  clock,
  children,
}: {
  /** Key of the type; null where none is read. */
  type: string | null;
  inFrame?: boolean;
  /** What blocks around repeat, the outermost first. */
  over?: string[];
  specimen: string | null;
  clock: Clock;
  children: ReactNode;
}) {
  const { at, tense, seeing } = clock;
  const repeated = over.join('\n');
  const world = useMemo(
    () => ({
      ...{ type, inFrame, specimen, at, seeing, past: tense === 'past' },
      over: repeated === '' ? [] : repeated.split('\n'),
    }),
    [type, inFrame, repeated, specimen, at, tense, seeing],
  );
  return <World value={world}>{children}</World>;
}

/** What patterns are read from here; null where nobody says it. */
export function usePatternWorld(): PatternWorld | null {
  return useContext(World);
}
