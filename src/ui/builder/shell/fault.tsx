'use client';

import Link from 'next/link';
import { useEffect } from 'react';

/** Says that something could not be shown, that nothing is lost, and the ways back. */
export function Fault({ title, error, reset }: { title: string; error: Error; reset: () => void }) {
  useEffect(() => console.error(error), [error]);
  return (
    <main className="p-6">
      <h1>{title}</h1>
      <p className="mt-2 text-muted">
        A fault in the program stopped it; the server’s log says where. Nothing you saved is lost,
        and unsaved words are kept in this browser.
      </p>
      <div className="mt-4 flex items-center gap-3">
        <button type="button" className="button" onClick={reset}>
          Try again
        </button>
        <Link href="/build">Go to Today, at now</Link>
      </div>
    </main>
  );
}
