import type { Unwanted } from './bases.ts';
import type { Dealt } from './held.ts';
import { MAX_NUMBER, numbered } from './taken.ts';

/** That an address was kept since another could not be had when the site was saved. */
export function keptBefore(refused: string, path: string): Omit<Unwanted, 'ok'> {
  return {
    base: refused,
    code: 'clash',
    message: `It kept ${path}, since it could not have another address when the site was saved.`,
    fix: 'Change the title or what else the address reads.',
    byHand: false,
  };
}

/** That an address says nothing of what it was to be made of. */
export function nothingLeftOf(expression: string, path: string): Omit<Unwanted, 'ok'> {
  return {
    base: path,
    code: 'nothing-left',
    message: `Nothing of {${expression}} is left in an address, so it is ${path}.`,
    fix: 'Give it letters or digits, or set the address by hand.',
    byHand: false,
  };
}

/** That an address is taken, and why; null where all its numbers are. */
export function clashWith(
  { path, base, clash }: Dealt,
  why: string | null,
): Omit<Unwanted, 'ok' | 'byHand'> {
  const all = clash === 'number' && why === null;
  return {
    code: 'clash',
    base,
    message: all
      ? `All addresses from ${path} to ${numbered(path, MAX_NUMBER)} are taken.`
      : `The address ${path} is taken: ${why}.`,
    fix: 'Change the title or what else the address reads, retire the other, or let the type number clashing addresses.',
  };
}
