import type { Instant } from '../time/interval.ts';

const DAY_MS = 86_400_000;

/** So many of the newest versions of an entry are always kept. */
export const ALWAYS_KEPT = 10;

/** A version, and whether it ever was public, is planned to be, or was named by somebody. */
export interface KeptVersion {
  number: number;
  saved: Instant;
  isNeeded: boolean;
}

/**
 * The numbers of the versions that need not be kept: those that were never public and are not
 * planned to be, saved more than so many days before an instant, and not among the newest.
 */
export function expendable(
  versions: readonly KeptVersion[],
  { days, at }: { days: number; at: Instant },
): number[] {
  const before = at - days * DAY_MS;
  return [...versions]
    .sort((a, b) => b.number - a.number)
    .slice(ALWAYS_KEPT)
    .filter(({ saved, isNeeded }) => !isNeeded && saved < before)
    .map(({ number }) => number)
    .reverse();
}

/** For how many days versions of a type's entries are kept that were never public; null: for ever. */
export function daysKept(
  site: { retention?: number | undefined },
  type: { retention?: number | 'ever' | undefined },
): number | null {
  if (type.retention === 'ever') return null;
  return type.retention ?? site.retention ?? null;
}
