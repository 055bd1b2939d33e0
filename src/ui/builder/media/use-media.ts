'use client';

import { useCallback, useEffect, useState } from 'react';
import type { MediaFilters } from '@/core/content/media-filters.ts';
import type { MediaFound, MediaLine } from '@/server/queries/media.ts';
import { ask } from '../send.ts';

/** Media that fit, as far as they have been asked for. */
export interface MediaShown extends MediaFound {
  problem: string | null;
  /** Asks for the next ones; null where all are there. */
  more: (() => void) | null;
}

const PAUSE_MS = 150;

/**
 * The media as of an instant, the newest where it is null, that fit; `first` is what the server gave with the screen, and
 * `stamp` changes whenever they are to be looked for again.
 */
export function useMedia(
  at: number | null,
  filters: Partial<MediaFilters>,
  { first = null, stamp = 0 }: { first?: MediaFound | null; stamp?: number },
): MediaShown {
  const [found, setFound] = useState<MediaFound | null>(first);
  const [problem, setProblem] = useState<string | null>(null);
  const asked = JSON.stringify({ at, filters });
  const key = `${asked} ${stamp}`;
  const [shown, setShown] = useState(first ? key : '');
  useEffect(() => {
    if (shown === key) return;
    const stop = new AbortController();
    const timer = setTimeout(() => {
      ask<MediaFound>('media', { ...JSON.parse(asked), from: 0 }, stop.signal)
        .then((answer) => {
          if ('value' in answer) setFound(answer.value);
          setProblem('value' in answer ? null : answer.problem);
          setShown(key);
        })
        .catch(() => undefined); // asked again with what was changed since
    }, PAUSE_MS);
    return () => {
      clearTimeout(timer);
      stop.abort();
    };
  }, [asked, key, shown]);
  const lines: MediaLine[] = found?.lines ?? [];
  const total = found?.total ?? 0;
  const from = lines.length;
  const more = useCallback(() => {
    void ask<MediaFound>('media', { ...JSON.parse(asked), from }).then((answer) => {
      if ('value' in answer)
        setFound((now) => ({
          total: answer.value.total,
          lines: [...(now?.lines ?? []), ...answer.value.lines],
        }));
    });
  }, [asked, from]);
  return { total, lines, problem, more: from < total ? more : null };
}
