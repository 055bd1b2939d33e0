import { eq } from 'drizzle-orm';
import { z } from 'zod';
import { checkByHand } from '@/core/address/path.ts';
import { notToBeDealt } from '@/core/address/taken.ts';
import { byHand } from '../db/schema.ts';
import { type CommandContext, Refused, command } from './definition.ts';
import { deriveEntry } from './derive-entry.ts';
import { entryOf } from './entry-lookup.ts';
import { instantOf } from './plan-change.ts';

const instant = z.string().max(64).nullable();

/**
 * Gives an entry an address of its own, from an instant on, until another or for good: in place of
 * what its type's pattern gives, or where that gives none. It is never numbered: refused where it
 * cannot be had.
 */
export const setByHand = command({
  deed: 'publish',
  input: z.strictObject({
    entry: z.string().max(200),
    path: z.string().max(1024),
    /** At once where null, and for good; else a local time or instant (ISO 8601). */
    from: instant,
    to: instant,
  }),
  about: ({ entry: id }) => [{ of: 'entry', id }],
  run(context, { entry, path, from, to }) {
    entryOf(context, entry);
    checkPath(context, path);
    const starts = instantOf(context, { at: from });
    const ends = to === null ? null : instantOf(context, { at: to });
    if (ends !== null && ends <= starts)
      throw new Refused({
        code: 'empty-interval',
        path: 'to',
        message: 'It would end before it starts.',
        fix: 'Let it end later, or never.',
      });
    const { lastInsertRowid } = context.connection.tables
      .insert(byHand)
      .values({ entry, path, starts, ends })
      .run();
    deriveEntry(context, entry, { isByHand: true });
    return { id: Number(lastInsertRowid), at: starts };
  },
});

function checkPath({ site }: CommandContext, path: string): void {
  const message = checkByHand(path) ?? wrongHere(notToBeDealt(site.addresses, path));
  if (message !== null)
    throw new Refused({
      ...{ code: 'wrong-address', path: 'path', message },
      fix: 'Write another, such as “/about/us”.',
    });
}

function wrongHere(why: string | null): string | null {
  return why === null ? null : `This cannot be an entry’s address: ${why}.`;
}

/** Ends an address that was set by hand, at once; one that has not begun is taken back. */
export const endByHand = command({
  deed: 'publish',
  input: z.strictObject({ id: z.int(), entry: z.string().max(200) }),
  about: ({ entry: id }) => [{ of: 'entry', id }],
  run(context, { id, entry }) {
    const { tables } = context.connection;
    const row = tables.select().from(byHand).where(eq(byHand.id, id)).get();
    if (!row || row.entry !== entry || (row.ends !== null && row.ends <= context.at))
      throw new Refused({
        code: 'address-gone',
        message: 'This address has ended already.',
        fix: 'Reload the page to see how things stand.',
      });
    if (row.starts >= context.at) tables.delete(byHand).where(eq(byHand.id, id)).run();
    else tables.update(byHand).set({ ends: context.at }).where(eq(byHand.id, id)).run();
    deriveEntry(context, entry);
    return { path: row.path };
  },
});
