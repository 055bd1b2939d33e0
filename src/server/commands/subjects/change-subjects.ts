import { z } from 'zod';
import { isPicture } from '@/core/design/media-formats.ts';
import {
  type SubjectChange,
  type SubjectStates,
  changeSubjects as changed,
  describeChange,
  subjectChange,
} from '@/core/design/subject-change.ts';
import { mediumNow } from '../../store/media.ts';
import { movedAt } from '../../store/moved.ts';
import { statement } from '../../store/statement.ts';
import { type CommandContext, Refused, TriedOnly, command } from '../definition.ts';
import { setOf } from './sets.ts';
import { statesOf, writeSubjects } from './write-subjects.ts';

/**
 * Changes the subjects of a set: their names and words in addresses, where they stand, several into
 * one, or away. Entries follow without being written; the past keeps what was.
 */
export const changeSubjects = command({
  deed: 'publish',
  input: z.strictObject({
    /** The set's id. */
    set: z.string().max(64),
    change: subjectChange,
    /** Only says what would come of it. */
    dry: z.boolean().default(false),
  }),
  run(context, { set, change, dry }) {
    const { kind, label } = setOf(context, set);
    if (change.do === 'move' && kind !== 'tree') throw new Refused(noTree(label));
    if (change.do === 'set') checkPicture(context, change.picture ?? null);
    const states = statesOf(context, set);
    const done = changed(states, change);
    if (!done.ok) throw new Refused(...done.issues);
    const after = done.value;
    const sentence = describeChange(states, after);
    writeSubjects(context, set, { states, after });
    if (change.do === 'move') place(context, set, states, change);
    const result = { at: context.at, sentence, ...movedAt(context.connection, context.at) };
    if (dry) throw new TriedOnly(result);
    return result;
  },
});

function noTree(label: string): Refused['issues'][number] {
  return {
    code: 'no-tree',
    message: `${label} are tags; nothing stands below a tag.`,
    fix: 'Move it among the categories of a tree instead.',
  };
}

function checkPicture({ connection }: CommandContext, id: string | null): void {
  if (id === null) return;
  if (isPicture(mediumNow(connection, id) ?? { mime: '' })) return;
  throw new Refused({
    code: 'unknown-picture',
    path: 'picture',
    message: `There is no picture "${id.slice(0, 60)}".`,
    fix: 'Choose another.',
  });
}

/** Puts a subject before another one beside it, or at the end: places are of now, whatever is seen. */
function place(
  { connection }: CommandContext,
  set: string,
  states: SubjectStates,
  { key, parent, before }: Extract<SubjectChange, { do: 'move' }>,
): void {
  const beside = [...states.values()]
    .filter((s) => s.merged === null && s.parent === parent && s.key !== key)
    .map((s) => s.key);
  const found = before === null ? -1 : beside.indexOf(before);
  beside.splice(found < 0 ? beside.length : found, 0, key);
  const put = statement(connection, 'UPDATE subject SET position = ? WHERE "set" = ? AND key = ?');
  beside.forEach((name, i) => put.run(i, set, name));
}
