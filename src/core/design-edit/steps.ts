import { z } from 'zod';
import { type Json, type PartPath, pathIn } from './parts.ts';

const json: z.ZodType<Json> = z.json() as z.ZodType<Json>;
const path = z.string().min(1).max(1000);
const property = z
  .string()
  .min(1)
  .max(200)
  .regex(/^(?!(id|key)$)/, 'An id stays, and a key is renamed.');
const part = z
  .looseObject({ id: z.string().min(1).max(64) })
  .transform((p) => p as { id: string } & Record<string, Json>);

/** A place in a list of the design. */
export const placeSpec = z.strictObject({
  /** The part whose list it is; '' for the lists of the design itself. */
  within: z.string().max(1000),
  /** The list, as a path of properties: `fields`, `blocks`, `columns.1`, `slots.foot`. */
  list: z.string().min(1).max(200),
  /** Id of the part before it; null at the beginning. */
  after: z.string().max(64).nullable(),
});
/** A place in a list of the design. */
export type Place = z.output<typeof placeSpec>;

/**
 * One change of one part. What it replaces is said with it: that is the version it was made on, to
 * the property, and what undoing it needs.
 */
export const stepSpec = z.discriminatedUnion('do', [
  /** Sets a property, as a path such as `seo.title`; null where there is none. */
  z.strictObject({ do: z.literal('set'), part: path, property, was: json, now: json }),
  z.strictObject({ do: z.literal('add'), part, ...placeSpec.shape }),
  /** `part` names it, `was` is all of it. */
  z.strictObject({ do: z.literal('remove'), part: path, was: part, ...placeSpec.shape }),
  z.strictObject({ do: z.literal('move'), part: path, from: placeSpec, to: placeSpec }),
  /** Gives another key, and has everything that names it by its key name it by the new one. */
  z.strictObject({ do: z.literal('rename'), part: path, was: z.string(), now: z.string() }),
]);
/** One change of one part of a design. */
export type Step = z.output<typeof stepSpec>;

/** A step that takes another back, once that has been done. */
export function invertStep(step: Step): Step {
  switch (step.do) {
    case 'set':
    case 'rename':
      return { ...step, was: step.now, now: step.was } as Step;
    case 'move':
      return { ...step, from: step.to, to: step.from };
    case 'add': {
      const { within, list, after, part: was } = step;
      return { do: 'remove', part: pathIn(within, list, was.id), was, within, list, after };
    }
    case 'remove': {
      const { within, list, after, was } = step;
      return { do: 'add', part: was, within, list, after };
    }
  }
}

/** The path of the part that a step is about. */
export function partOf(step: Step): PartPath {
  return step.do === 'add' ? pathIn(step.within, step.list, step.part.id) : step.part;
}
