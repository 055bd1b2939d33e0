'use client';

import type { Clock } from '@/server/queries/clock.ts';
import { useFurtherLanguages } from './site-languages.ts';
import { instantWords } from './format.ts';

/** As of when, and in which language where it is not the site's own, in words. */
export function useWhen({ tense, at, zone, now, language }: Clock): string {
  const further = useFurtherLanguages().find(({ id }) => id === language);
  const when = tense === 'now' ? 'now' : instantWords(at, zone, now);
  return further ? `${when} · ${further.label}` : when;
}
