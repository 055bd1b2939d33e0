import { eq } from 'drizzle-orm';
import { z } from 'zod';
import { entry, plannedChange } from '../db/schema.ts';
import type { ContentType } from '@/core/design/spec.ts';
import { crowdedTop } from '../store/at-top.ts';
import { doubledValues } from '../store/unique-values.ts';
import { statement } from '../store/statement.ts';
import { raiseBench } from '../store/write.ts';
import { type CommandContext, Refused, command } from './definition.ts';
import { thereAlready } from './there-already.ts';
import { newestValues } from './entry-lookup.ts';
import { deriveEntry } from './derive-entry.ts';

/** Brings a deleted entry back: live again where it was live then, with the plans it had. */
export const restoreEntry = command({
  deed: 'publish',
  input: z.strictObject({ entry: z.string().max(200) }),
  about: ({ entry: id }) => [{ of: 'entry', id }],
  run(context, { entry: id }) {
    bringBack(context, id);
    deriveEntry(context, id);
    raiseBench(context.connection);
    return { entry: id, at: context.at };
  },
});

/**
 * Has a deleted entry be there again, live where it was live; what follows is not derived.
 * @throws Refused
 */
export function bringBack(context: CommandContext, id: string): void {
  const { tables } = context.connection;
  const row = tables.select().from(entry).where(eq(entry.id, id)).get();
  if (!row || row.deleted === null || row.purged !== null)
    throw new Refused({
      code: 'unknown-entry',
      message: wordsOf(row),
      fix: 'Go back to Content and choose one.',
    });
  const type = context.site.types.get(row.type);
  const wrong = type ? [...thereAlready(context, type), ...takenMeanwhile(context, type, id)] : [];
  if (wrong.length > 0) throw new Refused(...wrong);
  tables.update(entry).set({ deleted: null }).where(eq(entry.id, id)).run();
  const revision = liveUntil(context, id, row.deleted);
  if (revision !== null)
    tables
      .insert(plannedChange)
      .values({
        entry: id,
        language: context.site.design.site.language,
        at: context.at,
        sequence: 0,
        action: 'publish',
        revision,
        person: context.actor.id,
      })
      .run();
}

function wordsOf(row: typeof entry.$inferSelect | undefined): string {
  if (!row) return 'There is no such entry.';
  return row.purged === null ? 'This entry is there.' : 'Nothing is left of this entry.';
}

/** Unique values, and places at the top, that others took since it was deleted. */
function takenMeanwhile(context: CommandContext, type: ContentType, id: string): Refused['issues'] {
  const { connection, site } = context;
  const values = newestValues(context, id, type);
  return [
    ...doubledValues(connection, type, values, { entry: id, site: site.design.site }),
    ...crowdedTop(connection, type, values, id),
  ];
}

/** The revision that was live until an instant; null where none was. */
function liveUntil({ connection }: CommandContext, id: string, at: number): number | null {
  const sql = 'SELECT revision FROM live_interval WHERE entry = ? AND ends = ?';
  return statement<number>(connection, sql).pluck().get(id, at) ?? null;
}
