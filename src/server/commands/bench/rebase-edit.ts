import { z } from 'zod';
import { describe } from '@/core/design-edit/describe.ts';
import { applyEdit } from '@/core/design-edit/edit.ts';
import { onTop } from '@/core/design-edit/on-top.ts';
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
