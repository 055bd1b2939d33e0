import type { Wanted } from './bases.ts';
import type { Held } from './model.ts';

/** An address that an entry should have and can. */
export type Dealt = Extract<Wanted, { ok: true }>;

/**
 * Whether an address goes on: its base is the same, was refused before, or is by hand what the
 * pattern gives.
 */
export function isSame(held: Held, wanted: Dealt): boolean {
  if (held.refused === wanted.base) return true;
  if (held.base === wanted.base) return !wanted.exact || held.path === wanted.path;
  return (
    held.path === wanted.path &&
    !isFront(wanted.base) &&
    isSetByHand(held.base) !== isSetByHand(wanted.base)
  );
}

/** Whether what is dealt by pattern is certainly another path; what was numbered may be the same. */
export function isElsewhere(held: Held, { path, exact, clash }: Dealt): boolean {
  const isNumbered = held.path.startsWith(path) && /^-\d+$/.test(held.path.slice(path.length));
  return !exact && clash === 'number' && path !== held.path && !isNumbered;
}

/** Whether an address was dealt because somebody set it by hand. */
export function isSetByHand(base: string): boolean {
  return base.startsWith('hand:');
}

/** Whether an address was dealt to what is chosen for the front page. */
export function isFront(base: string): boolean {
  return base.startsWith('front:');
}
