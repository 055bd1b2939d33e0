'use client';

import { createContext, useContext } from 'react';
import type { FurtherLanguage, ShellDetail } from '@/server/queries/clock.ts';

/** Says which languages the site is in. */
export const SiteLanguages = createContext<Pick<ShellDetail, 'ownLanguage' | 'further'>>({
  ownLanguage: '',
  further: [],
});

/** The languages that the site is in besides its own. */
export function useFurtherLanguages(): readonly FurtherLanguage[] {
  return useContext(SiteLanguages).further;
}

/** What all its languages are called, its own first. */
export function useLanguageNames(): string[] {
  const { ownLanguage, further } = useContext(SiteLanguages);
  return [ownLanguage, ...further.map(({ label }) => label)];
}
