'use client';

import { useState } from 'react';
import type { Removed } from '@/core/rich-text/index.ts';
import { counted } from '../../format.ts';

/** What was taken out of what was pasted: said, and offered back. */
export function RemovedLine({
  removed,
  onUndo,
  onDone,
}: {
  removed: readonly Removed[];
  onUndo: () => void;
  onDone: () => void;
}) {
  const [open, setOpen] = useState(false);
  const kinds = new Map<string, number>();
  for (const { what } of removed) kinds.set(what, (kinds.get(what) ?? 0) + 1);
  const words = [...kinds].map(([what, n]) => (n === 1 ? what : `${what} (${n})`)).join(', ');
  return (
    <div role="status" className="border-t border-rule bg-paper p-2 text-note">
      <p>{`This text holds no ${words}: taken out of what was pasted. Words stayed where they could.`}</p>
      <div className="mt-1 flex flex-wrap gap-2">
        <button
          type="button"
          className="button-quiet"
          aria-expanded={open}
          onClick={() => setOpen(!open)}
        >
          {open ? 'Hide what was taken out' : 'Show what was taken out'}
        </button>
        <button type="button" className="button-quiet" onClick={onUndo}>
          Undo the pasting
        </button>
        <button type="button" className="button-quiet" onClick={onDone}>
          All right
        </button>
      </div>
      {open && (
        <textarea
          readOnly
          aria-label={`What was taken out: ${counted(removed.length, 'piece', 'pieces')}`}
          className="control mt-1 font-mono !text-note"
          rows={6}
          value={removed
            .map(({ what, words: w, node }) => `${what}: ${w || JSON.stringify(node)}`)
            .join('\n')}
        />
      )}
    </div>
  );
}
