'use client';

import { useEffect, useRef, useState } from 'react';
import { ask } from './send.ts';

const PAUSE_MS = 200;

/**
 * The outcome of unsaved settings, asked for shortly after each change; the last answer stays
 * while the next is awaited. `first` is the server's for what is saved: it is taken whenever it
 * comes anew and nothing is unsaved.
 */
export function useOutcome<T>(
  what: 'entry' | 'type' | 'listing' | 'settings',
  input: unknown,
  first: T,
  unsaved: boolean,
): { outcome: T; problem: string | null } {
  const [outcome, setOutcome] = useState(first);
  const [problem, setProblem] = useState<string | null>(null);
  const body = JSON.stringify(input);
  const shown = useRef({ first, body });

  useEffect(() => {
    if (!unsaved && shown.current.first !== first) {
      shown.current = { first, body };
      setOutcome(first);
      setProblem(null);
      return;
    }
    if (shown.current.body === body) return;
    const stop = new AbortController();
    const timer = setTimeout(() => {
      ask<T>(what, JSON.parse(body), stop.signal)
        .then((answer) => {
          shown.current = { first, body };
          if ('value' in answer) setOutcome(answer.value);
          setProblem('value' in answer ? null : answer.problem);
        })
        .catch(() => undefined); // asked again with what was written since
    }, PAUSE_MS);
    return () => {
      clearTimeout(timer);
      stop.abort();
    };
  }, [body, first, unsaved, what]);
  return { outcome, problem };
}
