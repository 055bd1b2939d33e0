import { eq } from 'drizzle-orm';
import { z } from 'zod';
import { readKey } from '@/core/forecast/read-set.ts';
import { isWithinYears } from '@/core/time/interval.ts';
import type { Connection } from '../../db/connection.ts';
import { entry as entryTable } from '../../db/schema.ts';
import { bulkChange } from '../../db/schema-desk.ts';
import { permit } from '../../permit.ts';
import { contentFilters } from '@/core/content/filters.ts';
import { askedOf, foundBy } from '../../store/newest/content-filters.ts';
import { statement } from '../../store/statement.ts';
import { SubjectStore } from '../../store/subject-store.ts';
import { TooManyForOneWrite } from '../../store/too-many.ts';
import { raisePublic } from '../../store/write.ts';
import { type CommandContext, Refused, TriedOnly, command } from '../definition.ts';
import { entryOf } from '../entry-lookup.ts';
import { BULK_DEEDS, bulkDo } from './deeds.ts';
import { KEPT_DEEDS, type TakesBack, keepChange, keptDo } from './kept-changes.ts';
import type { Before, BulkDeed, Concerned } from './definition.ts';
import { type DoneToAll, deriveAll } from './derive-all.ts';
import { refusedGroups } from './refusals.ts';

const which = z.union([
  z.strictObject({ ids: z.array(z.string().max(200)).min(1).max(10_000) }),
  z.strictObject({
    /** All that these find as of an instant. */
    filters: contentFilters,
    at: z.int().refine(isWithinYears),
    /** How many they found when somebody looked; where it is another number now, that is refused. */
    count: z.int().nullable().default(null),
  }),
]);

/**
 * Does something to many entries, all in one transaction; those that it cannot be done to are left
 * as they are and told, by reason. `dry` only says what would come of it.
 */
export const changeEntries = command({
  deed: 'write-entry',
  input: z.strictObject({ what: bulkDo, which, dry: z.boolean().default(false) }),
  about: ({ which: w }) => ('ids' in w ? w.ids.map((id) => ({ of: 'entry' as const, id })) : []),
  run(context, { what, which: asked, dry }) {
    const { connection, actor, at, most } = context;
    const { do: name, ...input } = what;
    const deed = BULK_DEEDS[name] as BulkDeed;
    permit(actor, deed.deed, { of: 'site' });
    const ids = idsOf(context, asked);
    if (most !== null && ids.length > most) throw new TooManyForOneWrite(ids.length);
    const { done, left } = deriveAll(context, ids, (id) =>
      deed.act(context, concerned(context, id), input),
    );
    if (deed.isShownAtOnce) tellReaders(connection, done);
    const result = { ...told(connection, ids.length, { done, left }), at };
    if (dry) throw new TriedOnly({ ...result, change: null });
    const change = done.size === 0 ? null : keepChange(context, what, done);
    return { ...result, change };
  },
});

/** Takes back what was done to many entries, where it is still so. */
export const undoChange = command({
  deed: 'write-entry',
  input: z.strictObject({ change: z.int() }),
  run(context, { change: id }) {
    const { connection, actor, at, most } = context;
    const { tables } = connection;
    const row = tables.select().from(bulkChange).where(eq(bulkChange.id, id)).get();
    if (!row || row.person !== actor.id || row.undone) throw new Refused(gone());
    const { do: name, ...input } = keptDo.parse(JSON.parse(row.what));
    const deed = KEPT_DEEDS[name] as TakesBack;
    permit(actor, deed.deed, { of: 'site' });
    const before = new Map(JSON.parse(row.done) as [string, Before][]);
    if (most !== null && before.size > most) throw new TooManyForOneWrite(before.size);
    const all = deriveAll(context, [...before.keys()], (entry) => {
      const found = concerned(context, entry, true);
      if (found.row.purged !== null) return null;
      return deed.takeBack(context, found, { input, before: before.get(entry) }) ? {} : null;
    });
    if (deed.isShownAtOnce) tellReaders(connection, all.done);
    tables.update(bulkChange).set({ undone: true }).where(eq(bulkChange.id, id)).run();
    return { ...told(connection, before.size, all), at };
  },
});

/** Tells those who read entries, and lists of their types, that they are shown otherwise. */
function tellReaders(connection: Connection, done: DoneToAll['done']): void {
  const typeOf = statement<string>(connection, 'SELECT type FROM entry WHERE id = ?').pluck();
  const keys = new Set<string>();
  for (const id of done.keys()) keys.add(readKey.entry(id)).add(readKey.type(typeOf.get(id)!));
  raisePublic(connection, keys);
}

/** What came of it, in numbers; `same`: those in which there was nothing to change. */
function told(connection: Connection, count: number, { done, left }: DoneToAll) {
  const same = count - done.size - left.size;
  return { count, done: done.size, same, refused: refusedGroups(connection, left) };
}

/** The ids of the entries that are asked for. @throws Refused where others match by now */
function idsOf(
  { connection, site, at: now }: CommandContext,
  asked: z.output<typeof which>,
): string[] {
  if ('ids' in asked) return [...new Set(asked.ids)];
  const { filters, at, count } = asked;
  // A condition that cannot be read is left out of the table: then more would match than was meant.
  const { issues } = askedOf(site, filters);
  if (issues.length > 0) throw new Refused(...issues);
  const subjects = new SubjectStore(connection).under(site).at(now);
  const numbers = foundBy(connection, site, filters, { at: Math.max(at, now), subjects });
  if (count !== null && count !== numbers.length)
    throw new Refused({
      code: 'others-match',
      message: `${numbers.length} entries match by now, and ${count} did when you looked.`,
      fix: 'Look at them again.',
    });
  const id = statement<string>(connection, 'SELECT entry FROM newest WHERE id = ?').pluck();
  return numbers.map((number) => id.get(number)!);
}

function concerned(context: CommandContext, id: string, deleted = false): Concerned {
  if (!deleted) return { id, ...entryOf(context, id) };
  const { tables } = context.connection;
  const row = tables.select().from(entryTable).where(eq(entryTable.id, id)).get();
  const type = row && context.site.types.get(row.type);
  if (!row || !type) throw new Refused(gone());
  return { id, row, type };
}

function gone(): Refused['issues'][number] {
  return {
    code: 'change-gone',
    message: 'This change cannot be taken back any more.',
    fix: 'Undo it by hand, or restore an earlier version of each entry.',
  };
}
