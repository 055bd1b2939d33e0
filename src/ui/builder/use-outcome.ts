'use client';

import { useEffect, useRef, useState } from 'react';

const PAUSE_MS = 200;

/** The outcome of unsaved settings, asked for shortly after each change; the last answer stays while the next is awaited. */
export function useOutcome<T>(
  what: 'entry' | 'type' | 'listing',
  input: unknown,
  first: T,
): { outcome: T; waiting: boolean; problem: string | null } {
  const [outcome, setOutcome] = useState(first);
  const [waiting, setWaiting] = useState(false);
  const [problem, setProblem] = useState<string | null>(null);
  const body = JSON.stringify(input);
  const asked = useRef(body);

  useEffect(() => setOutcome(first), [first]);
  useEffect(() => {
    if (asked.current === body) return;
    asked.current = body;
    const stop = new AbortController();
    const timer = setTimeout(() => {
      setWaiting(true);
      fetch(`/api/outcome/${what}`, {
        method: 'POST',
        body,
        headers: { 'content-type': 'application/json' },
        signal: stop.signal,
      })
        .then(async (response) => {
          const answer = (await response.json()) as T & { message?: string };
          if (response.ok) setOutcome(answer);
          setProblem(
            response.ok ? null : (answer.message ?? 'The outcome could not be worked out.'),
          );
          setWaiting(false);
        })
        .catch((error: unknown) => {
          if ((error as Error).name === 'AbortError') return;
          setProblem(
            'The server cannot be reached; what you see is as of before. Your words are kept here.',
          );
          setWaiting(false);
        });
    }, PAUSE_MS);
    return () => {
      clearTimeout(timer);
      stop.abort();
    };
  }, [body, what]);
  return { outcome, waiting, problem };
}
