import type { Connection } from '../db/connection.ts';
import type { ContentType } from '@/core/design/spec.ts';
import { withComputed } from '@/core/design/computed.ts';
import { referenceIds, type Converting } from '@/core/design/conversion.ts';
import type { Field, LinkValue } from '@/core/design/field.ts';
import { mentionsOf, targetOf } from '@/core/design/field-values.ts';
import { searchKey } from '@/core/text.ts';
import { type Values, nameOf, valuesOf } from '@/core/design/values.ts';
import type { Revision } from '@/core/publication/model.ts';
import { readValues, storedValues, withLanguages } from './stored-values.ts';
import { statement } from './statement.ts';
import { mediaAmong, mediumTarget } from './media-edges.ts';
import { subjectTarget, subjectsAmong } from './subject-edges.ts';

/** A revision, and what is known of it besides its values: as a saved site has it. */
interface RevisionToWrite extends Revision {
  /** Values by field id that are stored as they are. */
  stored?: Values;
  /** Values of translated fields in further languages, by BCP 47 tags and field ids. */
  languages?: Record<string, Values>;
  /** What it is called where its naming field says otherwise. */
  name?: string | undefined;
  /** What whoever saves it says of it. */
  note?: string | undefined;
}

/**
 * Writes revisions in a language, each the newest of its entry, with the references, subjects and
 * media they hold; `setIds`: ids of subject sets by their keys.
 */
export function revisionWriter(
  connection: Connection,
  site: Converting,
  setIds: ReadonlyMap<string, string>,
): (entry: string, type: ContentType, revision: RevisionToWrite) => void {
  const { language } = site;
  const insert = statement(
    connection,
    `INSERT INTO revision (entry, number, saved, author, "values", name, search, note)
       VALUES (?, ?, ?, ?, ?, ?, ?, ?)`,
  );
  const newest = statement(connection, 'UPDATE entry SET newest = ?, unpublished = 1 WHERE id = ?');
  const writeEdges = edgeWriter(connection, setIds);
  return (entry, type, revision) => {
    const { number, saved, author, values: own, stored, name: given, note = '' } = revision;
    const languages = translatedOnly(type, revision.languages ?? {});
    const laidOut = withLanguages(storedValues(type, own, language), languages);
    const json = JSON.stringify({ ...laidOut, ...stored });
    const values = stored ? readValues(json, language) : own;
    const named = withComputed(type.fields, values, site);
    const name = given ?? nameOf({ id: entry, type, values: named });
    insert.run(entry, number, saved, author, json, name, searchKey(name), note);
    newest.run(number, entry);
    const isCarried = stored !== undefined;
    for (const all of [values, ...Object.values(languages)])
      writeEdges(entry, type, { number, values: all, isCarried });
  };
}

/** What languages say in fields that are translated; the others are the same in all of them. */
function translatedOnly(
  { fields }: ContentType,
  languages: Readonly<Record<string, Values>>,
): Record<string, Values> {
  const ids = new Set(fields.flatMap(({ id, translated }) => (translated ? [id] : [])));
  return Object.fromEntries(
    Object.entries(languages).map(([language, values]) => [
      language,
      Object.fromEntries(Object.entries(values).filter(([id]) => ids.has(id))),
    ]),
  );
}

/** A revision whose references are noted; `isCarried`: with values of fields its type has no more. */
interface Noted {
  number: number;
  values: Values;
  isCarried: boolean;
}

/** Notes the entries, subjects and media that a revision holds. */
function edgeWriter(
  connection: Connection,
  setIds: ReadonlyMap<string, string>,
): (entry: string, type: ContentType, noted: Noted) => void {
  const edge = statement(
    connection,
    'INSERT OR IGNORE INTO reference_edge (target, field, entry, revision) VALUES (?, ?, ?, ?)',
  );
  const before = carriedEdges(connection);
  return (entry, type, { number, values, isCarried }) => {
    const add = (field: string, target: string): void =>
      void edge.run(target, field, entry, number);
    const known = isCarried ? before(entry) : NONE_CARRIED;
    const fields = new Set([...type.fields.flatMap(idsLeadingOn), ...known.entries]);
    for (const field of fields)
      for (const value of valuesOf(values, field)) {
        const target = entryNamed(value);
        if (target !== null) add(field, target);
      }
    for (const { field, target } of [
      ...edgesInGroups(type.fields, values, known.entries),
      ...edgesInTexts(type.fields, values),
    ])
      add(field, target);
    for (const { field, id } of mediaAmong(type.fields, values)) add(field, mediumTarget(id));
    for (const field of known.media)
      for (const id of valuesOf(values, field))
        if (typeof id === 'string') add(field, mediumTarget(id));
    for (const { field, set, key } of subjectsAmong(type.fields, values))
      add(field, subjectTarget(setIds.get(set) ?? set, key));
    for (const { field, set } of known.subjects)
      for (const key of valuesOf(values, field)) add(field, subjectTarget(set, String(key)));
  };
}

/** Fields whose values led to something before; they may be there again one day. */
interface CarriedFields {
  entries: string[];
  media: string[];
  subjects: { field: string; set: string }[];
}

const NONE_CARRIED: CarriedFields = { entries: [], media: [], subjects: [] };

/** Fields of an entry's earlier revisions that its type may have no more. */
function carriedEdges(connection: Connection): (entry: string) => CarriedFields {
  const read = (where: string, more = ''): string =>
    `SELECT DISTINCT field${more} FROM reference_edge WHERE entry = ? AND target ${where}`;
  const entries = statement<string>(connection, read(`NOT GLOB '[#/]*'`)).pluck();
  const media = statement<string>(connection, read(`GLOB '/*'`)).pluck();
  const set = `, substr(target, 2, instr(target, '/') - 2) AS "set"`;
  const subjects = statement<{ field: string; set: string }>(connection, read(`LIKE '#%'`, set));
  return (entry) => ({
    entries: entries.all(entry),
    media: media.all(entry),
    subjects: subjects.all(entry),
  });
}

/**
 * The entries that values within groups lead to, by the id of the field within; `before`: fields
 * that may be there again one day.
 */
function edgesInGroups(
  fields: readonly Field[],
  values: Values,
  before: readonly string[],
): { field: string; target: string }[] {
  return fields.flatMap(({ id, fields: inner }) =>
    valuesOf(inner ? values : {}, id).flatMap((item) => [
      ...[...new Set([...inner!.flatMap(idsLeadingOn), ...before])].flatMap((field) =>
        valuesOf(item as Values, field).flatMap((value) => {
          const target = entryNamed(value);
          return target === null ? [] : [{ field, target }];
        }),
      ),
      ...edgesInGroups(inner!, item as Values, before),
    ]),
  );
}

/** The entries that rich texts link to or show, by themselves or in their parts. */
function edgesInTexts(
  fields: readonly Field[],
  values: Values,
): { field: string; target: string }[] {
  return fields.flatMap((field) => {
    if (field.fields)
      return valuesOf(values, field.id).flatMap((item) =>
        edgesInTexts(field.fields!, item as Values),
      );
    if (field.kind !== 'richtext') return [];
    return mentionsOf(values, field).flatMap(({ of, key }) =>
      of === 'entry' ? [{ field: field.id, target: key }] : [],
    );
  });
}

/** The ids under which values of a field may lead to entries. */
function idsLeadingOn(field: Field): string[] {
  return targetOf(field)?.of === 'link' ? [field.id] : referenceIds(field);
}

/** The entry that a reference, or a link, leads to; null where it leads elsewhere. */
function entryNamed(value: unknown): string | null {
  if (typeof value === 'string') return value;
  return (value as LinkValue | null)?.entry ?? null;
}
