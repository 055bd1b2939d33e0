import { and, eq } from 'drizzle-orm';
import { z } from 'zod';
import { chosenColumns } from '../../db/schema-desk.ts';
import { command } from '../definition.ts';

/** Chooses the columns of the content table for whoever asks, by type. */
export const chooseColumns = command({
  deed: 'write-entry',
  input: z.strictObject({
    /** Id of a type; null for the table of all types. */
    type: z.string().max(64).nullable(),
    /** Names of columns in their order; null for those that the type shows. */
    columns: z.array(z.string().max(80)).max(100).nullable(),
  }),
  run(context, { type, columns }) {
    const { tables } = context.connection;
    const own = and(eq(chosenColumns.person, context.actor.id), eq(chosenColumns.type, type ?? ''));
    tables.delete(chosenColumns).where(own).run();
    if (columns !== null)
      tables
        .insert(chosenColumns)
        .values({ person: context.actor.id, type: type ?? '', columns: JSON.stringify(columns) })
        .run();
    return { columns };
  },
});
