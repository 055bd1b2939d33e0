import { z } from 'zod';
import { isReference } from '@/core/design/field-values.ts';
import { Refused, command } from './definition.ts';
import { entryOf } from './entry-lookup.ts';
import { referring } from './referring.ts';
import { saveEntry } from './save-entry.ts';

/**
 * Lets an entry lead to another one by a reference, or no longer, from that one's side: a new
 * revision of the entry is saved with what it holds already. Nothing public changes by it.
 */
export const setReference = command({
  deed: 'write-entry',
  input: z.strictObject({
    /** The entry whose reference it is. */
    entry: z.string().max(200),
    /** The reference's id. */
    field: z.string().max(64),
    target: z.string().max(200),
    leads: z.boolean(),
  }),
  about: ({ entry: id }) => [{ of: 'entry', id }],
  run(context, { entry: id, field: fieldId, target, leads }) {
    const { type } = entryOf(context, id);
    const field = type.fields.find((f) => f.id === fieldId && isReference(f));
    if (!field)
      throw new Refused({
        code: 'unknown-field',
        message: `${type.label} has no such reference any more.`,
        fix: 'Reload the page.',
      });
    const values = referring(context, id, { type, field, target, leads });
    return saveEntry.run(context, {
      id,
      type: type.id,
      values,
      seen: null,
      takeOver: false,
      note: '',
    });
  },
});
