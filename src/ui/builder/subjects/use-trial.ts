'use client';

import { useEffect, useState } from 'react';
import type { Issue } from '@/core/issue.ts';
import type { SubjectChange } from '@/core/design/subject-change.ts';
import { command } from '../send.ts';

/** What a change would come to. */
export interface Trial {
  moved: number;
  examples: { from: string; to: string }[];
  issues: Issue[];
}

const PAUSE_MS = 300;

/** What a change to a set would come to, before it is made; null for none, and until it is known. */
export function useTrial(set: string, change: SubjectChange | null): Trial | null {
  const [trial, setTrial] = useState<{ of: string; found: Trial } | null>(null);
  const body = change && JSON.stringify(change);
  useEffect(() => {
    if (body === null) return;
    const job = `trial-${Date.now().toString(36)}-${Math.random().toString(36).slice(2)}`;
    let wanted = true;
    const timer = setTimeout(() => {
      const input = { set, change: JSON.parse(body) as SubjectChange, dry: true };
      void command('changeSubjects', input, job).then((done) => {
        if (!wanted) return;
        const found = done.ok
          ? { ...done.value, issues: [] }
          : { moved: 0, examples: [], issues: done.issues };
        setTrial({ of: body, found });
      });
    }, PAUSE_MS);
    return () => {
      wanted = false;
      clearTimeout(timer);
      void fetch(`/api/job/${encodeURIComponent(job)}`, { method: 'DELETE' });
    };
  }, [set, body]);
  return trial?.of === body ? trial.found : null;
}
