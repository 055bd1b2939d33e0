import { isBelowAny, isReserved, splitFeed, splitPageNumber } from './path.ts';
import type { AddressRules } from './rules.ts';

/** The highest number dealt to entries that share an address. */
export const MAX_NUMBER = 10_000;

/** Why a path cannot be dealt to an entry; null where it can. */
export function notToBeDealt(rules: AddressRules, path: string): string | null {
  if (isReserved(path)) return 'the site keeps it for itself';
  if (rules.otherRoots.includes(path) || isBelowAny(rules.otherRoots, path))
    return 'the pages of another language stand there';
  if (splitFeed(path)) return 'feeds stand at such addresses';
  if (rules.listingAddresses.has(path)) return 'a listing stands there';
  const page = splitPageNumber(path);
  return page && rules.listingAddresses.has(page.address) ? 'a listing’s pages stand there' : null;
}

/** A base with a number; the first has none. */
export function numbered(base: string, n: number): string {
  return n === 1 ? base : `${base}-${n}`;
}

/**
 * The lowest number at or after `from` whose path is free; null where none is up to the highest.
 */
export function lowestFree(
  base: string,
  from: number,
  isTaken: (path: string) => boolean,
): number | null {
  // A number changes the last segment only, so below a reserved first one none is ever free.
  if (isReserved(base) && base.lastIndexOf('/') > 0) return null;
  for (let n = from; n <= MAX_NUMBER; n++) if (!isTaken(numbered(base, n))) return n;
  return null;
}
