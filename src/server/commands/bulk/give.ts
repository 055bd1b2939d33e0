import { eq } from 'drizzle-orm';
import { z } from 'zod';
import { entry, person } from '../../db/schema.ts';
import { Refused } from '../definition.ts';
import { bulkDeed } from './definition.ts';

/** Gives entries to another author. */
export const give = bulkDeed({
  deed: 'write-entry',
  input: z.strictObject({ author: z.string().min(1).max(200) }),
  isShownAtOnce: true,
  act(context, { id, row }, { author }) {
    const { tables } = context.connection;
    if (row.author === author) return null;
    if (!tables.select().from(person).where(eq(person.id, author)).get())
      throw new Refused({
        code: 'unknown-person',
        message: 'There is no such person.',
        fix: 'Choose one of those offered.',
      });
    tables.update(entry).set({ author }).where(eq(entry.id, id)).run();
    return { author: row.author };
  },
  takeBack(context, { id, row }, { input, before }) {
    if (row.author !== input.author) return false;
    const { author } = before as { author: string };
    context.connection.tables.update(entry).set({ author }).where(eq(entry.id, id)).run();
    return true;
  },
});
