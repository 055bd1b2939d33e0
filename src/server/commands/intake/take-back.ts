import { eq } from 'drizzle-orm';
import { z } from 'zod';
import { entry as entryTable } from '../../db/schema.ts';
import { statement } from '../../store/statement.ts';
import type { Concerned } from '../bulk/definition.ts';
import { goBack, liveRevision, retire } from '../bulk/publish.ts';
import { dropRevision } from '../bulk/set-value.ts';
import type { CommandContext } from '../definition.ts';
import { newestValues } from '../entry-lookup.ts';
import { writeRevision } from '../save-entry.ts';
import type { BroughtBefore } from './bring-record.ts';

/** What an entry was before content was brought in. */
export type BeforeBrought =
  | { is: 'created'; revision: number }
  /** `was`: what its record said before; `live`: the revision that was live, null where none was. */
  | { is: 'changed'; revision: number; was: BroughtBefore; live: number | null }
  /** Its record is gone, and it was taken off the site. */
  | { is: 'retired'; live: number | null };

/**
 * Takes content back that was brought in: what was made is deleted, what was changed is as it was
 * before. What was changed here since stays.
 */
export const broughtIn = {
  deed: 'publish' as const,
  input: z.strictObject({ source: z.string() }),
  takeBack(
    context: CommandContext,
    entry: Concerned,
    { input: { source }, before }: { input: { source: string }; before: unknown },
  ): boolean {
    const known = before as BeforeBrought;
    if (known.is === 'retired')
      return retire.takeBack(context, entry, { input: { at: null }, before: known });
    const { id, row } = entry;
    if (row.deleted !== null || row.newest !== known.revision) return false;
    const { tables } = context.connection;
    if (known.is === 'created') {
      tables.update(entryTable).set({ deleted: context.at }).where(eq(entryTable.id, id)).run();
      forget(context, source, id);
      return true;
    }
    const revision = asBefore(context, entry, known);
    note(context, source, id, { ...known.was, revision });
    return true;
  },
};

/** Has an entry be as it was before it was brought anew; gives its newest revision. */
function asBefore(
  context: CommandContext,
  entry: Concerned,
  { revision, live }: Extract<BeforeBrought, { is: 'changed' }>,
): number {
  const { id, type } = entry;
  if (dropRevision(context, entry, { revision })) return revision - 1;
  // What was public is kept: what it took the place of is saved once more.
  const values = newestValues(context, id, type, revision - 1);
  writeRevision(context, id, type, { number: revision + 1, values });
  if (liveRevision(context, id) === revision)
    goBack(context, id, live === revision - 1 ? revision + 1 : live);
  return revision + 1;
}

/** The record makes another entry when it is brought again. */
function forget({ connection }: CommandContext, source: string, entry: string): void {
  const sql = 'DELETE FROM brought WHERE source = ? AND entry = ?';
  statement(connection, sql).run(source, entry);
}

function note(
  { connection }: CommandContext,
  source: string,
  entry: string,
  { revision, print }: BroughtBefore,
): void {
  const sql = 'UPDATE brought SET revision = ?, print = ? WHERE source = ? AND entry = ?';
  statement(connection, sql).run(revision, print, source, entry);
}
