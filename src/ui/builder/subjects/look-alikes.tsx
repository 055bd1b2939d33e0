'use client';

import { useState } from 'react';
import { lookAlikes } from '@/core/outline/look-alikes.ts';
import type { SubjectLine } from '@/server/queries/subjects.ts';
import { entriesCounted } from '../format.ts';
import { MergeDialog } from './merge-dialog.tsx';
import type { Change } from './use-change.ts';

const SHOWN = 50;

/** Names of a set that are nearly the same, each pair to be merged. */
export function LookAlikes({
  set,
  subjects,
  language,
  change,
}: {
  set: string;
  subjects: readonly SubjectLine[];
  language: string;
  change: Change;
}) {
  const [pairs, setPairs] = useState<[string, string][] | null>(null);
  const [merging, setMerging] = useState<SubjectLine[]>([]);
  const byKey = new Map(subjects.map((line) => [line.key, line]));
  const found = (pairs ?? []).flatMap(([a, b]): [SubjectLine, SubjectLine][] => {
    const [one, two] = [byKey.get(a), byKey.get(b)];
    return one && two ? [[one, two]] : [];
  });
  const look = (): void => setPairs(lookAlikes(subjects, language).map(([a, b]) => [a.key, b.key]));
  return (
    <div>
      <button
        type="button"
        className="button"
        aria-expanded={pairs !== null}
        onClick={() => (pairs ? setPairs(null) : look())}
      >
        {pairs ? 'Hide those that look alike' : 'Find those that look alike'}
      </button>
      {pairs && (
        <div role="status" className="mt-2">
          {found.length === 0 && <p className="text-muted">No two names look alike.</p>}
          <ul>
            {found.slice(0, SHOWN).map(([a, b]) => (
              <li
                key={`${a.key} ${b.key}`}
                className="flex items-center gap-3 border-t border-rule py-1"
              >
                <span className="min-w-0 flex-1 break-words">
                  {`${a.name} (${entriesCounted(a.own)}) and ${b.name} (${entriesCounted(b.own)})`}
                </span>
                <button
                  type="button"
                  className="button-quiet"
                  aria-label={`Merge ${a.name} and ${b.name}`}
                  onClick={() => setMerging([a, b])}
                >
                  Merge …
                </button>
              </li>
            ))}
          </ul>
          {found.length > SHOWN && (
            <p className="text-muted">{`… and ${found.length - SHOWN} more`}</p>
          )}
        </div>
      )}
      {merging.length > 0 && (
        <MergeDialog
          {...{ set, subjects, change }}
          lines={merging}
          onClose={() => setMerging([])}
        />
      )}
    </div>
  );
}
