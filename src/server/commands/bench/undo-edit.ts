import { and, desc, eq, isNotNull } from 'drizzle-orm';
import { z } from 'zod';
import { foldEdits, withDependents } from '@/core/design-edit/fold.ts';
import { designEdit } from '../../db/schema.ts';
import { openEdits, readEdit } from '../../store/bench.ts';
import { type CommandContext, Refused, TriedOnly, command } from '../definition.ts';
import { sentencesOf, setEdits, workingDesign } from './working.ts';

const dry = z.boolean().default(false);

/** Takes back the last open edit of whoever asks, and what is built on it; it can be done again. */
export const undoEdit = command({
  deed: 'change-design',
  input: z.strictObject({ dry }),
  run(context, input) {
    const last = openEdits(context.connection).findLast((e) => e.person === context.actor.id);
    if (!last) throw new Refused(nothing('undo'));
    return takeOff(context, new Set([last.id]), { state: 'undone', dry: input.dry });
  },
});

/** Takes edits off the bench for good, and what is built on them. */
export const discardEdits = command({
  deed: 'change-design',
  input: z.strictObject({ edits: z.array(z.int()).min(1).max(1000), dry }),
  run: (context, { edits, dry: tried }) =>
    takeOff(context, new Set(edits), { state: 'discarded', dry: tried }),
});

/** Takes open edits off the bench together with those that do not apply without them. */
function takeOff(
  context: CommandContext,
  chosen: ReadonlySet<number>,
  { state, dry: tried }: { state: 'undone' | 'discarded'; dry: boolean },
): { edits: number[]; sentences: string[] } {
  const open = openEdits(context.connection);
  const known = new Set(open.filter(({ id }) => chosen.has(id)).map(({ id }) => id));
  if (known.size === 0) throw new Refused(nothing('take back'));
  const edits = withDependents(context.site.design, open, known);
  const taken = open.filter(({ id }) => edits.includes(id));
  const result = { edits, sentences: sentencesOf(workingDesign(context), taken) };
  if (tried) throw new TriedOnly(result);
  setEdits(context, edits, { state, undone: context.at });
  return result;
}

/** Does again what whoever asks undid last. */
export const redoEdit = command({
  deed: 'change-design',
  input: z.strictObject({}),
  run(context) {
    const { tables } = context.connection;
    const undone = and(eq(designEdit.state, 'undone'), isNotNull(designEdit.undone));
    const last = tables
      .select()
      .from(designEdit)
      .where(and(undone, eq(designEdit.person, context.actor.id)))
      .orderBy(desc(designEdit.undone), desc(designEdit.id))
      .get();
    if (!last) throw new Refused(nothing('do again'));
    const together = tables
      .select()
      .from(designEdit)
      .where(and(undone, eq(designEdit.undone, last.undone!)))
      .all()
      .map(readEdit);
    const open = openEdits(context.connection);
    const before = new Set(foldEdits(context.site.design, open).stuck.map(({ id }) => id));
    const all = [...open, ...together].sort((a, b) => a.id - b.id);
    const folded = foldEdits(context.site.design, all);
    const stuck = folded.stuck.filter(({ id }) => !before.has(id));
    if (stuck.length > 0) throw new Refused(...stuck.flatMap(({ issues }) => issues));
    const edits = together.map(({ id }) => id);
    setEdits(context, edits, { state: 'open', undone: null });
    return { edits, sentences: sentencesOf(folded, together) };
  },
});

function nothing(what: string): Refused['issues'][number] {
  return {
    code: 'nothing-there',
    message: `There is nothing to ${what}.`,
    fix: 'Somebody may have released it or taken it back meanwhile; reload the page.',
  };
}
