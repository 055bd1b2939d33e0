'use client';

import { useEffect, useState } from 'react';
import { counted } from './format.ts';

/** How far a write is that takes long. */
interface Job {
  count: number;
  attempt: number;
}

/** A write that may take long: what it is watched by, while it is under way. */
export interface Work {
  busy: boolean;
  job: string;
}

const LOOK_EVERY_MS = 400;

/** Shows how far a write is that takes long, and cancels it; nothing while there is none. */
export function LongWork({ work: { busy, job } }: { work: Work }) {
  const [found, setFound] = useState<Job | null>(null);
  const [cancelling, setCancelling] = useState(false);
  useEffect(() => {
    if (!busy) return;
    const timer = setInterval(() => void look(job).then(setFound), LOOK_EVERY_MS);
    return () => {
      clearInterval(timer);
      setFound(null);
      setCancelling(false);
    };
  }, [busy, job]);
  if (!busy || !found) return null;
  const cancel = (): void => {
    setCancelling(true);
    void fetch(addressOf(job), { method: 'DELETE' });
  };
  return (
    <div role="status" className="flex items-baseline gap-3 rounded-md bg-hover px-3 py-2">
      <p className="min-w-0 flex-1">
        <span className="font-medium tabular-nums">
          {found.count === 0
            ? 'Working it out …'
            : `${counted(found.count, 'address', 'addresses')} worked out`}
        </span>{' '}
        <span className="text-muted">
          {found.attempt > 1
            ? 'Somebody wrote meanwhile, so it is worked out anew.'
            : 'Others go on working; nothing is changed until all is worked out.'}
        </span>
      </p>
      <button type="button" className="button" disabled={cancelling} onClick={cancel}>
        {cancelling ? 'Cancelling …' : 'Cancel'}
      </button>
    </div>
  );
}

const addressOf = (job: string): string => `/api/job/${encodeURIComponent(job)}`;

async function look(job: string): Promise<Job | null> {
  const response = await fetch(addressOf(job)).catch(() => null);
  return response?.ok ? ((await response.json()) as Job) : null;
}
