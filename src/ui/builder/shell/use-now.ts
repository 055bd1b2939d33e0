'use client';

import { useRouter } from 'next/navigation';
import { useEffect, useState } from 'react';

const MINUTE_MS = 60_000;
/** A timer this late means that the machine slept, ms. */
const SLEPT_MS = 20_000;

/**
 * Now, moving on with each minute. When an instant at which the site changes has come, and after
 * the machine slept or the page was away, the screen is drawn anew; unsaved words stay.
 */
export function useNow(serverNow: number, changes: readonly number[]): number {
  const router = useRouter();
  const [now, setNow] = useState(serverNow);
  useEffect(() => setNow((before) => Math.max(before, serverNow)), [serverNow]);
  useEffect(() => {
    const next = changes.find((at) => at > now);
    const minute = MINUTE_MS - (now % MINUTE_MS);
    const wait = Math.max(50, Math.min(minute, next === undefined ? minute : next - now + 30));
    const due = Date.now() + wait;
    const timer = setTimeout(() => {
      const then = Date.now();
      const changed = changes.some((at) => at > now && at <= then);
      if (changed || then - due > SLEPT_MS) router.refresh();
      setNow(then);
    }, wait);
    return () => clearTimeout(timer);
  }, [now, changes, router]);
  useEffect(() => {
    let left = Date.now();
    const see = (): void => {
      if (document.visibilityState === 'hidden') left = Date.now();
      else if (Date.now() - left > 5000) {
        left = Date.now();
        setNow(Date.now());
        router.refresh();
      }
    };
    document.addEventListener('visibilitychange', see);
    window.addEventListener('focus', see);
    return () => {
      document.removeEventListener('visibilitychange', see);
      window.removeEventListener('focus', see);
    };
  }, [router]);
  return now;
}
