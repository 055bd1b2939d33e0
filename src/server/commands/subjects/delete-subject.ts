import { and, eq } from 'drizzle-orm';
import { z } from 'zod';
import { readKey } from '@/core/forecast/read-set.ts';
import { subject } from '../../db/schema.ts';
import { statement } from '../../store/statement.ts';
import { raisePublic } from '../../store/write.ts';
import { type CommandContext, Refused, command } from '../definition.ts';
import { deriveWaiting } from './waiting.ts';
import { setOf } from './sets.ts';

/** Takes a subject away that nothing has and nothing stands below. */
export const deleteSubject = command({
  deed: 'write-entry',
  input: z.strictObject({ set: z.string().max(64), key: z.string().max(64) }),
  run(context, { set, key }) {
    const { label, key: setKey } = setOf(context, set);
    const { tables } = context.connection;
    const all = tables.select().from(subject).where(eq(subject.set, set)).all();
    const found = all.find((s) => s.key === key);
    if (!found)
      throw new Refused({
        code: 'unknown-subject',
        message: `There is no "${key}" in ${label}.`,
        fix: 'Reload the page.',
      });
    const below = all.filter((s) => s.parent === key).length;
    if (below > 0)
      throw new Refused({
        code: 'subject-in-use',
        message: `${found.name} has ${below} below it.`,
        fix: 'Take those away first.',
      });
    const user = userOf(context, setKey, key);
    if (user !== undefined)
      throw new Refused({
        code: 'subject-in-use',
        message: `${found.name} is in use: a version of “${user}” has it.`,
        fix: 'What has been written stays as it was; leave the subject where it is.',
      });
    tables
      .delete(subject)
      .where(and(eq(subject.set, set), eq(subject.key, key)))
      .run();
    raisePublic(context.connection, [readKey.subjects]);
    deriveWaiting(context, setKey);
    return { set, key };
  },
});

/** The name of an entry that has, or may have had, a subject; undefined where there is none. */
function userOf(
  { connection, site }: CommandContext,
  set: string,
  key: string,
): string | undefined {
  const types = site.design.types.filter((type) => type.fields.some((f) => f.set === set));
  const sql = `SELECT r.name FROM entry AS e JOIN revision AS r ON r.entry = e.id
    WHERE e.type = ? AND instr(r."values", ?) > 0 LIMIT 1`;
  const first = statement<string>(connection, sql).pluck();
  return types.map(({ id }) => first.get(id, JSON.stringify(key))).find((name) => name);
}
