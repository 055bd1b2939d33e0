'use client';

import { useEffect, useState } from 'react';
import { ask } from './send.ts';

const PAUSE_MS = 150;

/**
 * The answer to a question about what is unsaved, asked at once and again shortly after each
 * change; null until the first is there, and the last one stays while the next is awaited.
 */
export function useAsked<T>(
  what: string,
  input: unknown,
): { answer: T | null; problem: string | null } {
  const [answer, setAnswer] = useState<T | null>(null);
  const [problem, setProblem] = useState<string | null>(null);
  const body = JSON.stringify(input);
  useEffect(() => {
    const stop = new AbortController();
    const timer = setTimeout(() => {
      ask<T>(what, JSON.parse(body), stop.signal)
        .then((found) => {
          if ('value' in found) setAnswer(found.value);
          setProblem('value' in found ? null : found.problem);
        })
        .catch(() => undefined); // asked again with what was changed since
    }, PAUSE_MS);
    return () => {
      clearTimeout(timer);
      stop.abort();
    };
  }, [what, body]);
  return { answer, problem };
}
