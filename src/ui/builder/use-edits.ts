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
  /** Keeps them, on top of what stands in the working design now. */
  rebase: () => void;
}

/**
 * Keeps unsaved changes while the clock moves and the part comes anew: what somebody else changed
 * of it shows where it does not overlap.
 */
export function useEdits<T extends object>(path: string, latest: T): Edits<T> {
  const [begun, setBegun] = useState<{ opened: T; now: T } | null>(null);
  const { spec, opened } = useMemo(() => {
    const merged = begun && mergedOnto(path, latest, stepsOf(path, begun.opened, begun.now));
    if (!begun) return { spec: latest, opened: latest };
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
    rebase: useCallback(() => {
      const merged = mergedOnto(path, latest, stepsOnTop(path, latest, steps));
      if (merged) setBegun({ opened: latest, now: merged });
    }, [path, latest, steps]),
  };
}
