import { eq } from 'drizzle-orm';
import { z } from 'zod';
import { entry } from '../../db/schema.ts';
import { bringBack } from '../restore-entry.ts';
import { bulkDeed } from './definition.ts';

/** Takes entries off the site and out of the lists; their past still renders. */
export const remove = bulkDeed({
  deed: 'publish',
  input: z.strictObject({}),
  act(context, { id }) {
    const { tables } = context.connection;
    tables.update(entry).set({ deleted: context.at }).where(eq(entry.id, id)).run();
    return {};
  },
  takeBack(context, { id, row }) {
    if (row.deleted === null) return false;
    bringBack(context, id);
    return true;
  },
});
