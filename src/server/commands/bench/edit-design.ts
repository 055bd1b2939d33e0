import { and, eq } from 'drizzle-orm';
import { describe } from '@/core/design-edit/describe.ts';
import { type DesignEdit, applyEdit, editSpec } from '@/core/design-edit/edit.ts';
import { rootOf } from '@/core/design-edit/parts.ts';
import { partOf } from '@/core/design-edit/steps.ts';
import { designEdit } from '../../db/schema.ts';
import { type CommandContext, Refused, command } from '../definition.ts';
import { benchChanged, workingDesign } from './working.ts';

/** Puts an edit of the working design on the bench; nothing public changes by it. */
export const editDesign = command({
  deed: 'change-design',
  input: editSpec,
  about: ({ steps }) => steps.map((step) => ({ of: 'part', path: rootOf(partOf(step)) })),
  run(context, given) {
    const done = applyEdit(workingDesign(context).design, given);
    if (!done.ok) throw new Refused(...done.issues);
    const { design, edit } = done.value;
    return { id: putOnBench(context, edit), sentence: describe(design, edit) };
  },
});

/** Stores an edit that took hold as the last one; what its person undid cannot be done again. */
export function putOnBench(context: CommandContext, edit: DesignEdit): number {
  const { connection, actor, at } = context;
  const { tables } = connection;
  tables
    .update(designEdit)
    .set({ state: 'discarded' })
    .where(and(eq(designEdit.person, actor.id), eq(designEdit.state, 'undone')))
    .run();
  const { lastInsertRowid } = tables
    .insert(designEdit)
    .values({ person: actor.id, made: at, edit: JSON.stringify(edit), state: 'open' })
    .run();
  benchChanged(context);
  return Number(lastInsertRowid);
}
