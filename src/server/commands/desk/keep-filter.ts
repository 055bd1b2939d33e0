import { randomBytes } from 'node:crypto';
import { and, count, eq } from 'drizzle-orm';
import { z } from 'zod';
import { savedFilter } from '../../db/schema-desk.ts';
import { contentFilters } from '@/core/content/filters.ts';
import { Refused, command } from '../definition.ts';

/** So many filters each person may keep. */
const MOST = 100;

/** Keeps a filter of the content table under a name, for whoever keeps it or for everybody. */
export const keepFilter = command({
  deed: 'write-entry',
  input: z.strictObject({
    name: z.string().trim().min(1).max(80),
    shared: z.boolean(),
    filters: contentFilters,
  }),
  run(context, { name, shared, filters }) {
    const { actor, site } = context;
    const { tables } = context.connection;
    const own = eq(savedFilter.person, actor.id);
    const kept = tables.select({ n: count() }).from(savedFilter).where(own).get()!.n;
    if (kept >= MOST) throw new Refused(tooMany());
    const same = and(own, eq(savedFilter.name, name));
    tables.delete(savedFilter).where(same).run();
    const { type, ...rest } = filters;
    const id = `f${randomBytes(6).toString('hex')}`;
    const stored = contentFilters.parse({ ...rest, type: site.typesByKey.get(type ?? '')?.id });
    tables
      .insert(savedFilter)
      .values({ id, name, person: actor.id, shared, filters: JSON.stringify(stored) })
      .run();
    return { id };
  },
});

/** Gives up a filter that whoever asks has kept. */
export const dropFilter = command({
  deed: 'write-entry',
  input: z.strictObject({ id: z.string().max(64) }),
  run(context, { id }) {
    const { tables } = context.connection;
    const own = and(eq(savedFilter.id, id), eq(savedFilter.person, context.actor.id));
    const dropped = tables.delete(savedFilter).where(own).returning().get();
    if (!dropped)
      throw new Refused({
        code: 'filter-gone',
        message: 'There is no such filter of yours.',
        fix: 'Reload the page.',
      });
    return { id, name: dropped.name };
  },
});

function tooMany(): Refused['issues'][number] {
  return {
    code: 'too-many-filters',
    message: `You have kept ${MOST} filters, and more are not kept.`,
    fix: 'Forget one first.',
  };
}
