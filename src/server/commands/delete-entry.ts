import { eq } from 'drizzle-orm';
import { z } from 'zod';
import { entry } from '../db/schema.ts';
import { command } from './definition.ts';
import { raiseBench } from '../store/write.ts';
import { deriveEntry } from './derive-entry.ts';
import { entryOf } from './entry-lookup.ts';

/**
 * Takes an entry off the site and out of the lists; its past still renders, and it can be brought
 * back.
 */
export const deleteEntry = command({
  deed: 'publish',
  input: z.strictObject({ entry: z.string().max(200) }),
  about: ({ entry: id }) => [{ of: 'entry', id }],
  run(context, { entry: id }) {
    entryOf(context, id);
    context.connection.tables
      .update(entry)
      .set({ deleted: context.at })
      .where(eq(entry.id, id))
      .run();
    deriveEntry(context, id);
    raiseBench(context.connection);
    return { entry: id, at: context.at };
  },
});
