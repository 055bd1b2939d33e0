import { randomBytes } from 'node:crypto';
import { and, asc, eq, gt, isNull, max } from 'drizzle-orm';
import { z } from 'zod';
import { checkWhole } from '@/core/design/check-values.ts';
import { referenceIds, withItemsBefore } from '@/core/design/conversion.ts';
import { isReference } from '@/core/design/field-values.ts';
import type { ContentType } from '@/core/design/spec.ts';
import type { Values } from '@/core/design/values.ts';
import { formatStyled } from '@/core/pattern/date-format.ts';
import { isBlank } from '@/core/pattern/types.ts';
import { entry, plannedChange, revision } from '../db/schema.ts';
import { addPick } from '../store/picks.ts';
import { withNextPlaces } from '../store/newest/positions.ts';
import { statement } from '../store/statement.ts';
import { revisionWriter } from '../store/revision-writer.ts';
import { type CommandContext, Refused, command } from './definition.ts';
import { deriveEntry } from './derive-entry.ts';
import { thereAlready } from './there-already.ts';
import { entryOf, typeOf } from './entry-lookup.ts';
import { picksChanged } from './picks/picks-of.ts';
import { retain } from './retain.ts';
import { referring } from './referring.ts';
import { languagesIn, ownChanged } from '../store/stored-values.ts';
import { carriedValues } from '../store/carried-values.ts';
import { crowdedTop } from '../store/at-top.ts';
import { doubledValues, holdersOf } from '../store/unique-values.ts';
import { limitWorld, valuesOfForm } from '../store/form-values.ts';

const MAX_DEPTH = 50;

/** Saves a revision, making the entry where it is new. Nothing public changes by it. */
export const saveEntry = command({
  deed: 'write-entry',
  input: z.strictObject({
    /** Null for a new entry. */
    id: z.string().min(1).max(200).nullable(),
    /** The type's id. */
    type: z.string().max(64),
    /** By field id. */
    values: z.record(z.string().max(64), z.unknown()),
    /** The newest revision the person saw; a newer one by somebody else refuses the save. */
    seen: z.int().nullable(),
    /** Whether what only one may lead to is taken away from those that do. */
    takeOver: z.boolean().default(false),
    /** What is said of this version, for those who look at it later. */
    note: z.string().trim().max(500).default(''),
  }),
  about: ({ id, type }) => [id === null ? { of: 'type', id: type } : { of: 'entry', id }],
  run(context, { id: given, type: key, values: form, seen, takeOver, note }) {
    const { connection, site, actor, at } = context;
    const type = given === null ? typeOf(context, key) : entryOf(context, given).type;
    const id = given ?? `${type.key}-${randomBytes(6).toString('hex')}`;
    const read = valuesOfForm(connection, site, type, form, {
      ...{ now: at, entry: given, role: actor.role },
    });
    const { issues } = read;
    const values = given === null ? withNextPlaces(connection, type, read.values) : read.values;
    issues.push(...blankName(type, values, given));
    if (given === null) issues.push(...thereAlready(context, type));
    if (takeOver && issues.length === 0) takePartners(context, type, values, given);
    issues.push(
      ...doubledValues(connection, type, values, { entry: given, site: site.design.site }),
    );
    issues.push(...crowdedTop(connection, type, values, given));
    if (issues.length > 0) throw new Refused(...issues);
    const number = (newestOf(context, id) ?? 0) + 1;
    if (given !== null) {
      if (seen !== null && lastWritten(context, id, number - 1) > seen) throw new Refused(newer());
      checkPlanned(context, id, type, values);
      checkDepth(context, id, type, values);
    } else {
      connection.tables
        .insert(entry)
        .values({ id, type: type.id, created: at, author: actor.id })
        .run();
      joinPicks(context, id, type);
    }
    writeRevision(context, id, type, { number, values, note });
    retain(context, id, type);
    deriveEntry(context, id);
    return { id, revision: number };
  },
});

/** Writes a revision of an entry; what follows from it is not derived. */
export function writeRevision(
  { connection, site, actor, at }: CommandContext,
  id: string,
  type: ContentType,
  saved: { number: number; values: Values; note?: string; languages?: Record<string, Values> },
): void {
  const { number, values, note, languages } = saved;
  const { language } = site.design.site;
  revisionWriter(connection, site.design.site, site.setIds)(id, type, {
    number,
    saved: at,
    values: withItemsBefore(type.fields, values, site.design.site),
    author: actor.id,
    note,
    stored: carriedValues(connection, id, type, values, site.design.site),
    languages: { ...languagesIn(newestJson(connection, id), language), ...languages },
  });
}

/** The newest revision of an entry as it is stored. */
function newestJson(connection: CommandContext['connection'], id: string): string {
  const sql = 'SELECT "values" FROM revision WHERE entry = ? ORDER BY number DESC LIMIT 1';
  return statement<string>(connection, sql).pluck().get(id) ?? '{}';
}

/** Lets a new entry stand in the picks that its type presets, last in each. */
export function joinPicks(context: CommandContext, id: string, { presets }: ContentType): void {
  const { connection, site, at } = context;
  for (const key of presets.picks ?? []) {
    const picks = site.picksIds.get(key)!;
    addPick(connection, { picks, entry: id, from: at, to: null });
    picksChanged(context, picks);
  }
}

/** Saves those that lead to what only one may lead to without it. */
function takePartners(
  context: CommandContext,
  type: ContentType,
  values: Values,
  entryId: string | null,
): void {
  for (const field of type.fields.filter((f) => f.unique && isReference(f)))
    for (const { holder, target } of holdersOf(context.connection, type, field, {
      values,
      entry: entryId,
    })) {
      const left = { type, field, target: target.id, leads: false };
      const without = referring(context, holder.id, left);
      const saving = { id: holder.id, type: type.id, values: without, seen: null };
      saveEntry.run(context, { ...saving, takeOver: false, note: '' });
    }
}

/** The newest revision that reads otherwise in the site's own language than the one before. */
function lastWritten({ connection, site }: CommandContext, id: string, newest: number): number {
  if (site.languages.length < 2) return newest;
  const sql = 'SELECT number, "values" FROM revision WHERE entry = ? ORDER BY number';
  const all = statement<{ number: number; values: string }>(connection, sql).all(id);
  return ownChanged(all, site.design.site.language).at(-1)?.number ?? newest;
}

function newestOf({ connection }: CommandContext, id: string): number | null | undefined {
  return connection.tables
    .select({ number: max(revision.number) })
    .from(revision)
    .where(eq(revision.entry, id))
    .get()?.number;
}

/** Says that somebody saved since. */
export function newer(): Refused['issues'][number] {
  return {
    code: 'newer-revision',
    message: 'Somebody saved a newer version while you were writing.',
    fix: 'Look at theirs below, then keep yours on top of it or take theirs.',
  };
}

/** A new entry needs something to be called by. */
export function blankName(type: ContentType, values: Values, id: string | null): Refused['issues'] {
  const naming = type.fields.find((f) => f.key === type.naming);
  if (id !== null || !naming || !isBlank(values[naming.id])) return [];
  return [
    {
      code: 'required',
      path: naming.key,
      message: `${naming.label} names the entry, and it is blank.`,
      fix: 'Fill it in.',
    },
  ];
}

/**
 * What is saved goes live as it is where a publication of the newest version is planned.
 * @throws Refused where it is not whole
 */
export function checkPlanned(
  { connection, at, site }: CommandContext,
  id: string,
  type: ContentType,
  values: Values,
): void {
  const blank = checkWhole(type.fields, values, limitWorld(connection, site, at));
  if (blank.length === 0) return;
  const plan = connection.tables
    .select()
    .from(plannedChange)
    .where(
      and(
        eq(plannedChange.entry, id),
        gt(plannedChange.at, at),
        eq(plannedChange.action, 'publish'),
        isNull(plannedChange.revision),
      ),
    )
    .orderBy(asc(plannedChange.at))
    .get();
  if (!plan) return;
  const { language, zone } = site.design.site;
  const when = formatStyled(plan.at, 'medium', language, zone);
  throw new Refused(
    ...blank.map((issue) => ({
      ...issue,
      message: `${issue.message} What is saved goes live ${when}.`,
      fix: 'Fill it in, or let that plan publish an older version first.',
    })),
  );
}

/** Pages sit within each other at most 50 deep. @throws Refused */
export function checkDepth(
  { connection }: CommandContext,
  id: string,
  type: ContentType,
  values: Values,
): void {
  const field = type.fields.find((f) => f.sitsWithin);
  if (!field) return;
  const parent = statement<string>(
    connection,
    `SELECT e.target FROM reference_edge AS e JOIN entry AS n
       ON n.id = e.entry AND n.newest = e.revision
     WHERE e.entry = ? AND e.field IN (SELECT value FROM json_each(?))`,
  ).pluck();
  let at = values[field.id] as string | null | undefined;
  for (let depth = 1; at; depth++) {
    if (depth > MAX_DEPTH || at === id)
      throw new Refused({
        code: 'wrong-within',
        path: field.key,
        message:
          at === id
            ? 'The pages it sits within lead back to itself.'
            : `Pages sit within each other at most ${MAX_DEPTH} deep.`,
        fix: 'Choose another page.',
      });
    at = parent.get(at, JSON.stringify(referenceIds(field)));
  }
}
