import { editDistance } from '../did-you-mean.ts';
import { likeness } from './names.ts';

/** How many names are compared with one that is written. */
const LOOKED_AT = 10_000;
const OFFERED = 5;

/**
 * Names that one may be meant by another, nearest first: the same but for case, accents, hyphens
 * or the plural, or one or two letters off.
 */
export function nearNames<T extends { name: string }>(
  name: string,
  names: readonly T[],
  language: string,
): T[] {
  const wanted = likeness(name, language);
  const limit = wanted.length < 4 ? 0 : wanted.length < 7 ? 1 : 2;
  const found: { distance: number; one: T }[] = [];
  for (const one of names.slice(0, LOOKED_AT)) {
    const other = likeness(one.name, language);
    if (Math.abs(other.length - wanted.length) > limit) continue;
    const distance = editDistance(wanted, other, limit);
    if (distance <= limit) found.push({ distance, one });
  }
  return found
    .sort((a, b) => a.distance - b.distance)
    .slice(0, OFFERED)
    .map(({ one }) => one);
}
