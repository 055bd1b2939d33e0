'use client';

import { useCallback, useMemo, useState } from 'react';
import { type Steps, mergedOnto, stepsOf, stepsOnTop } from './design-steps.ts';

/** Unsaved changes of parts of the design, on top of the working design. */
interface Unsaved {
  /** What is unsaved, as steps from what was opened. */
  steps: Steps;
  changed: boolean;
  /** Drops all of them. */
  drop: () => void;
  /** Says that they are kept: what is shown stays until the parts come anew with them in it. */
  settle: () => void;
  /** Keeps them, on top of what stands in the working design now. */
  rebase: () => void;
}

/** Unsaved changes of one part. */
export interface Edits<T> extends Unsaved {
  /** The part with what is unsaved. */
  spec: T;
  change: (next: T) => void;
}

/** Unsaved changes of several parts that are kept together, by their paths. */
export interface EditsTogether extends Unsaved {
  specs: Readonly<Record<string, object>>;
  change: (path: string, next: object) => void;
}

/** Changes from what was opened; `kept` is the part as it was last seen without them. */
interface Begun {
  opened: object;
  now: object;
  kept?: object;
}

/** A part with what is unsaved, and as it was opened. */
interface Shown {
  spec: object;
  opened: object;
}

function shownOf(path: string, latest: object, begun: Begun | undefined): Shown {
  if (!begun) return { spec: latest, opened: latest };
  if (begun.kept) {
    const spec = begun.kept === latest ? begun.now : latest;
    return { spec, opened: spec };
  }
  const merged = mergedOnto(path, latest, stepsOf(path, begun.opened, begun.now));
  return merged ? { spec: merged, opened: latest } : { spec: begun.now, opened: begun.opened };
}

/**
 * Keeps unsaved changes of several parts while the clock moves and the parts come anew: what
 * somebody else changed of them shows where it does not overlap.
 */
export function useEditsTogether(latest: Readonly<Record<string, object>>): EditsTogether {
  const [begun, setBegun] = useState<Readonly<Record<string, Begun>>>({});
  const shown = useMemo(() => {
    const all = Object.entries(latest);
    return new Map(all.map(([path, part]) => [path, shownOf(path, part, begun[path])]));
  }, [begun, latest]);
  const steps = useMemo(
    () => [...shown].flatMap(([path, { opened, spec }]) => stepsOf(path, opened, spec)),
    [shown],
  );
  const change = useCallback(
    (path: string, now: object) =>
      setBegun((before) => ({ ...before, [path]: { opened: shown.get(path)!.opened, now } })),
    [shown],
  );
  const settle = useCallback(() => {
    const kept = ([path, one]: [string, Begun]): [string, Begun] => [
      path,
      latest[path] ? { ...one, kept: latest[path] } : one,
    ];
    setBegun((before) => Object.fromEntries(Object.entries(before).map(kept)));
  }, [latest]);
  const rebase = useCallback(() => {
    const onTop = ([path, { opened, spec }]: [string, Shown]): [string, Begun][] => {
      const own = stepsOf(path, opened, spec);
      const merged = mergedOnto(path, latest[path]!, stepsOnTop(path, latest[path]!, own));
      return merged && own.length > 0 ? [[path, { opened: latest[path]!, now: merged }]] : [];
    };
    setBegun((before) => ({ ...before, ...Object.fromEntries([...shown].flatMap(onTop)) }));
  }, [shown, latest]);
  return {
    specs: useMemo(
      () => Object.fromEntries([...shown].map(([path, { spec }]) => [path, spec])),
      [shown],
    ),
    ...{ steps, changed: steps.length > 0, change, settle, rebase },
    drop: useCallback(() => setBegun({}), []),
  };
}

/** The same of one part. */
export function useEdits<T extends object>(path: string, latest: T): Edits<T> {
  const { specs, change, ...unsaved } = useEditsTogether(
    useMemo(() => ({ [path]: latest }), [path, latest]),
  );
  return {
    ...unsaved,
    spec: specs[path] as T,
    change: useCallback((next: T) => change(path, next), [path, change]),
  };
}
