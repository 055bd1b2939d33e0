'use client';

import { useRouter } from 'next/navigation';
import { useEffect, useState } from 'react';
import { Dialog } from '@/ui/primitives/dialog.tsx';

/**
 * Asks before somebody leaves a form with unsaved words by a link; a window that is closed asks only
 * while the last of them are kept nowhere but in it.
 */
export function LeaveGuard({
  unsaved,
  isKept,
  keeps = true,
  canSave,
  onSave,
}: {
  unsaved: boolean;
  isKept: boolean;
  /** Whether unsaved words are kept at all. */
  keeps?: boolean;
  canSave: boolean;
  onSave: () => Promise<boolean>;
}) {
  const router = useRouter();
  const [to, setTo] = useState<string | null>(null);
  useEffect(() => {
    if (!unsaved) return;
    const ask = (event: MouseEvent): void => {
      const href = leadsAway(event);
      if (href === null) return;
      event.preventDefault();
      event.stopPropagation();
      setTo(href);
    };
    document.addEventListener('click', ask, true);
    return () => document.removeEventListener('click', ask, true);
  }, [unsaved]);
  useEffect(() => {
    if (!unsaved || isKept) return;
    const ask = (event: BeforeUnloadEvent): void => event.preventDefault();
    window.addEventListener('beforeunload', ask);
    return () => window.removeEventListener('beforeunload', ask);
  }, [unsaved, isKept]);
  if (to === null) return null;
  const go = (): void => {
    setTo(null);
    router.push(to);
  };
  return (
    <Dialog open onOpenChange={() => setTo(null)} title="Leave with unsaved changes?">
      <p className="mt-2">
        {keeps
          ? 'They are kept for you, and offered when you open this again.'
          : 'They are lost where you do not save them.'}
      </p>
      <div className="mt-4 flex gap-2">
        <button
          type="button"
          className="button button-main"
          disabled={!canSave}
          onClick={() => void onSave().then((done) => (done ? go() : setTo(null)))}
        >
          Save and leave
        </button>
        <button type="button" className="button" onClick={go}>
          Leave
        </button>
        <button type="button" className="button" onClick={() => setTo(null)}>
          Stay
        </button>
      </div>
    </Dialog>
  );
}

/** Where a click on a link leads that goes to another screen in this window; else null. */
function leadsAway(event: MouseEvent): string | null {
  if (event.button !== 0 || event.ctrlKey || event.metaKey || event.shiftKey) return null;
  const link = (event.target as Element | null)?.closest?.('a[href]');
  if (!(link instanceof HTMLAnchorElement) || link.target === '_blank') return null;
  const url = new URL(link.href);
  const isOther = url.origin === location.origin && url.pathname !== location.pathname;
  return isOther ? url.pathname + url.search + url.hash : null;
}
