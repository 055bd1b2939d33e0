import { and, desc, eq, inArray, isNotNull } from 'drizzle-orm';
import { z } from 'zod';
import { foldEdits, withDependents } from '@/core/design-edit/fold.ts';
import { designEdit } from '../../db/schema.ts';
import { type BenchEdit, openEdits, readEdit } from '../../store/bench.ts';
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

/** Throws edits away, and what is built on them; they can be put on the bench again. */
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

/** Puts edits on the bench again: those named, else what whoever asks undid last. */
export const redoEdit = command({
  deed: 'change-design',
  input: z.strictObject({ edits: z.array(z.int()).min(1).max(1000).optional() }),
  run(context, { edits: named }) {
    const together = named ? takenOff(context, named) : undoneLast(context);
    if (together.length === 0) throw new Refused(nothing('do again'));
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

/** Edits among some that were taken off the bench and are released nowhere. */
function takenOff({ connection }: CommandContext, ids: readonly number[]): BenchEdit[] {
  const off = inArray(designEdit.state, ['undone', 'discarded']);
  const chosen = and(off, isNotNull(designEdit.undone), inArray(designEdit.id, [...ids]));
  return connection.tables.select().from(designEdit).where(chosen).all().map(readEdit);
}

/** What whoever asks undid last, with what was undone together with it. */
function undoneLast({ connection, actor }: CommandContext): BenchEdit[] {
  const undone = and(eq(designEdit.state, 'undone'), isNotNull(designEdit.undone));
  const edits = connection.tables.select().from(designEdit);
  const [last] = connection.tables
    .select()
    .from(designEdit)
    .where(and(undone, eq(designEdit.person, actor.id)))
    .orderBy(desc(designEdit.undone), desc(designEdit.id))
    .limit(1)
    .all();
  return last
    ? edits
        .where(and(undone, eq(designEdit.undone, last.undone!)))
        .all()
        .map(readEdit)
    : [];
}

function nothing(what: string): Refused['issues'][number] {
  return {
    code: 'nothing-there',
    message: `There is nothing to ${what}.`,
    fix: 'Somebody may have released it or taken it back meanwhile; reload the page.',
  };
}
