'use client';

import { useRouter } from 'next/navigation';
import { startTransition, useCallback, useOptimistic } from 'react';
import { useClockParameters } from './shell/use-clock.ts';

/**
 * What stands in the address bar, so that it can be gone back to and sent to others, and how to
 * ask for something else. What was asked for last is given at once: the next choice builds on it,
 * though what it shows is still to come.
 */
export function useAddressBar<Asked extends object>(
  shown: Asked,
  hrefOf: (asked: Asked) => string,
): [Asked, (change: Partial<Asked>) => void] {
  const router = useRouter();
  const { keep } = useClockParameters();
  const [asked, setAsked] = useOptimistic(shown);
  const ask = useCallback(
    (change: Partial<Asked>): void => {
      const next = { ...asked, ...change };
      startTransition(() => {
        setAsked(next);
        router.replace(keep(hrefOf(next)), { scroll: false });
      });
    },
    [asked, setAsked, router, keep, hrefOf],
  );
  return [asked, ask];
}
