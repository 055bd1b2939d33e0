'use client';

import { createContext, useContext } from 'react';
import type { FurtherLanguage } from '@/server/queries/clock.ts';

/** Says which languages the site is in besides its own. */
export const FurtherLanguages = createContext<readonly FurtherLanguage[]>([]);

/** The languages that the site is in besides its own. */
export function useFurtherLanguages(): readonly FurtherLanguage[] {
  return useContext(FurtherLanguages);
}
