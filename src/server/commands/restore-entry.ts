import { eq } from 'drizzle-orm';
import { z } from 'zod';
import { entry, plannedChange } from '../db/schema.ts';
import type { ContentType } from '@/core/design/spec.ts';
import { crowdedTop } from '../store/at-top.ts';
import { doubledValues } from '../store/unique-values.ts';
import { languagesMade, tablesIn } from '../store/language-tables.ts';
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
  const { at, actor } = context;
  for (const { language, revision } of liveUntil(context, id, row.deleted))
    tables
      .insert(plannedChange)
      .values({
        ...{ entry: id, language, at, sequence: 0, action: 'publish', revision },
        person: actor.id,
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

/** The revisions that were live until an instant, by the languages of their words. */
function liveUntil(
  { connection, site }: CommandContext,
  id: string,
  at: number,
): { language: string; revision: number }[] {
  const made = languagesMade(connection);
  return site.languages.flatMap(({ design }) => {
    const { language } = design.site;
    const further = design.edition?.id;
    if (further !== undefined && !made.includes(further)) return [];
    const sql = `SELECT revision FROM ${tablesIn(further).live}
      WHERE entry = ? AND ends = ? AND (? IS NULL OR language = ?)`;
    const spoken = further === undefined ? null : language;
    const revision = statement<number>(connection, sql).pluck().get(id, at, spoken, spoken);
    return revision === undefined ? [] : [{ language, revision }];
  });
}
