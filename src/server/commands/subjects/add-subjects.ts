import { and, eq, max } from 'drizzle-orm';
import { z } from 'zod';
import { freeKey, typeKeyOf } from '@/core/outline/names.ts';
import { readKey } from '@/core/forecast/read-set.ts';
import { subject } from '../../db/schema.ts';
import { raisePublic } from '../../store/write.ts';
import { type CommandContext, Refused, command } from '../definition.ts';
import { deriveWaiting } from './waiting.ts';
import { setOf } from './sets.ts';

/** Adds subjects to a set; a name that is there already, to the letter, is that one. */
export const addSubjects = command({
  deed: 'write-entry',
  input: z.strictObject({
    /** The set's id. */
    set: z.string().max(64),
    names: z.array(z.string().trim().min(1).max(200)).min(1).max(500),
    /** Key of the category they are below; null at the top, and in loose sets. */
    parent: z.string().max(64).nullable().default(null),
  }),
  run(context, { set: id, names, parent }) {
    const { connection, site } = context;
    const set = setOf(context, id);
    if (parent !== null) checkParent(context, set, parent);
    const there = connection.tables.select().from(subject).where(eq(subject.set, id)).all();
    const keys = new Set(there.map(({ key }) => key));
    const byName = new Map(
      there.filter((s) => s.parent === parent).map((s) => [s.name.toLowerCase(), s.key]),
    );
    let position = lastPosition(context);
    const added = names.map((name) => {
      const known = byName.get(name.toLowerCase());
      if (known !== undefined) return { key: known, name };
      const key = freeKey(typeKeyOf(name, site.design.site.language), keys);
      keys.add(key);
      byName.set(name.toLowerCase(), key);
      const row = { set: id, key, name, slug: key, description: '', parent };
      connection.tables
        .insert(subject)
        .values({ ...row, position: (position += 1) })
        .run();
      return { key, name };
    });
    raisePublic(connection, [readKey.subjects]);
    deriveWaiting(context, set.key);
    return { set: id, added };
  },
});

function checkParent(
  { connection }: CommandContext,
  { id, kind, label }: ReturnType<typeof setOf>,
  parent: string,
): void {
  const found = connection.tables
    .select()
    .from(subject)
    .where(and(eq(subject.set, id), eq(subject.key, parent)))
    .get();
  if (kind === 'tree' && found) return;
  throw new Refused({
    code: 'unknown-subject',
    path: 'parent',
    message: `Nothing stands below "${parent}" in ${label}.`,
    fix: 'Add it at the top, or below another one.',
  });
}

function lastPosition({ connection }: CommandContext): number {
  return (
    connection.tables
      .select({ last: max(subject.position) })
      .from(subject)
      .get()?.last ?? -1
  );
}
