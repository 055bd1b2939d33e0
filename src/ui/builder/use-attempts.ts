'use client';

import { useRouter } from 'next/navigation';
import { useCallback, useEffect, useState } from 'react';
import type { Issue, Result } from '@/core/issue.ts';
import type { Work } from './long-work.tsx';

/** Something that can be taken back, with how. */
export interface Undo {
  label: string;
  run: () => void;
}

/** What just happened, and how to take it back. */
export interface Said {
  words: string;
  undo?: Undo | undefined;
  /** The screen that it leads to, and is told on; whether that takes this one's place. */
  leadsTo?: { path: string; replaces?: true } | undefined;
}

/** What is told on the next screen: this one led there. */
let carried: Said | null = null;

/** Things done one at a time, and what came of the last. */
export interface Attempts {
  busy: boolean;
  issues: Issue[];
  said: Said | null;
  /** Forgets what came of the last. */
  hush: () => void;
  /** What it is watched by while it takes long. */
  work: Work;
  /** Does something and draws the screen anew; whether it worked. */
  attempt: <T>(
    act: (job: string) => Promise<Result<T>>,
    then: (value: T) => Said,
  ) => Promise<boolean>;
}

/** What a new write is watched by. */
export function newJob(): string {
  return `${Date.now().toString(36)}-${Math.random().toString(36).slice(2)}`;
}

/** Has things done one at a time, and tells what came of the last. */
export function useAttempts(): Attempts {
  const router = useRouter();
  const [issues, setIssues] = useState<Issue[]>([]);
  const [said, setSaid] = useState<Said | null>(() => carried);
  useEffect(() => void (carried = null), []);
  const [busy, setBusy] = useState(false);
  const [job, setJob] = useState('');
  const attempt = useCallback(
    async <T>(
      act: (job: string) => Promise<Result<T>>,
      then: (value: T) => Said,
    ): Promise<boolean> => {
      const id = newJob();
      setJob(id);
      setBusy(true);
      const result = await act(id);
      setBusy(false);
      setIssues(result.ok ? [] : result.issues);
      const next = result.ok ? then(result.value) : null;
      setSaid(next);
      if (next?.leadsTo) {
        const { path, replaces } = next.leadsTo;
        carried = next;
        if (replaces) router.replace(path);
        else router.push(path);
      }
      router.refresh(); // after a refusal too: somebody else may have changed what is shown
      return result.ok;
    },
    [router],
  );
  const hush = useCallback(() => {
    setSaid(null);
    setIssues([]);
  }, []);
  return { busy, issues, said, hush, work: { busy, job }, attempt };
}
