import { and, eq } from 'drizzle-orm';
import { z } from 'zod';
import { describe } from '@/core/design-edit/describe.ts';
import { type DesignEdit, applyEdit, invertEdit } from '@/core/design-edit/edit.ts';
import { compileSite } from '@/core/site/compile.ts';
import type { Instant } from '@/core/time/interval.ts';
import { designEdit, designVersion, plannedChange } from '../../db/schema.ts';
import { designsOf, raiseDesign, storeRelease } from '../../store/design-store.ts';
import { movedAt } from '../../store/moved.ts';
import { statement } from '../../store/statement.ts';
import { type CommandContext, Refused, TriedOnly, command } from '../definition.ts';
import { addPlan } from '../plan-change.ts';
import { deriveRelease } from './derive-release.ts';
import { releaseOf } from './release.ts';
import { editsOf, refoldAfter } from './releases.ts';
import { benchChanged } from './working.ts';

type Release = ReturnType<typeof releaseOf>;
type Published = { entry: string; revision: number };

/**
 * Takes a release back. One that lies ahead is cancelled, and its edits stand on the bench again;
 * of one that has passed the inverse is released at once, and history stays.
 */
export const undoRelease = command({
  deed: 'change-design',
  input: z.strictObject({ release: z.int(), dry: z.boolean().default(false) }),
  run(context, { release: id, dry }) {
    const found = releaseOf(context, id);
    if (found.edits === null)
      throw new Refused({
        code: 'whole-design',
        message: 'This design was put there as a whole and cannot be taken back.',
        fix: 'Load the folder it was before.',
      });
    const isAhead = found.starts > context.at;
    const result = isAhead ? cancel(context, found) : takeBack(context, found);
    if (dry) throw new TriedOnly(result);
    return result;
  },
});

/** What came of taking a release back. */
interface TakenBack {
  at: Instant;
  moved: number;
  examples: { from: string; to: string }[];
  sentences: string[];
  /** Entries that somebody has published anew since, and that stay so. */
  kept: string[];
  cancelled: boolean;
}

function cancel(context: CommandContext, found: Release): TakenBack {
  const { connection } = context;
  const { tables } = connection;
  const after = designsOf(connection).at(found.starts)!.site;
  const sentences = editsOf(found).map((edit) => describe(after.design, edit));
  tables.delete(designVersion).where(eq(designVersion.id, found.id)).run();
  const before = designsOf(connection).at(found.starts)!.site;
  refoldAfter(context, { starts: found.starts, id: found.id, design: before.design });
  tables
    .update(designEdit)
    .set({ state: 'open', release: null })
    .where(eq(designEdit.release, found.id))
    .run();
  benchChanged(context);
  const published = JSON.parse(found.published) as Published[];
  for (const { entry, revision } of published)
    tables
      .delete(plannedChange)
      .where(
        and(
          eq(plannedChange.entry, entry),
          eq(plannedChange.at, found.starts),
          eq(plannedChange.revision, revision),
        ),
      )
      .run();
  raiseDesign(connection, context.site, context.at);
  deriveRelease(context, {
    before: after,
    after: before,
    starts: found.starts,
    published: published.map((p) => p.entry),
  });
  return { at: found.starts, moved: 0, examples: [], sentences, kept: [], cancelled: true };
}

function takeBack(context: CommandContext, found: Release): TakenBack {
  const { connection, site, actor, at } = context;
  const inverse: DesignEdit[] = editsOf(found).toReversed().map(invertEdit);
  let { design } = site;
  for (const edit of inverse) {
    const done = applyEdit(design, edit);
    if (!done.ok) throw new Refused(...done.issues);
    design = done.value.design;
  }
  const { back, kept } = publicationsBack(context, found);
  const id = storeRelease(connection, {
    design,
    starts: at,
    author: actor.id,
    saved: at,
    edits: JSON.stringify(inverse),
    undoes: found.id,
  });
  refoldAfter(context, { starts: at, id, design });
  raiseDesign(connection, site, at);
  const after = compileSite(design).site;
  deriveRelease(context, { before: site, after, starts: at, published: back });
  const sentences = inverse.map((edit) => describe(design, edit));
  return { at, ...movedAt(connection, at), sentences, kept, cancelled: false };
}

/** Has what a release published go back to the revision live before, but for what was replaced. */
function publicationsBack(
  context: CommandContext,
  { starts, published }: Release,
): { back: string[]; kept: string[] } {
  const { connection, at } = context;
  const live = statement<number>(
    connection,
    'SELECT revision FROM live_interval WHERE entry = ? AND starts <= ? AND (ends IS NULL OR ends > ?)',
  ).pluck();
  const result = { back: [] as string[], kept: [] as string[] };
  for (const { entry, revision } of JSON.parse(published) as Published[]) {
    if (live.get(entry, at, at) !== revision) {
      result.kept.push(entry);
      continue;
    }
    const before = live.get(entry, starts - 1, starts - 1) ?? null;
    addPlan(context, {
      entry,
      at,
      action: before === null ? 'retire' : 'publish',
      revision: before,
      typed: null,
    });
    result.back.push(entry);
  }
  return result;
}
