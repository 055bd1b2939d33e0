'use client';

import { useEffect, useState } from 'react';
import type { EntryDetail } from '@/server/queries/entry.ts';

type Values = Record<string, unknown>;
/** Unsaved values of an earlier visit. */
export interface KeptValues {
  at: number;
  revision: number | null;
  values: Values;
}

/** Keeps unsaved values in this browser, and offers those of an earlier visit. Never published, never a version. */
export function useRecovery(
  detail: EntryDetail,
  unsaved: Values | null,
): { found: KeptValues | null; forget: () => void; taken: () => void } {
  const key = `bontel.unsaved.${detail.id ?? `new.${detail.type.key}`}`;
  const [found, setFound] = useState<KeptValues | null>(null);
  useEffect(() => {
    try {
      const kept = JSON.parse(localStorage.getItem(key) ?? 'null') as KeptValues | null;
      if (kept) setFound(kept);
    } catch {
      localStorage.removeItem(key);
    }
  }, [key]);
  useEffect(() => {
    if (unsaved === null) return;
    const timer = setTimeout(
      () =>
        localStorage.setItem(
          key,
          JSON.stringify({
            at: Date.now(),
            revision: detail.revision,
            values: unsaved,
          } satisfies KeptValues),
        ),
      500,
    );
    return () => clearTimeout(timer);
  }, [key, unsaved, detail.revision]);
  return {
    found: unsaved === null ? found : null,
    taken: () => setFound(null),
    forget: () => {
      localStorage.removeItem(key);
      setFound(null);
    },
  };
}
