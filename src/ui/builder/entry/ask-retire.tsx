'use client';

import { useEffect, useState } from 'react';
import type { Clock } from '@/server/queries/clock.ts';
import type { EntryDetail } from '@/server/queries/entry.ts';
import type { RetireReach } from '@/server/queries/entry-outcome.ts';
import { Dialog } from '@/ui/primitives/dialog.tsx';
import { counted, instantWords } from '../format.ts';
import { ask } from '../send.ts';

/** Asks before an entry is taken off the site now: what goes, what leads on, who points at it. */
export function AskRetire({
  what,
  detail,
  clock,
  onClose,
  onDo,
}: {
  what: 'retire' | 'delete';
  detail: { id: EntryDetail['id']; name: string };
  clock: Clock;
  onClose: () => void;
  onDo: () => void;
}) {
  const [reach, setReach] = useState<RetireReach | null>(null);
  const [problem, setProblem] = useState<string | null>(null);
  useEffect(() => {
    void ask<RetireReach>('retire', { at: Date.now(), id: detail.id }).then((answer) =>
      'value' in answer ? setReach(answer.value) : setProblem(answer.problem),
    );
  }, [detail.id]);
  const verb = what === 'retire' ? 'Retire' : 'Delete';
  const today = instantWords(clock.now, clock.zone, clock.now);
  return (
    <Dialog open onOpenChange={onClose} title={`${verb} “${detail.name}” now (${today})?`}>
      <ul className="mt-3 list-disc pl-5">
        {problem && <li className="text-alarm">{problem}</li>}
        {reach === null && !problem && <li className="text-muted">Looking what depends on it …</li>}
        {reach && linesOf(reach, what).map((line) => <li key={line}>{line}</li>)}
      </ul>
      <div className="mt-4 flex gap-2">
        <button
          type="button"
          className="button button-main"
          onClick={() => {
            onDo();
            onClose();
          }}
        >
          {`${verb} now`}
        </button>
        <button type="button" className="button" onClick={onClose}>
          {what === 'retire' ? 'Leave it public' : 'Keep it'}
        </button>
      </div>
    </Dialog>
  );
}

function linesOf(reach: RetireReach, what: 'retire' | 'delete'): string[] {
  const { path, answers, former, listed, referring, referringTotal } = reach;
  const names = referring.map((r) => r.name).join(', ');
  const more = referringTotal > referring.length ? ' and others' : '';
  return [
    path === null
      ? 'It has no page at the moment.'
      : `Its page ${path} goes; its address ${answers}.`,
    ...(former > 0
      ? [
          `${counted(former, 'former address', 'former addresses')} of it no longer leads to a page.`,
        ]
      : []),
    ...(listed.length > 0 ? [`It leaves ${listed.join(', ')}.`] : []),
    referringTotal === 0
      ? 'No public entry points at it.'
      : `${counted(referringTotal, 'public entry points', 'public entries point')} at it and will show nothing there: ${names}${more}.`,
    what === 'delete'
      ? 'It leaves Content; what was public before can still be looked at. Deleting can be undone.'
      : 'It can be published again at the same address.',
  ];
}
