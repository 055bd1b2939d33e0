import { withInner } from '@/core/design/fields-within.ts';
import type { SubjectState, SubjectStates, SubjectsAfter } from '@/core/design/subject-change.ts';
import { same } from '@/core/design-edit/properties.ts';
import { readKey } from '@/core/forecast/read-set.ts';
import type { Connection } from '../../db/connection.ts';
import { type DesignsAhead, designsFrom, sitesOf } from '../../store/designs-ahead.ts';
import { restand } from '../../store/restand.ts';
import {
  SUBJECT_COLUMNS,
  type SubjectRow,
  subjectOf,
  subjectRow,
} from '../../store/subject-rows.ts';
import { statement } from '../../store/statement.ts';
import { entriesWith } from '../../store/subject-edges.ts';
import { TooManyForOneWrite } from '../../store/too-many.ts';
import { raisePublic } from '../../store/write.ts';
import type { CommandContext } from '../definition.ts';
import { deriveEntries } from '../derive-entry.ts';

/** A subject of a set, by its id, as it stands now, merged or not; undefined where it is not there. */
export function stateOf(
  connection: Connection,
  set: string,
  key: string,
): SubjectState | undefined {
  const row = statement<SubjectRow>(
    connection,
    `SELECT ${SUBJECT_COLUMNS} FROM subject WHERE "set" = ? AND key = ? AND ends IS NULL`,
  ).get(set, key);
  return row && subjectOf(row);
}

/** The subjects of a set, by its id, as they stand now; merged ones among them. */
export function statesOf(
  { connection }: Pick<CommandContext, 'connection'>,
  set: string,
): SubjectStates {
  const rows = statement<SubjectRow>(
    connection,
    `SELECT ${SUBJECT_COLUMNS} FROM subject WHERE "set" = ? AND ends IS NULL
       ORDER BY position, key`,
  ).all(set);
  return new Map(rows.map((row) => [row.key, subjectOf(row)]));
}

/** Has subjects stand otherwise from now on, with all that follows: addresses, lists and pages. */
export function writeSubjects(
  context: CommandContext,
  set: string,
  { states, after }: { states: SubjectStates; after: SubjectsAfter },
): void {
  const { connection, site, at } = context;
  const news = [...after].filter(([key, state]) => !same(states.get(key) ?? null, state));
  writeVersions(context, set, news);
  const designs = designsFrom(connection, at, site);
  const meant = keysMeant(states, after);
  const touched = touchedBy(context, designs, set, meant);
  if (context.most !== null && touched.size > context.most)
    throw new TooManyForOneWrite(touched.size);
  deriveEntries(context, touched);
  if (changesShape(states, after)) restand(connection, { designs, set, keys: meant, at });
  raisePublic(connection, [
    readKey.subjects,
    ...[...meant].map((key) => readKey.subject(key)),
    ...(changesShape(states, after) ? typesWith(designs, set) : []).map((id) => readKey.type(id)),
  ]);
}

function writeVersions(
  { connection, at, actor }: CommandContext,
  set: string,
  after: Iterable<[string, SubjectState | null]>,
): void {
  const end = statement(
    connection,
    'UPDATE subject SET ends = @at WHERE "set" = @set AND key = @key AND ends IS NULL',
  );
  const add = statement(
    connection,
    `INSERT INTO subject
       ("set", key, starts, name, slug, description, picture, parent, merged, languages, position,
        author)
     VALUES (@set, @key, @at, @name, @slug, @description, @picture, @parent, @merged, @languages,
       coalesce((SELECT position FROM subject WHERE "set" = @set AND key = @key LIMIT 1),
         (SELECT max(position) + 1 FROM subject WHERE "set" = @set), 0), @author)`,
  );
  for (const [key, state] of after) {
    end.run({ set, key, at });
    if (state) add.run({ ...subjectRow(state), set, at, author: actor.id });
  }
}

/**
 * The keys under which entries may have what changes: those that change, all that are merged into
 * them or stand below them, before or after.
 */
function keysMeant(states: SubjectStates, after: SubjectsAfter): Set<string> {
  const under = new Map<string, string[]>();
  for (const state of [...states.values(), ...after.values()])
    for (const above of [state?.parent, state?.merged])
      if (state && above) under.set(above, [...(under.get(above) ?? []), state.key]);
  const meant = new Set(after.keys());
  for (const key of meant) for (const below of under.get(key) ?? []) meant.add(below);
  return meant;
}

/** Whether other entries count as having a subject, or less do. */
function changesShape(states: SubjectStates, after: SubjectsAfter): boolean {
  return [...after].some(([key, state]) => {
    const was = states.get(key);
    if (!was) return state?.parent !== null || state.merged !== null;
    return !state || was.merged !== state.merged || was.parent !== state.parent;
  });
}

/** The entries whose addresses may follow: by what they have, and where old values name a subject. */
function touchedBy(
  { connection }: CommandContext,
  designs: DesignsAhead,
  set: string,
  keys: Iterable<string>,
): Set<string> {
  const all = sitesOf(designs).flatMap(({ languages }) => languages);
  const fields = all.flatMap(({ addresses }) => addresses.subjectFields);
  const touched = entriesWith(connection, set, keys, fields);
  const ids = statement<string>(connection, 'SELECT id FROM entry WHERE type = ?').pluck();
  for (const { design, setIds } of sitesOf(designs))
    for (const type of design.types)
      if (withInner(type.fields).some((f) => f.replaces && setIds.get(f.set ?? '') === set))
        for (const id of ids.all(type.id)) touched.add(id);
  return touched;
}

/** Ids of the types that have a field of a set. */
function typesWith(designs: DesignsAhead, set: string): string[] {
  return sitesOf(designs).flatMap(({ design, setIds }) =>
    design.types
      .filter(({ fields }) => withInner(fields).some((f) => setIds.get(f.set ?? '') === set))
      .map(({ id }) => id),
  );
}
