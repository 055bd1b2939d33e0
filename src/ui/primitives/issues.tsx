'use client';

import { type RefObject, useEffect, useRef } from 'react';
import type { Issue } from '@/core/issue.ts';

/** What stands in the way: each issue with its place, reason and remedy. */
export function Issues({
  issues,
  title,
  answers,
}: {
  issues: Issue[];
  title?: string;
  /** Whether they answer something just done, and so come into sight. */
  answers?: boolean;
}) {
  const ref = useInSight(answers && issues.length > 0 ? issues : null);
  if (issues.length === 0) return null;
  return (
    <div ref={ref} role="alert" className="border-l-[3px] border-alarm bg-white px-3 py-2">
      {title && <p className="font-semibold text-alarm">{title}</p>}
      <ul>
        {issues.map((issue, i) => (
          <li key={i} className="mt-1 break-words">
            <span className="text-alarm">{issue.message}</span>{' '}
            {issue.fix && <span className="text-muted">{issue.fix}</span>}
            {issue.values && (
              <dl className="mt-1 grid grid-cols-[96px_minmax(0,1fr)] gap-x-4">
                <dt className="text-muted">Yours</dt>
                <dd>{issue.values.yours}</dd>
                <dt className="text-muted">There now</dt>
                <dd>{issue.values.theirs}</dd>
              </dl>
            )}
          </li>
        ))}
      </ul>
    </div>
  );
}

/** A line that says what just happened, read out politely, with a way to take it back. */
export function SaidLine({
  said,
}: {
  said: { words: string; undo?: { label: string; run: () => void } | undefined } | null;
}) {
  const ref = useInSight(said);
  return (
    <div
      ref={ref}
      role="status"
      aria-live="polite"
      className={said ? 'border-l-[3px] border-spruce bg-white px-3 py-2' : 'sr-only'}
    >
      {said?.words}
      {said?.undo && (
        <button type="button" className="button-quiet" onClick={said.undo.run}>
          {said.undo.label}
        </button>
      )}
    </div>
  );
}

/** Brings an element into sight whenever what it tells is another. */
function useInSight(told: unknown): RefObject<HTMLDivElement | null> {
  const ref = useRef<HTMLDivElement>(null);
  useEffect(() => {
    if (told) ref.current?.scrollIntoView({ block: 'nearest' });
  }, [told]);
  return ref;
}
