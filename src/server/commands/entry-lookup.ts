import { eq } from 'drizzle-orm';
import type { ContentType } from '@/core/design/spec.ts';
import { entry } from '../db/schema.ts';
import { type CommandContext, Refused } from './definition.ts';

/** An entry as it stands in the store. */
export type EntryRow = typeof entry.$inferSelect;

/** An entry that is there and not deleted, with its type. @throws Refused */
export function entryOf(
  { connection, site }: CommandContext,
  id: string,
): { row: EntryRow; type: ContentType } {
  const row = connection.tables.select().from(entry).where(eq(entry.id, id)).get();
  const type = row && site.types.get(row.type);
  if (!row || !type || row.deleted !== null)
    throw new Refused({
      code: 'unknown-entry',
      message: row ? 'This entry has been deleted.' : 'There is no such entry.',
      fix: 'Go back to Content and choose one.',
    });
  return { row, type };
}
