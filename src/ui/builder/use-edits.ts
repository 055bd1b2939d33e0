'use client';

import { useCallback, useMemo, useState } from 'react';
import { changesOf, withChanges } from '@/core/design-edit/changes.ts';

/** Unsaved properties of a part of the design, on top of what is released. */
export interface Edits<T> {
  /** The part with what is unsaved. */
  spec: T;
  /** The properties that are unsaved, with their new values; null takes one away. */
  set: Record<string, unknown>;
  changed: boolean;
  /** Which version of the part they were begun on. */
  version: string;
  change: (next: T) => void;
  /** Drops all of them. */
  drop: () => void;
  /** Keeps them, on top of what is released now. */
  rebase: () => void;
}

/** Keeps unsaved properties while the clock moves and the released part comes anew. */
export function useEdits<T extends object>(released: T, version: string): Edits<T> {
  const [edits, setEdits] = useState<{ set: Record<string, unknown>; version: string } | null>(
    null,
  );
  const set = useMemo(() => edits?.set ?? {}, [edits]);
  const spec = useMemo(() => withChanges(released, set), [released, set]);
  const change = useCallback(
    (next: T) => {
      const changes = changesOf(released, next);
      setEdits((before) =>
        Object.keys(changes).length === 0
          ? null
          : { set: changes, version: before?.version ?? version },
      );
    },
    [released, version],
  );
  return {
    spec,
    set,
    changed: edits !== null,
    version: edits?.version ?? version,
    change,
    drop: useCallback(() => setEdits(null), []),
    rebase: useCallback(() => setEdits((before) => before && { ...before, version }), [version]),
  };
}
