import { inArray } from 'drizzle-orm';
import { describe } from '@/core/design-edit/describe.ts';
import { type Folded, type OpenEdit, foldEdits } from '@/core/design-edit/fold.ts';
import { designEdit } from '../../db/schema.ts';
import { openEdits } from '../../store/bench.ts';
import { raiseBench } from '../../store/write.ts';
import type { CommandContext } from '../definition.ts';

/** What is released now with all open edits on top. */
export function workingDesign({ connection, site }: CommandContext): Folded {
  return foldEdits(site.design, openEdits(connection));
}

/** Each edit as a sentence that names the parts as the working design does. */
export function sentencesOf({ design }: Folded, edits: readonly OpenEdit[]): string[] {
  return edits.map(({ edit }) => describe(design, edit));
}

/** Sets what becomes of some edits. */
export function setEdits(
  context: CommandContext,
  ids: readonly number[],
  set: Partial<Pick<typeof designEdit.$inferInsert, 'state' | 'undone' | 'release'>>,
): void {
  context.connection.tables
    .update(designEdit)
    .set(set)
    .where(inArray(designEdit.id, [...ids]))
    .run();
  benchChanged(context);
}

/** Says that the bench changed: nothing is derived. */
export function benchChanged(context: CommandContext): void {
  raiseBench(context.connection);
}
