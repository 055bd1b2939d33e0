'use client';

import { useCallback, useMemo, useState } from 'react';
import { type Steps, mergedOnto, stepsOf, stepsOnTop } from './design-steps.ts';

/** Unsaved changes of a part of the design, on top of the working design. */
export interface Edits<T> {
  /** The part with what is unsaved. */
  spec: T;
  /** What is unsaved, as steps from what was opened. */
  steps: Steps;
  changed: boolean;
  change: (next: T) => void;
  /** Drops all of them. */
  drop: () => void;
  /** Says that they are kept: what is shown stays until the part comes anew with them in it. */
  settle: () => void;
  /** Keeps them, on top of what stands in the working design now. */
  rebase: () => void;
}

/** Changes from what was opened; `kept` is the part as it was last seen without them. */
interface Begun<T> {
  opened: T;
  now: T;
  kept?: T;
}

const shownOnce = <T>(part: T): { spec: T; opened: T } => ({ spec: part, opened: part });

/**
 * Keeps unsaved changes while the clock moves and the part comes anew: what somebody else changed
 * of it shows where it does not overlap.
 */
export function useEdits<T extends object>(path: string, latest: T): Edits<T> {
  const [begun, setBegun] = useState<Begun<T> | null>(null);
  const { spec, opened } = useMemo(() => {
    if (begun?.kept) return shownOnce(begun.kept === latest ? begun.now : latest);
    const merged = begun && mergedOnto(path, latest, stepsOf(path, begun.opened, begun.now));
    if (!begun) return shownOnce(latest);
    return merged ? { spec: merged, opened: latest } : { spec: begun.now, opened: begun.opened };
  }, [begun, latest, path]);
  const steps = useMemo(() => stepsOf(path, opened, spec), [path, opened, spec]);
  const change = useCallback((next: T) => setBegun({ opened, now: next }), [opened]);
  return {
    spec,
    steps,
    changed: steps.length > 0,
    change,
    drop: useCallback(() => setBegun(null), []),
    settle: useCallback(
      () => setBegun((before) => before && { ...before, kept: latest }),
      [latest],
    ),
    rebase: useCallback(() => {
      const merged = mergedOnto(path, latest, stepsOnTop(path, latest, steps));
      if (merged) setBegun({ opened: latest, now: merged });
    }, [path, latest, steps]),
  };
}
