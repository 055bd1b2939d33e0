'use client';

import { useEffect, useRef, useState } from 'react';
import { ask } from './send.ts';

/** What is asked for next while an answer is awaited, and what is shown. */
interface Asking<T> {
  /** The newest that is unanswered; null where all is. */
  wanted: string | null;
  isUnderway: boolean;
  shown: { first: T; body: string };
}

/**
 * The outcome of unsaved settings, asked for at each change, the newest as soon as the one before
 * is answered; the last answer stays meanwhile. `first` is the server's for what is saved: it is
 * taken whenever it comes anew and nothing is unsaved.
 */
export function useOutcome<T>(
  what: 'entry' | 'type' | 'template' | 'listing' | 'settings' | 'style',
  input: unknown,
  first: T,
  unsaved: boolean,
): { outcome: T; problem: string | null } {
  const [outcome, setOutcome] = useState(first);
  const [problem, setProblem] = useState<string | null>(null);
  const body = JSON.stringify(input);
  const asking = useRef<Asking<T>>({
    wanted: null,
    isUnderway: false,
    shown: { first, body },
  });

  useEffect(() => {
    const { current } = asking;
    if (!unsaved && current.shown.first !== first) {
      current.shown = { first, body };
      current.wanted = null;
      setOutcome(first);
      setProblem(null);
      return;
    }
    current.wanted = current.shown.body === body ? null : body;
    if (current.isUnderway || current.wanted === null) return;
    current.isUnderway = true;
    void answerAll(what, current, (answer) => {
      if ('value' in answer) setOutcome(answer.value);
      setProblem('value' in answer ? null : answer.problem);
    });
  }, [body, first, unsaved, what]);
  useEffect(() => {
    const { current } = asking;
    return () => void (current.wanted = null);
  }, []);
  return { outcome, problem };
}

type Answer<T> = Awaited<ReturnType<typeof ask<T>>>;

/** Asks for what is wanted until nothing is; an answer to what was saved meanwhile is dropped. */
async function answerAll<T>(
  what: string,
  asking: Asking<T>,
  show: (answer: Answer<T>) => void,
): Promise<void> {
  while (asking.wanted !== null) {
    const body = asking.wanted;
    const { first } = asking.shown;
    const answer = await ask<T>(what, JSON.parse(body));
    if (asking.wanted === body) asking.wanted = null;
    if (asking.shown.first !== first) continue;
    asking.shown = { first, body };
    show(answer);
  }
  asking.isUnderway = false;
}
