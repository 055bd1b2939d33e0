'use client';

import { useEffect, useState } from 'react';
import type { Reach, ReachInput } from '@/server/queries/reach.ts';
import { ask } from '../send.ts';

const PAUSE_MS = 400;

/** What is known so far of what a change does. */
export interface ReachSoFar {
  reach: Reach | null;
  problem: string | null;
  /** Whether it is still being looked for. */
  busy: boolean;
  stop: () => void;
}

/**
 * Has the reach of a change looked for, and takes what is found as it comes; null where there is
 * no change. Another change, or leaving the screen, ends it.
 */
export function useReach(input: ReachInput | null): ReachSoFar {
  const [found, setFound] = useState<{ body: string; reach: Reach | null } | null>(null);
  const [problem, setProblem] = useState<string | null>(null);
  const [stopped, setStopped] = useState<string | null>(null);
  const body = input && JSON.stringify(input);
  useEffect(() => {
    if (body === null || stopped === body) return;
    const stop = new AbortController();
    const goOn = async (): Promise<void> => {
      for (;;) {
        const answer = await ask<Reach | null>('reach', JSON.parse(body), stop.signal);
        if (stop.signal.aborted) return;
        setProblem('value' in answer ? null : answer.problem);
        if (!('value' in answer)) return;
        setFound({ body, reach: answer.value });
        if (answer.value === null || answer.value.done) return;
      }
    };
    const timer = setTimeout(() => {
      goOn().catch(() => undefined); // another change is looked into instead
    }, PAUSE_MS);
    return () => {
      clearTimeout(timer);
      stop.abort();
    };
  }, [body, stopped]);
  const reach = found !== null && found.body === body ? found.reach : null;
  return {
    reach,
    problem,
    busy: body !== null && stopped !== body && problem === null && !reach?.done,
    stop: () => setStopped(body),
  };
}
