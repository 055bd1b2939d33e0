import { z } from 'zod';
import { placeBefore } from '../store/newest/positions.ts';
import { setValue } from './bulk/set-value.ts';
import { Refused, command } from './definition.ts';
import { deriveEntry } from './derive-entry.ts';
import { entryOf } from './entry-lookup.ts';

/** Puts an entry before another one of its type, by the field that says where they stand. */
export const moveEntry = command({
  deed: 'write-entry',
  input: z.strictObject({
    entry: z.string().max(200),
    /** The field's id. */
    field: z.string().max(64),
    /** The entry that it is to stand before; null for behind all. */
    before: z.string().max(200).nullable(),
  }),
  about: ({ entry: id }) => [{ of: 'entry', id }],
  run(context, { entry: id, field: fieldId, before }) {
    const found = entryOf(context, id);
    const field = found.type.fields.find((f) => f.id === fieldId && f.position);
    if (!field)
      throw new Refused({
        code: 'no-position',
        message: `${found.type.label} has no such field to put entries in order by.`,
        fix: 'Reload the page.',
      });
    const value = placeBefore(context.connection, field, { entry: id, before });
    if (value === null)
      throw new Refused({
        code: 'no-room',
        message: `There is no number left between these two in ${field.label}.`,
        fix: 'Give the entries around it other numbers first, such as 10, 20, 30.',
      });
    setValue.act(context, { id, ...found }, { field: fieldId, value });
    deriveEntry(context, id);
    return { entry: id, value };
  },
});
