'use client';

import { type ReactNode, createContext, useContext } from 'react';
import type { Deed } from '@/server/permit.ts';
import type { Clock } from '@/server/queries/clock.ts';

const Rights = createContext<readonly Deed[]>([]);

/** Says what whoever is signed in may do. */
export function RightsProvider({
  rights,
  children,
}: {
  rights: readonly Deed[];
  children: ReactNode;
}) {
  return <Rights value={rights}>{children}</Rights>;
}

/** Whether whoever is signed in may do something: what they may not is not offered. */
export function useMay(deed: Deed): boolean {
  return useContext(Rights).includes(deed);
}

/** Whether the design cannot be changed here: not by this person, or not as of the clock. */
export function useDesignReadOnly(clock: Clock): boolean {
  const may = useMay('change-design');
  return clock.tense !== 'now' || !may;
}
