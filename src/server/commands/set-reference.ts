import { z } from 'zod';
import { isReference } from '@/core/design/field-values.ts';
import { valuesOf } from '@/core/design/values.ts';
import { statement } from '../store/statement.ts';
import { valuesOfType } from '../store/stored-values.ts';
import { Refused, command } from './definition.ts';
import { entryOf } from './entry-lookup.ts';
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
    const sql = 'SELECT "values" FROM revision WHERE entry = ? ORDER BY number DESC LIMIT 1';
    const json = statement<string>(context.connection, sql).pluck().get(id) ?? '{}';
    const all = valuesOfType(type, json, context.site.design.site);
    const others = valuesOf(all, field.id).filter((one) => one !== target);
    const several = leads ? [...others, target] : others;
    const values = Object.fromEntries(type.fields.map((f) => [f.id, all[f.id] ?? null]));
    values[field.id] = field.many ? several : leads ? target : null;
    return saveEntry.run(context, { id, type: type.id, values, seen: null });
  },
});
