import { and, eq, max } from 'drizzle-orm';
import { z } from 'zod';
import { checkMentions, checkWhole } from '@/core/design/check-values.ts';
import type { ContentType } from '@/core/design/spec.ts';
import { parseInstant } from '@/core/time/parse.ts';
import type { Instant } from '@/core/time/interval.ts';
import { plannedChange } from '../db/schema.ts';
import { valuesOfType } from '../store/stored-values.ts';
import { statement } from '../store/statement.ts';
import { type CommandContext, Refused, command } from './definition.ts';
import { siteIn } from '../store/designs-ahead.ts';
import { deriveEntry } from './derive-entry.ts';
import { noLanguage } from './save-words.ts';
import { entryOf } from './entry-lookup.ts';
import { limitWorld, storedWorld } from '../store/form-values.ts';

const input = z.strictObject({
  entry: z.string().max(200),
  action: z.enum(['publish', 'retire']),
  /** At once where null, else a local time or instant (ISO 8601). */
  at: z.string().max(64).nullable(),
  /** The revision to publish; null for the newest saved by then. */
  revision: z.int().min(1).nullable(),
  /** Id of a further language; left out for the site's own. */
  language: z.string().max(64).optional(),
});
type Input = z.output<typeof input>;

/**
 * Publishes or retires an entry, now or at an instant. Refused where it cannot have its address.
 */
export const planChange = command({
  deed: 'publish',
  input,
  about: ({ entry: id }) => [{ of: 'entry', id }],
  run(context, plan) {
    const { type } = entryOf(context, plan.entry);
    const at = instantOf(context, plan);
    if (plan.action === 'publish') checkPublishable(context, type, plan);
    addPlan(context, { ...plan, at, typed: plan.at });
    deriveEntry(context, plan.entry);
    return { at };
  },
});

/** A plan as it is to be stored; `typed` is the local time as it was given, null for at once. */
type Planned = Omit<Input, 'at'> & { at: Instant; typed: string | null };

/** Stores a plan; what follows from it is not derived. */
export function addPlan({ connection, site, actor }: CommandContext, plan: Planned): void {
  const { entry, action, revision, at, typed } = plan;
  const planned = and(eq(plannedChange.entry, entry), eq(plannedChange.at, at));
  const spoken = plan.language === undefined ? site : siteIn(site, plan.language);
  const { language, zone } = spoken.design.site;
  // A second publication at one instant takes the place of the first.
  if (typed !== null)
    connection.tables
      .delete(plannedChange)
      .where(and(planned, eq(plannedChange.action, action), eq(plannedChange.language, language)))
      .run();
  const last = connection.tables
    .select({ sequence: max(plannedChange.sequence) })
    .from(plannedChange)
    .where(planned)
    .get()?.sequence;
  connection.tables
    .insert(plannedChange)
    .values({
      entry,
      language,
      at,
      sequence: (last ?? -1) + 1,
      action,
      revision,
      local: typed,
      zone: typed === null ? null : zone,
      person: actor.id,
    })
    .run();
}

/** Stores the publication of a draft with a release; gives the revision that it publishes. */
export function publishAt(
  context: CommandContext,
  draft: { entry: string; revision: number | null; at: Instant; typed: string | null },
): { entry: string; revision: number } {
  const { entry, at, typed } = draft;
  const { type } = entryOf(context, entry);
  checkPublishable(context, type, draft);
  const revision = draft.revision ?? newestOf(context, entry)!;
  addPlan(context, { entry, action: 'publish', revision, at, typed });
  return { entry, revision };
}

/** The number of an entry's newest revision. */
function newestOf({ connection }: CommandContext, entry: string): number | undefined {
  return statement<number>(connection, 'SELECT newest FROM entry WHERE id = ?').pluck().get(entry);
}

/** The instant that was asked for; the write's own where none was. @throws Refused */
export function instantOf({ at: now, site }: CommandContext, { at }: Pick<Input, 'at'>): Instant {
  if (at === null) return now;
  const instant = parseInstant(at, site.design.site.zone);
  if (instant === null)
    throw new Refused({
      code: 'wrong-instant',
      path: 'at',
      message: `"${at}" is no date and time.`,
      fix: 'Choose a day and a time.',
    });
  if (instant <= now)
    throw new Refused({
      code: 'past-instant',
      path: 'at',
      message: 'This instant lies in the past, and the past stays as it was.',
      fix: 'Choose a later one, or do it now.',
    });
  return instant;
}

/**
 * What goes public must be whole: required fields filled, and all that is named there.
 * @throws Refused
 */
export function checkPublishable(
  { connection, site: own, at }: CommandContext,
  type: ContentType,
  { entry, revision, language }: Pick<Input, 'entry' | 'revision' | 'language'>,
): void {
  const site = language === undefined ? own : siteIn(own, language);
  const { fields } = site.types.get(type.id) ?? { fields: [] };
  if (language !== undefined && fields.length === 0) throw new Refused(noLanguage(language));
  const row = statement<{ v: string }>(
    connection,
    'SELECT "values" AS v FROM revision WHERE entry = ? AND (? IS NULL OR number = ?) ORDER BY number DESC LIMIT 1',
  ).get(entry, revision, revision);
  if (!row)
    throw new Refused({
      code: 'nothing-saved',
      message:
        revision === null
          ? 'Nothing of this entry has been saved yet.'
          : `There is no version ${revision}.`,
      fix: 'Save it first.',
    });
  const values = valuesOfType({ fields }, row.v, site.design.site);
  const issues = [
    ...checkWhole(fields, values, limitWorld(connection, site, at)),
    ...checkMentions(fields, values, storedWorld(connection, site, at)),
  ];
  if (issues.length > 0)
    throw new Refused(...issues.map((i) => ({ ...i, fix: `${i.fix} Save, then publish.` })));
}
