'use client';

import { useRouter } from 'next/navigation';
import { useEffect, useState } from 'react';

const ASK =
  'Open the sign-in link that the server printed when it started. For a new one, run “npx bontel sign-in” where the site’s data are.';

/**
 * Takes the one-time token from the address's fragment, clears it, and exchanges it for a
 * session.
 */
export function SignIn() {
  const router = useRouter();
  const [words, setWords] = useState<string | null>(null);
  useEffect(() => {
    // A link pasted while this page is open changes the fragment only, so it is read again then.
    const take = (): void => {
      const token = location.hash.slice(1);
      if (token === '') return setWords((before) => before ?? ASK);
      history.replaceState(null, '', location.pathname);
      setWords('Signing in …');
      void exchange(token).then((problem) =>
        problem === null ? router.replace('/build') : setWords(problem),
      );
    };
    take();
    window.addEventListener('hashchange', take);
    return () => window.removeEventListener('hashchange', take);
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

/** Exchanges a token for a session cookie; null where it worked, else what to do. */
async function exchange(token: string): Promise<string | null> {
  try {
    const response = await fetch('/api/session', {
      method: 'POST',
      headers: { 'content-type': 'application/json' },
      body: JSON.stringify({ token }),
    });
    if (response.ok) return null;
    return `${((await response.json()) as { message: string }).message} For a new one, run “npx bontel sign-in” where the site’s data are.`;
  } catch {
    return 'The server cannot be reached. Open the link again to try once more.';
  }
}
