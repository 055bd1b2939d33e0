'use client';

import { usePathname, useRouter, useSearchParams } from 'next/navigation';
import { useCallback } from 'react';

/** What one may see besides what is published. */
const UNPUBLISHED = ['draft', 'bench'];

/** Screens that show what the design gives, along which the language that is looked at goes. */
const OF_DESIGN = /^\/build\/(types|templates|listings)(\/|$)/;

/** A move of the clock; null is now. */
export interface ClockMove {
  at?: number | null;
  seeing?: string;
  /** Id of a further language; null for the site's own. */
  language?: string | null;
}

/** The clock of the address bar: what it says, how to move it, and links that keep it. */
export interface ClockParameters {
  at: string | null;
  seeing: string;
  language: string | null;
  /** Moves the clock; Back undoes it. With `replace`, the move before is forgotten. */
  set: (change: ClockMove, replace?: boolean) => void;
  keep: (href: string) => string;
}

/** Reads and moves the clock of the address bar. */
export function useClockParameters(): ClockParameters {
  const router = useRouter();
  const path = usePathname();
  const search = useSearchParams();
  const at = search.get('at');
  const asked = search.get('seeing') ?? '';
  const seeing = UNPUBLISHED.includes(asked) ? asked : 'published';
  const language = search.get('language');

  const set = useCallback(
    (change: ClockMove, replace = false) => {
      const next = new URLSearchParams(search);
      if (change.at !== undefined) {
        if (change.at === null) next.delete('at');
        else next.set('at', new Date(change.at).toISOString().replace('.000Z', 'Z'));
      }
      if (change.seeing !== undefined) {
        if (UNPUBLISHED.includes(change.seeing)) next.set('seeing', change.seeing);
        else next.delete('seeing');
      }
      if (change.language === null) next.delete('language');
      else if (change.language !== undefined) next.set('language', change.language);
      const to = `${path}${next.size > 0 ? `?${next}` : ''}`;
      if (replace) router.replace(to, { scroll: false });
      else router.push(to, { scroll: false });
    },
    [path, router, search],
  );
  const keep = useCallback(
    (href: string) => {
      const [whole = '', place] = href.split('#');
      const [base = '', query = ''] = whole.split('?');
      const next = new URLSearchParams(query);
      if (at !== null) next.set('at', at);
      if (UNPUBLISHED.includes(seeing)) next.set('seeing', seeing);
      if (language !== null && OF_DESIGN.test(base)) next.set('language', language);
      const asked = next.size > 0 ? `?${next}` : '';
      return `${base}${asked}${place === undefined ? '' : `#${place}`}`;
    },
    [at, seeing, language],
  );
  return { at, seeing, language, set, keep };
}
