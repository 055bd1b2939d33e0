import { alone, stepsBetween } from '@/core/design-edit/between.ts';
import { applyStep } from '@/core/design-edit/apply.ts';
import { onTop } from '@/core/design-edit/on-top.ts';
import { type Part, partAt } from '@/core/design-edit/parts.ts';
import type { Step } from '@/core/design-edit/steps.ts';

/** Steps of an edit of one part. */
export type Steps = Step[];

/** A name for a new part; parts made in two browsers at once get two. */
export function newId(): string {
  const random = crypto.getRandomValues(new Uint32Array(2));
  return `n${[...random].map((n) => n.toString(36)).join('')}`;
}

/** The steps from a part as it was opened to what it is to be. */
export function stepsOf(path: string, opened: object, now: object): Steps {
  return stepsBetween(path, opened, now, newId);
}

/** A part with steps done on it; null where one of them does not apply any more. */
export function mergedOnto<T extends object>(path: string, part: T, steps: Steps): T | null {
  let design = alone(path, part as unknown as Part);
  for (const step of steps) {
    const next = applyStep(design, step);
    if (!next.ok) return null;
    ({ design } = next.value);
  }
  return partAt(design, path) as unknown as T;
}

/** Steps that replace what stands in a part now, whoever put it there. */
export function stepsOnTop(path: string, part: object, steps: Steps): Steps {
  const design = alone(path, part as Part);
  return steps.map((step) => onTop(design, step));
}
