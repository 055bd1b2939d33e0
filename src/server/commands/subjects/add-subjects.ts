import { z } from 'zod';
import { freeKey, typeKeyOf } from '@/core/outline/names.ts';
import { type SubjectsAfter, checkSubjects } from '@/core/design/subject-change.ts';
import type { Connection } from '../../db/connection.ts';
import { statement } from '../../store/statement.ts';
import { subjectAt } from '../../store/subject-store.ts';
import { type CommandContext, Refused, command } from '../definition.ts';
import { setOf } from './sets.ts';
import { stateOf, writeSubjects } from './write-subjects.ts';

/**
 * Adds subjects to a set; a name that is there already, to the letter, is that one. Of the set no
 * more is read than what bears the names: tags are made while writing.
 */
export const addSubjects = command({
  deed: 'write-entry',
  input: z.strictObject({
    /** The set's id. */
    set: z.string().max(64),
    names: z.array(z.string().trim().min(1).max(200)).min(1).max(500),
    /** Key of the category they are below; null at the top, and in loose sets. */
    parent: z.string().max(100).nullable().default(null),
  }),
  run(context, { set: id, names, parent }) {
    const set = setOf(context, id);
    const states = parent === null ? new Map() : lineage(context, set, parent);
    const { added, after } = addedTo(context, id, names, parent);
    const issues = checkSubjects(states, after);
    if (issues.length > 0) throw new Refused(...issues);
    if (after.size > 0) writeSubjects(context, id, { states, after });
    return { set: id, at: context.at, added };
  },
});

/** What new ones are to stand below, and what that stands below, up to the top. */
function lineage(
  { connection }: CommandContext,
  { id, kind, label }: ReturnType<typeof setOf>,
  parent: string,
) {
  const states = new Map<string, NonNullable<ReturnType<typeof stateOf>>>();
  let next: string | null = kind === 'tree' ? parent : null;
  while (next !== null && !states.has(next)) {
    const found = stateOf(connection, id, next);
    if (!found || found.merged !== null) break;
    states.set(next, found);
    next = found.parent;
  }
  if (states.has(parent)) return states;
  throw new Refused({
    code: 'unknown-subject',
    path: 'parent',
    message: `Nothing stands below "${parent}" in ${label}.`,
    fix: 'Add it at the top, or below another one.',
  });
}

/** What each name is; a name that was merged into another is that one. */
function addedTo(
  { connection, site, at }: CommandContext,
  set: string,
  names: readonly string[],
  parent: string | null,
): { added: { key: string; name: string }[]; after: SubjectsAfter } {
  const after: SubjectsAfter = new Map();
  const byName = new Map<string, string>();
  const slugs = new Set<string>();
  const isTaken = takenIn(connection, set, parent);
  const added = names.map((name) => {
    const known =
      byName.get(name.toLowerCase()) ?? keyOfName(connection, { set, name, parent, at });
    if (known !== null) return { key: known, name };
    const wanted = typeKeyOf(name, site.design.site.language);
    const key = freeKey(wanted, { has: (k) => after.has(k) || isTaken.key(k) });
    const slug = freeKey(wanted, { has: (s) => slugs.has(s) || isTaken.slug(s) });
    const about = { description: '', picture: null, parent, merged: null, languages: {} };
    after.set(key, { key, name, slug, ...about });
    byName.set(name.toLowerCase(), key);
    slugs.add(slug);
    return { key, name };
  });
  return { added, after };
}

/** The key that a name means: that of one beside it, or of one that was merged; null for none. */
function keyOfName(
  connection: Connection,
  { set, name, parent, at }: { set: string; name: string; parent: string | null; at: number },
): string | null {
  const sql = `SELECT key FROM subject WHERE "set" = @set AND name = @name COLLATE NOCASE
    AND ends IS NULL AND (merged IS NOT NULL OR parent IS @parent) ORDER BY merged IS NOT NULL, key`;
  const found = statement<string>(connection, sql).pluck().get({ set, name, parent });
  return found === undefined ? null : (subjectAt(connection, set, found, at)?.key ?? null);
}

/**
 * Whether a key is or was that of something: what was once written under one is not to be meant by
 * another. And whether something beside has a slug.
 */
function takenIn(connection: Connection, set: string, parent: string | null) {
  const key = statement(connection, 'SELECT 1 FROM subject WHERE "set" = ? AND key = ?');
  const slug = statement(
    connection,
    `SELECT 1 FROM subject WHERE "set" = ? AND slug = ? AND parent IS ? AND ends IS NULL
       AND merged IS NULL`,
  );
  return {
    key: (wanted: string) => key.get(set, wanted) !== undefined,
    slug: (wanted: string) => slug.get(set, wanted, parent) !== undefined,
  };
}
