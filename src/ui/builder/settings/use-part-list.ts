'use client';

import type { Part } from '@/core/design-edit/parts.ts';
import { freeKey, typeKeyOf } from '@/core/outline/names.ts';
import { newId } from '../design-steps.ts';
import { command } from '../send.ts';
import { toldOnBench } from '../type/told-on-bench.ts';
import type { Attempts } from '../use-attempts.ts';

/** A list of parts of the design, and the screen that shows it. */
interface PartList {
  list: 'textForms' | 'styles' | 'listings';
  /** Its parts as they stand in the working design. */
  parts: readonly { id: string; key: string }[];
  /** The language that keys are made in. */
  language: string;
  /** The path of the screen. */
  here: string;
  /** The path of the screen that a new one is gone on with, by its key; this one where left out. */
  next?: (key: string) => string;
}

/** Adds a part to a list of the design, or takes one out, on the bench. */
export function usePartList(
  { list, parts, language, here, next = () => here }: PartList,
  { attempt }: Pick<Attempts, 'attempt'>,
) {
  return {
    add: (label: string, more: object = {}): Promise<boolean> => {
      const key = freeKey(typeKeyOf(label, language), new Set(parts.map((one) => one.key)));
      const part = { id: newId(), key, label, ...more } as Part & { id: string };
      const after = parts.at(-1)?.id ?? null;
      const step = { do: 'add', within: '', list, after, part } as const;
      const told = toldOnBench(attempt, { to: next(key), from: here });
      return attempt(() => command('editDesign', { steps: [step] }), told);
    },
    remove: (id: string): Promise<boolean> => {
      const at = parts.findIndex((one) => one.id === id);
      const [part, was] = [`${list}/${id}`, parts[at] as Part & { id: string }];
      const after = parts[at - 1]?.id ?? null;
      const step = { do: 'remove', part, was, within: '', list, after } as const;
      const told = toldOnBench(attempt, { to: here, from: here });
      return attempt(() => command('editDesign', { steps: [step] }), told);
    },
  };
}
