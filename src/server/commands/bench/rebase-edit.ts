import { z } from 'zod';
import { placeOf } from '@/core/design-edit/apply.ts';
import { describe } from '@/core/design-edit/describe.ts';
import { applyEdit } from '@/core/design-edit/edit.ts';
import { partAt } from '@/core/design-edit/parts.ts';
import { valueAt } from '@/core/design-edit/properties.ts';
import type { Step } from '@/core/design-edit/steps.ts';
import type { Design } from '@/core/design/spec.ts';
import { openEdits } from '../../store/bench.ts';
import { Refused, command } from '../definition.ts';
import { putOnBench } from './edit-design.ts';
import { setEdits, workingDesign } from './working.ts';

/** Has an open edit that was overtaken hold all the same: on top of what stands there now. */
export const rebaseEdit = command({
  deed: 'change-design',
  input: z.strictObject({ edit: z.int() }),
  run(context, { edit: id }) {
    const open = openEdits(context.connection).find((e) => e.id === id);
    if (!open)
      throw new Refused({
        code: 'nothing-there',
        message: 'This edit is not on the bench any more.',
        fix: 'Reload the page.',
      });
    const { design } = workingDesign(context);
    const steps = open.edit.steps.map((step) => onTop(design, step));
    const done = applyEdit(design, { steps });
    if (!done.ok) throw new Refused(...done.issues);
    setEdits(context, [id], { state: 'discarded' });
    const { edit } = done.value;
    return { id: putOnBench(context, edit), sentence: describe(done.value.design, edit) };
  },
});

/** A step that replaces what stands in its place now. */
function onTop(design: Design, step: Step): Step {
  const part = step.do === 'add' ? undefined : partAt(design, step.part);
  if (!part) return step;
  if (step.do === 'set') return { ...step, was: valueAt(part, step.property) };
  if (step.do === 'remove') return { ...step, was: part as typeof step.was };
  if (step.do === 'rename') return { ...step, was: part.key ?? step.was };
  if (step.do === 'move') return { ...step, from: placeOf(design, step.part) ?? step.from };
  return step;
}
