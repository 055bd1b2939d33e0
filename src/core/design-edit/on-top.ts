import type { Design } from '../design/spec.ts';
import { placeOf } from './apply.ts';
import { partAt } from './parts.ts';
import { valueAt } from './properties.ts';
import type { Step } from './steps.ts';

/** A step that replaces what stands in its place now. */
export function onTop(design: Design, step: Step): Step {
  const part = step.do === 'add' ? undefined : partAt(design, step.part);
  if (!part) return step;
  if (step.do === 'set') return { ...step, was: valueAt(part, step.property) };
  if (step.do === 'remove') return { ...step, was: part as typeof step.was };
  if (step.do === 'rename') return { ...step, was: part.key ?? step.was };
  if (step.do === 'move') return { ...step, from: placeOf(design, step.part) ?? step.from };
  return step;
}
