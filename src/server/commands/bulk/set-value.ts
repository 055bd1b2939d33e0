import { z } from 'zod';
import { checkMentions } from '@/core/design/check-values.ts';
import { notLetInAnew } from '@/core/design/let-in.ts';
import { withComputed } from '@/core/design/computed.ts';
import type { Field } from '@/core/design/field.ts';
import { parseValue, targetOf } from '@/core/design/field-values.ts';
import { kindOf } from '@/core/design/kinds/index.ts';
import { valuesOf } from '@/core/design/values.ts';
import { isBlank } from '@/core/pattern/types.ts';
import { paragraphsOf } from '@/core/rich-text/index.ts';
import { crowdedTop } from '../../store/at-top.ts';
import { storedWorld } from '../../store/form-values.ts';
import { statement } from '../../store/statement.ts';
import { doubledValues } from '../../store/unique-values.ts';
import { type CommandContext, Refused } from '../definition.ts';
import { languagesMade, tablesIn } from '../../store/language-tables.ts';
import { newestValues } from '../entry-lookup.ts';
import { checkDepth, checkPlanned, writeRevision } from '../save-entry.ts';
import { siteSpoken, writeWords } from '../save-words.ts';
import { type Concerned, bulkDeed } from './definition.ts';

/** Gives a field a value, or none: a new revision, of which nothing is public yet. */
export const setValue = bulkDeed({
  deed: 'write-entry',
  input: z.strictObject({
    /** The field's id. */
    field: z.string().max(64),
    /** As a form gives it; null clears the field. */
    value: z.unknown(),
    /** Id of the further language in which it says that; else it is the site's own. */
    language: z.string().max(64).optional(),
  }),
  act(context, entry, { field: id, value, language }) {
    const field = fieldOf(entry, id);
    const { zone } = context.site.design.site;
    const parsed = parseValue(value, field, { now: context.at, zone, richText: paragraphsOf });
    if (!parsed.ok) throw new Refused(...parsed.issues);
    if (language !== undefined) return putWord(context, entry, field, [parsed.value, language]);
    return putValue(context, entry, field, () => parsed.value);
  },
  takeBack: (context, entry, { before }) => dropRevision(context, entry, before),
});

const subject = z.strictObject({
  /** The id of a field that holds subjects. */
  field: z.string().max(64),
  key: z.string().min(1).max(200),
});

/** Adds a subject to a field. */
export const addSubject = bulkDeed({
  deed: 'write-entry',
  input: subject,
  act(context, entry, { field: id, key }) {
    const field = subjectsFieldOf(entry, id);
    return putValue(context, entry, field, (had) =>
      had.includes(key) ? had : field.many ? [...had, key] : [key],
    );
  },
  takeBack: (context, entry, { before }) => dropRevision(context, entry, before),
});

/** Takes a subject away from a field. */
export const takeSubject = bulkDeed({
  deed: 'write-entry',
  input: subject,
  act(context, entry, { field: id, key }) {
    const field = subjectsFieldOf(entry, id);
    return putValue(context, entry, field, (had) => had.filter((k) => k !== key));
  },
  takeBack: (context, entry, { before }) => dropRevision(context, entry, before),
});

/** The revision that holds something else. */
interface FieldBefore {
  revision: number;
}

/**
 * Has a field say something else in a further language; null where it says that already.
 * @throws Refused
 */
function putWord(
  context: CommandContext,
  entry: Concerned,
  field: Field,
  [value, language]: [unknown, string],
): FieldBefore | null {
  const { id, type } = entry;
  if (!field.translated) throw new Refused(noField(type));
  const read = siteSpoken(context, language);
  const said = newestValues({ ...context, site: read }, id, type);
  if (isSame(value, said[field.id] ?? null)) return null;
  const own = type.fields.filter(({ translated }) => translated).map((f) => f.id);
  const values = Object.fromEntries(own.map((key) => [key, said[key] ?? null]));
  const revision = writeWords(context, entry, { read, values: { ...values, [field.id]: value } });
  return { revision };
}

const isSame = (value: unknown, had: unknown): boolean =>
  isBlank(value) ? isBlank(had) : JSON.stringify(value) === JSON.stringify(had);

/** Puts another value into a field; null where it holds that already. @throws Refused */
function putValue(
  context: CommandContext,
  { id, row, type }: Concerned,
  field: Field,
  next: (had: unknown[]) => unknown,
): FieldBefore | null {
  const { connection, site, at } = context;
  const before = newestValues(context, id, type);
  const had = before[field.id] ?? null;
  const given = next(valuesOf(before, field.id));
  const value = Array.isArray(given) && !field.many ? (given[0] ?? null) : given;
  if (isSame(value, had)) return null;
  const values = withComputed(type.fields, { ...before, [field.id]: value }, site.design.site);
  const wrong = [
    ...blankName(type.naming === field.key, field, value),
    ...checkMentions([field], values, storedWorld(connection, site, at)),
    ...notLetInAnew([field], values, () => before, context.actor.role),
    ...(field.unique
      ? doubledValues(connection, type, values, { entry: id, site: site.design.site })
      : []),
    ...(field.sitsWithin ? crowdedTop(connection, type, values, id) : []),
  ];
  if (wrong.length > 0) throw new Refused(...wrong);
  checkPlanned(context, id, type, values);
  if (field.sitsWithin) checkDepth(context, id, type, values);
  writeRevision(context, id, type, { number: row.newest + 1, values });
  return { revision: row.newest + 1 };
}

/**
 * Takes the revision away again that gave a field its value, where it is still the newest and
 * nobody but whoever made it can have seen it.
 */
export function dropRevision(
  context: CommandContext,
  { id, row }: Concerned,
  before: unknown,
): boolean {
  const { connection } = context;
  const { revision } = before as FieldBefore;
  const own = { id, revision, at: context.at };
  const live = [undefined, ...languagesMade(connection)].map(
    (language) => `SELECT 1 FROM ${tablesIn(language).live} WHERE entry = @id
      AND @revision IN (revision, shared_revision) AND starts <= @at`,
  );
  const planned = 'SELECT 1 FROM planned_change WHERE entry = @id AND revision = @revision';
  const isShown = [...live, planned].join(' UNION ');
  if (row.newest !== revision || statement(connection, isShown).get(own)) return false;
  for (const table of ['reference_edge', 'revision']) {
    const key = table === 'revision' ? 'number' : 'revision';
    const sql = `DELETE FROM ${table} WHERE entry = @id AND ${key} = @revision`;
    statement(connection, sql).run({ id, revision });
  }
  const left = `UPDATE entry SET newest = @revision - 1, unpublished = NOT EXISTS
    (SELECT 1 FROM live_interval AS l WHERE l.entry = @id AND @revision - 1 IN (l.revision, l.shared_revision))
    WHERE id = @id`;
  statement(connection, left).run({ id, revision });
  return true;
}

/** An entry is called by something. */
function blankName(names: boolean, field: Field, value: unknown): Refused['issues'] {
  if (!names || !isBlank(value)) return [];
  const message = `${field.label} names the entry, and would be blank.`;
  return [{ code: 'required', path: field.key, message, fix: 'Choose another field.' }];
}

function fieldOf({ type }: Concerned, id: string): Field {
  const field = type.fields.find((f) => f.id === id && !kindOf(f).derived);
  if (field) return field;
  throw new Refused(noField(type));
}

function noField({ label }: Concerned['type']): Refused['issues'][number] {
  return {
    code: 'unknown-field',
    message: `${label} has no such field.`,
    fix: 'Choose entries of the type that has it.',
  };
}

function subjectsFieldOf(entry: Concerned, id: string): Field {
  const field = fieldOf(entry, id);
  if (targetOf(field)?.of === 'subjects') return field;
  throw new Refused({
    code: 'wrong-field',
    message: `${field.label} holds no subjects.`,
    fix: 'Choose a field of tags or categories.',
  });
}
