import { and, eq, gt } from 'drizzle-orm';
import { z } from 'zod';
import { plannedChange } from '../db/schema.ts';
import { Refused, command } from './definition.ts';
import { deriveEntry } from './derive-entry.ts';

/** Cancels what is planned for an entry at an instant that lies ahead. */
export const cancelPlan = command({
  deed: 'publish',
  input: z.strictObject({ plan: z.int() }),
  run(context, { plan }) {
    const { tables } = context.connection;
    const gone = tables
      .delete(plannedChange)
      .where(and(eq(plannedChange.id, plan), gt(plannedChange.at, context.at)))
      .returning({ entry: plannedChange.entry })
      .get();
    if (!gone)
      throw new Refused({
        code: 'plan-gone',
        message: 'This plan has been carried out or cancelled already.',
        fix: 'Reload the page to see how things stand.',
      });
    deriveEntry(context, gone.entry);
    return gone;
  },
});
