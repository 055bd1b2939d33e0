import type { ContentType } from '@/core/design/spec.ts';
import type { Subject } from '@/core/design/values.ts';
import type { Instant } from '@/core/time/interval.ts';
import { columnsOf } from '@/core/listing/columns.ts';
import { type Actor, SITE, permit } from '../permit.ts';
import { asOf } from '../store/as-of.ts';
import { cellColumn, indexTable, isManyValued, memberTable } from '../store/index-columns.ts';
import { madeColumns } from '../store/index-tables.ts';
import { statement } from '../store/statement.ts';
import { SubjectStore } from '../store/subject-store.ts';
import type { Looking } from './clock.ts';
import type { SiteView } from './site-view.ts';

/** A subject, as a line of its set. */
export interface SubjectLine {
  key: string;
  name: string;
  slug: string;
  /** How far below the top, from 0. */
  depth: number;
  parent: string | null;
  /** How many live entries have it, itself or as one above theirs. */
  used: number;
}

/** A subject set with all that is in it. */
export interface SubjectsDetail {
  set: { id: string; key: string; label: string; kind: 'tags' | 'tree' };
  language: string;
  subjects: SubjectLine[];
  /** The fields that take from it: "Variety, Traits". */
  fields: { type: string; label: string }[];
}

/** A set of the working design; null where there is none. */
export function subjectsDetail(
  view: SiteView,
  actor: Actor,
  key: string,
  { at, past }: Looking,
): SubjectsDetail | null {
  permit(actor, 'read-unpublished', SITE);
  const site = view.editable(at, past)?.site;
  const set = site?.design.subjectSets.find((s) => s.key === key);
  if (!site || !set) return null;
  const users = site.design.types.flatMap((type) =>
    type.fields.filter((f) => f.set === key).map((field) => ({ type, field })),
  );
  const uses = users.flatMap(({ type, field }) => usesOf(view, type, field.id, at));
  return {
    set,
    language: site.design.site.language,
    subjects: linesOf(new SubjectStore(view.connection), set, uses),
    fields: users.map(({ type, field }) => ({
      type: type.key,
      label: `${type.label}, ${field.label}`,
    })),
  };
}

interface Use {
  subject: string;
  entry: string;
}

const DEEPEST = 50;

/** The subjects of a set, each followed by those below it. */
function linesOf(
  store: SubjectStore,
  { id, kind }: SubjectsDetail['set'],
  uses: Use[],
): SubjectLine[] {
  const counts = new Map<string, Set<string>>();
  for (const { subject, entry } of uses)
    counts.set(subject, (counts.get(subject) ?? new Set()).add(entry));
  const used = (subject: string): number => {
    const keys = kind === 'tree' ? store.keysWithin(id, subject) : [subject];
    return new Set(keys.flatMap((k) => [...(counts.get(k) ?? [])])).size;
  };
  const under = new Map<string | null, Subject[]>();
  for (const subject of store.all(id)) {
    const beside = under.get(subject.parent);
    if (beside) beside.push(subject);
    else under.set(subject.parent, [subject]);
  }
  const below = (parent: string | null, depth: number): SubjectLine[] =>
    (under.get(parent) ?? []).flatMap(({ key, name, slug }) => [
      { key, name, slug, depth, parent, used: used(key) },
      ...(depth < DEEPEST ? below(key, depth + 1) : []),
    ]);
  return below(null, 0);
}

/** Which live entries have which subjects in a field, as of an instant. */
function usesOf(view: SiteView, type: ContentType, field: string, at: Instant): Use[] {
  const column = [...columnsOf(type).values()].find((c) => c.field?.id === field)!;
  const cell = cellColumn(column);
  if (!madeColumns(view.connection, type).has(cell)) return [];
  const sql = isManyValued(column)
    ? `SELECT m.key AS subject, m.entry FROM ${memberTable(type)} AS m
         JOIN ${indexTable(type)} AS r ON r.entry = m.entry AND r.starts = m.starts
       WHERE m.field = @field AND ${asOf('r', '@at')}`
    : `SELECT ${cell} AS subject, r.entry FROM ${indexTable(type)} AS r
       WHERE @field = @field AND ${cell} IS NOT NULL AND ${asOf('r', '@at')}`;
  return statement<Use>(view.connection, sql).all({ field, at });
}
