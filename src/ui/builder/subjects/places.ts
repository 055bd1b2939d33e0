import type { SubjectLine } from '@/server/queries/subjects.ts';

/** A subject as a row. */
export type Line = SubjectLine;

/** Where a subject goes: below which, and before which of those there; null at the top, at the end. */
export interface Place {
  parent: string | null;
  before: string | null;
}

/** The place before another one, or below it at the end. */
export function placeOf(lines: readonly Line[], key: string, how: 'before' | 'below'): Place {
  if (how === 'below') return { parent: key, before: null };
  const found = lines.find((line) => line.key === key);
  return { parent: found?.parent ?? null, before: key };
}

/** Where one step up, down, in and out leads; null where there is none. */
export interface Steps {
  up: Place | null;
  down: Place | null;
  /** Below the one above it. */
  in: Place | null;
  /** Beside what it stands below. */
  out: Place | null;
}

/** The steps that a category can take in its tree. */
export function steps(lines: readonly Line[], { key, parent }: Line): Steps {
  const beside = lines.filter((line) => line.parent === parent).map((line) => line.key);
  const i = beside.indexOf(key);
  const above = lines.find((line) => line.key === parent);
  const next = (after: string, within: string | null): string | null => {
    const all = lines.filter((line) => line.parent === within).map((line) => line.key);
    return all[all.indexOf(after) + 1] ?? null;
  };
  return {
    up: i > 0 ? { parent, before: beside[i - 1]! } : null,
    down: i < beside.length - 1 ? { parent, before: beside[i + 2] ?? null } : null,
    in: i > 0 ? { parent: beside[i - 1]!, before: null } : null,
    out: above ? { parent: above.parent, before: next(above.key, above.parent) } : null,
  };
}
