import type { ContentType } from '@/core/design/spec.ts';
import type { Field } from '@/core/design/field.ts';
import type { SpokenSubject, WordsByTag } from '@/core/design/subject-words.ts';
import type { Instant } from '@/core/time/interval.ts';
import { columnsOf } from '@/core/listing/columns.ts';
import { type Actor, SITE, permit } from '../permit.ts';
import { asOf } from '../store/as-of.ts';
import { cellColumn, indexTable, isManyValued, memberTable } from '../store/index-columns.ts';
import { madeColumns } from '../store/index-tables.ts';
import { statement } from '../store/statement.ts';
import { subjectTarget } from '../store/subject-edges.ts';
import { SubjectStore } from '../store/subject-store.ts';
import type { Looking } from './clock.ts';
import type { SiteView } from './site-view.ts';
import { type SubjectUsers, usersOf } from './subject-users.ts';
import { type SubjectDeed, deedsOf } from './subject-deeds.ts';

/** A subject, as a line of its set. */
export interface SubjectLine {
  key: string;
  name: string;
  slug: string;
  description: string;
  picture: string | null;
  /** What further languages say of it, by their tags. */
  languages: WordsByTag;
  /** How far below the top, from 0. */
  depth: number;
  parent: string | null;
  /** How many live entries have it. */
  own: number;
  /** How many have it or one below it. */
  used: number;
  /** Whether no entry has it, be it live, a draft or planned. */
  unused: boolean;
}

/** A subject set with all that is in it. */
export interface SubjectsDetail {
  set: { id: string; key: string; label: string; kind: 'tags' | 'tree' };
  language: string;
  subjects: SubjectLine[];
  /** The fields that take from it: "Variety, Traits". */
  fields: { type: string; label: string }[];
  /** What was done to it lately, the last first. */
  deeds: SubjectDeed[];
  /** The entries that have the subject that is opened; null where none is. */
  users: SubjectUsers | null;
}

interface User {
  type: ContentType;
  field: Field;
}

/** A set of the working design, as of an instant; null where there is none. */
export function subjectsDetail(
  view: SiteView,
  actor: Actor,
  key: string,
  { at, past }: Looking,
  opened: string | null = null,
): SubjectsDetail | null {
  permit(actor, 'read-unpublished', SITE);
  const site = view.editable(at, past)?.site;
  const set = site?.design.subjectSets.find((s) => s.key === key);
  if (!site || !set) return null;
  const users = site.design.types.flatMap((type) =>
    type.fields.filter((f) => f.set === key).map((field) => ({ type, field })),
  );
  return {
    set,
    language: site.design.site.language,
    subjects: linesOf(view, set, users, at),
    fields: users.map(({ type, field }) => ({
      type: type.key,
      label: `${type.label}, ${field.label}`,
    })),
    deeds: deedsOf(view, set.id, at),
    users: opened === null ? null : usersOf(view, set.id, opened, at),
  };
}

const DEEPEST = 50;

/** The subjects of a set, each followed by those below it. */
function linesOf(
  view: SiteView,
  set: SubjectsDetail['set'],
  users: User[],
  at: Instant,
): SubjectLine[] {
  const now = new SubjectStore(view.connection).history(set.id).at(at);
  const counts = countsOf(view, users, at, set.kind === 'tree');
  const isWritten = written(view, set.id, at);
  const under = new Map<string | null, SpokenSubject[]>();
  for (const subject of now.all()) {
    const beside = under.get(subject.parent);
    if (beside) beside.push(subject);
    else under.set(subject.parent, [subject]);
  }
  const lineOf = (subject: SpokenSubject, depth: number): SubjectLine => {
    const within = now.keysWithin(subject.key);
    const own = within.filter((k) => now.get(k)?.key === subject.key);
    const { key, name, slug, description, picture, parent, languages } = subject;
    const live = counts(own);
    return {
      ...{ key, name, slug, description, picture, parent, languages, depth },
      own: live,
      used: counts(within),
      unused: live === 0 && !own.some(isWritten),
    };
  };
  const below = (parent: string | null, depth: number): SubjectLine[] =>
    (under.get(parent) ?? []).flatMap((subject) => [
      lineOf(subject, depth),
      ...(depth < DEEPEST ? below(subject.key, depth + 1) : []),
    ]);
  return below(null, 0);
}

/** Whether some entry has a key in its newest version, or in one that is or will be live. */
function written({ connection }: SiteView, set: string, at: Instant): (key: string) => boolean {
  const sql = statement(
    connection,
    `SELECT 1 FROM reference_edge AS g JOIN entry AS e ON e.id = g.entry
     WHERE g.target = @target AND e.deleted IS NULL
       AND (g.revision = e.newest OR EXISTS (SELECT 1 FROM live_interval AS l
         WHERE l.entry = g.entry AND l.revision = g.revision
           AND (l.ends IS NULL OR l.ends > @at))) LIMIT 1`,
  );
  return (key) => sql.get({ target: subjectTarget(set, key), at }) !== undefined;
}

/** How many live entries have any of some keys. */
function countsOf(
  view: SiteView,
  users: User[],
  at: Instant,
  isTree: boolean,
): (keys: readonly string[]) => number {
  // One field of tags: each entry counts once for a key, and most keys stand alone.
  const simple = users.length === 1 && !isTree;
  const entries = new Map<string, Set<string>>();
  const numbers = new Map<string, number>();
  for (const user of users)
    if (simple)
      for (const { subject, count } of usesOf<Count>(view, user, at, 'count(*) AS count'))
        numbers.set(subject, count);
    else
      for (const { subject, entry } of usesOf<Use>(view, user, at, 'entry'))
        entries.set(subject, (entries.get(subject) ?? new Set()).add(entry));
  const together = (keys: readonly string[]): number => {
    const [user] = users;
    if (!simple || !user) return new Set(keys.flatMap((k) => [...(entries.get(k) ?? [])])).size;
    const uses = usesOf<Use>(view, user, at, 'entry', keys);
    return new Set(uses.map(({ entry }) => entry)).size;
  };
  return (keys) => (simple && keys.length === 1 ? (numbers.get(keys[0]!) ?? 0) : together(keys));
}

interface Use {
  subject: string;
  entry: string;
}
interface Count {
  subject: string;
  count: number;
}

/**
 * What live entries have in a field, as of an instant: each use, or how many of each; of some
 * subjects alone, where they are given.
 */
function usesOf<Row>(
  view: SiteView,
  { type, field }: User,
  at: Instant,
  what: 'entry' | 'count(*) AS count',
  among: readonly string[] | null = null,
): Row[] {
  const column = [...columnsOf(type).values()].find((c) => c.field?.id === field.id)!;
  const cell = cellColumn(column);
  if (!madeColumns(view.connection, type).has(cell)) return [];
  const some = (key: string): string =>
    among === null ? '' : ` AND ${key} IN (SELECT value FROM json_each(@among))`;
  const from = isManyValued(column)
    ? `SELECT m.key AS subject, r.entry AS entry FROM ${memberTable(type)} AS m
         JOIN ${indexTable(type)} AS r ON r.entry = m.entry AND r.starts = m.starts
       WHERE m.field = @field AND m.own = 1 AND ${asOf('r', '@at')}${some('m.key')}`
    : `SELECT ${cell} AS subject, r.entry AS entry FROM ${indexTable(type)} AS r
       WHERE @field = @field AND ${cell} IS NOT NULL AND ${asOf('r', '@at')}${some(cell)}`;
  const grouped = what === 'entry' ? '' : ' GROUP BY subject';
  return statement<Row>(view.connection, `SELECT subject, ${what} FROM (${from})${grouped}`).all({
    ...{ field: field.id, at },
    ...(among === null ? {} : { among: JSON.stringify(among) }),
  });
}
