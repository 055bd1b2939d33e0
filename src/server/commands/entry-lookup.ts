import { eq } from 'drizzle-orm';
import type { ContentType } from '@/core/design/spec.ts';
import type { Values } from '@/core/design/values.ts';
import { entry } from '../db/schema.ts';
import { statement } from '../store/statement.ts';
import { valuesOfType } from '../store/stored-values.ts';
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

/** A type, by its id. @throws Refused */
export function typeOf({ site }: CommandContext, id: string): ContentType {
  const type = site.types.get(id);
  if (type) return type;
  throw new Refused({
    code: 'unknown-type',
    message: `There is no content type "${id}".`,
    fix: 'Choose another.',
  });
}

/** What was saved of an entry last, as its type has it. */
export function newestValues(
  { connection, site }: CommandContext,
  id: string,
  type: ContentType,
  last = Number.MAX_SAFE_INTEGER,
): Values {
  const sql = `SELECT "values" FROM revision WHERE entry = ? AND number <= ?
    ORDER BY number DESC LIMIT 1`;
  const json = statement<string>(connection, sql).pluck().get(id, last) ?? '{}';
  return valuesOfType(type, json, site.design.site);
}
