import { eq } from 'drizzle-orm';
import { z } from 'zod';
import { describe } from '@/core/design-edit/describe.ts';
import { applyEdit, editSpec } from '@/core/design-edit/edit.ts';
import { type OpenEdit, foldEdits, withNeeds } from '@/core/design-edit/fold.ts';
import type { Design } from '@/core/design/spec.ts';
import { compileSite } from '@/core/site/compile.ts';
import { designVersion } from '../../db/schema.ts';
import { SITE, permit } from '../../permit.ts';
import { openEdits } from '../../store/bench.ts';
import { designsOf, raiseDesign, storeRelease } from '../../store/design-store.ts';
import { movedAt } from '../../store/moved.ts';
import { type CommandContext, Refused, TriedOnly, command } from '../definition.ts';
import { instantOf, publishAt } from '../plan-change.ts';
import { putOnBench } from './edit-design.ts';
import { deriveRelease } from './derive-release.ts';
import { refoldAfter } from './releases.ts';
import { setEdits, workingDesign } from './working.ts';

const draft = z.strictObject({
  entry: z.string().max(200),
  /** The revision to publish; null for the newest. */
  revision: z.int().min(1).nullable(),
});

/** An edit that is in no list yet stands after all that are. */
const LAST = Number.MAX_SAFE_INTEGER;

/**
 * Releases edits and drafts together, at once or at an instant; drafts alone take no right to
 * change the design. What a chosen edit is built on is
 * released with it; what is not chosen stays on the bench.
 */
export const release = command({
  deed: 'publish',
  input: z.strictObject({
    /** Ids of open edits. */
    edits: z.array(z.int()).max(1000).default([]),
    /** An edit that is not on the bench: what a form holds. */
    edit: editSpec.optional(),
    drafts: z.array(draft).max(1000).default([]),
    /** At once where null, else a local time or instant (ISO 8601). */
    at: z.string().max(64).nullable().default(null),
    /** Only says what would come of it. */
    dry: z.boolean().default(false),
  }),
  about: ({ drafts }) => drafts.map(({ entry: id }) => ({ of: 'entry', id })),
  run(context, { edits: chosen, edit, drafts, at: when, dry }) {
    const { connection, site, actor, at: now } = context;
    if (edit || chosen.length > 0) permit(actor, 'change-design', SITE);
    const starts = instantOf(context, { at: when });
    const before = designsOf(connection).at(starts)!.site;
    const taken = takenBy(context, before.design, { chosen, edit });
    if (taken.edits.length + drafts.length === 0) throw new Refused(nothingChosen());
    const folded = foldEdits(before.design, taken.edits);
    const published = drafts.map((d) => publishAt(context, { ...d, at: starts, typed: when }));
    const id = storeRelease(connection, {
      design: folded.design,
      starts,
      author: actor.id,
      saved: now,
      edits: JSON.stringify(folded.applied.map((open) => open.edit)),
      published: JSON.stringify(published),
    });
    refoldAfter(context, { starts, id, design: folded.design });
    raiseDesign(connection, site, now);
    const after = compileSite(folded.design).site;
    deriveRelease(context, { before, after, starts, published: published.map((p) => p.entry) });
    const result = {
      release: id,
      at: starts,
      ...movedAt(connection, starts),
      sentences: taken.edits.map((open) => describe(folded.design, open.edit)),
      /** What is released only because something chosen is built on it. */
      needs: taken.needs.map((open) => describe(folded.design, open.edit)),
      drafts: published.length,
    };
    if (dry) throw new TriedOnly(result);
    const last = folded.applied.find((open) => open.id === LAST);
    const own = last ? [putOnBench(context, last.edit)] : [];
    const listed = taken.edits.filter((open) => open.id !== LAST).map((open) => open.id);
    setEdits(context, [...listed, ...own], { state: 'released', release: id });
    return result;
  },
});

/** The edits that are released: those chosen, and what they are built on. */
function takenBy(
  context: CommandContext,
  before: Design,
  { chosen, edit }: { chosen: number[]; edit?: OpenEdit['edit'] | undefined },
): { edits: OpenEdit[]; needs: OpenEdit[] } {
  const open: OpenEdit[] = openEdits(context.connection);
  const wanted = new Set(chosen.filter((id) => open.some((e) => e.id === id)));
  if (wanted.size < new Set(chosen).size) throw new Refused(overtaken());
  if (edit) {
    const done = applyEdit(workingDesign(context).design, edit);
    if (!done.ok) throw new Refused(...done.issues);
    open.push({ id: LAST, edit: done.value.edit });
    wanted.add(LAST);
  }
  const { edits, because, stuck } = withNeeds(before, open, wanted);
  if (stuck.length > 0) throw new Refused(...stuck.flatMap(({ issues }) => issues));
  return { edits, needs: edits.filter(({ id }) => because.has(id)) };
}

function nothingChosen(): Refused['issues'][number] {
  return {
    code: 'nothing-chosen',
    message: 'Nothing is chosen to be released.',
    fix: 'Tick at least one line.',
  };
}

function overtaken(): Refused['issues'][number] {
  return {
    code: 'nothing-there',
    message: 'Something of this was released or taken back meanwhile.',
    fix: 'Look at the bench again; nothing was released.',
  };
}

/** A release by its number. @throws Refused where there is none */
export function releaseOf({ connection }: CommandContext, id: number) {
  const found = connection.tables
    .select()
    .from(designVersion)
    .where(eq(designVersion.id, id))
    .get();
  if (found) return found;
  throw new Refused(overtaken());
}
