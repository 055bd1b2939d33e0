import { z } from 'zod';
import { freeKey, typeKeyOf } from '@/core/outline/names.ts';
import {
  type SubjectStates,
  type SubjectsAfter,
  checkSubjects,
  keyMeant,
} from '@/core/design/subject-change.ts';
import { statement } from '../../store/statement.ts';
import { type CommandContext, Refused, command } from '../definition.ts';
import { setOf } from './sets.ts';
import { statesOf, writeSubjects } from './write-subjects.ts';

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
    const set = setOf(context, id);
    const states = statesOf(context, id);
    if (parent !== null) checkParent(states, set, parent);
    const { added, after } = addedTo(context, id, { states, names, parent });
    const issues = checkSubjects(states, after);
    if (issues.length > 0) throw new Refused(...issues);
    if (after.size > 0) writeSubjects(context, id, { states, after });
    return { set: id, at: context.at, added };
  },
});

interface Added {
  states: SubjectStates;
  names: string[];
  parent: string | null;
}

/** What each name is; a name that was merged into another is that one. */
function addedTo(
  { connection, site }: CommandContext,
  set: string,
  { states, names, parent }: Added,
): { added: { key: string; name: string }[]; after: SubjectsAfter } {
  const beside = [...states.values()].filter((s) => s.merged !== null || s.parent === parent);
  const byName = new Map(beside.map((s) => [s.name.toLowerCase(), keyMeant(states, s.key)]));
  const after: SubjectsAfter = new Map();
  const slugs = new Set(beside.filter((s) => s.merged === null).map(({ slug }) => slug));
  const taken = takenKeys(connection, set);
  const added = names.map((name) => {
    const known = byName.get(name.toLowerCase());
    if (known !== undefined) return { key: known, name };
    const wanted = typeKeyOf(name, site.design.site.language);
    const [key, slug] = [freeKey(wanted, taken), freeKey(wanted, slugs)];
    const about = { description: '', picture: null, parent, merged: null };
    after.set(key, { key, name, slug, ...about });
    byName.set(name.toLowerCase(), key);
    taken.add(key);
    slugs.add(slug);
    return { key, name };
  });
  return { added, after };
}

/** Keys that something has or had: what was once written under one is not to be meant by another. */
function takenKeys(connection: CommandContext['connection'], set: string): Set<string> {
  const sql = 'SELECT DISTINCT key FROM subject WHERE "set" = ?';
  return new Set(statement<string>(connection, sql).pluck().all(set));
}

function checkParent(
  states: SubjectStates,
  { kind, label }: ReturnType<typeof setOf>,
  parent: string,
): void {
  if (kind === 'tree' && states.get(parent)?.merged === null) return;
  throw new Refused({
    code: 'unknown-subject',
    path: 'parent',
    message: `Nothing stands below "${parent}" in ${label}.`,
    fix: 'Add it at the top, or below another one.',
  });
}
