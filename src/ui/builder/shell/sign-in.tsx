'use client';

import { useRouter } from 'next/navigation';
import { useEffect, useRef, useState } from 'react';

/** Takes the one-time token from the address's fragment, clears it, and exchanges it for a session. */
export function SignIn() {
  const router = useRouter();
  const [words, setWords] = useState<string | null>(null);
  const tried = useRef(false);
  useEffect(() => {
    const token = location.hash.slice(1);
    if (token === '' || tried.current) {
      if (!tried.current) setWords('Open the sign-in link that the server printed when it started. Restart the server for a new one.');
      return;
    }
    tried.current = true;
    history.replaceState(null, '', location.pathname);
    fetch('/api/session', { method: 'POST', headers: { 'content-type': 'application/json' }, body: JSON.stringify({ token }) })
      .then(async (response) => {
        if (response.ok) router.replace('/build');
        else setWords(`${((await response.json()) as { message: string }).message} Restart the server for a new link.`);
      })
      .catch(() => setWords('The server cannot be reached. Reload the page to try again.'));
  }, [router]);
  return (
    <main className="mx-auto max-w-md p-10">
      <h1>Sign in to the builder</h1>
      <p role="status" className="mt-3">
        {words ?? 'Signing in …'}
      </p>
    </main>
  );
}
