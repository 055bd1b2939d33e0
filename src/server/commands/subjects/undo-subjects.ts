import { z } from 'zod';
import {
  type SubjectStates,
  type SubjectsAfter,
  checkSubjects,
  describeChange,
} from '@/core/design/subject-change.ts';
import type { Instant } from '@/core/time/interval.ts';
import type { Connection } from '../../db/connection.ts';
import { statement } from '../../store/statement.ts';
import { entriesWith } from '../../store/subject-edges.ts';
import { SUBJECT_COLUMNS, type SubjectRow, subjectOf } from '../../store/subject-rows.ts';
import { Refused, command } from '../definition.ts';
import { setOf } from './sets.ts';
import { statesOf, writeSubjects } from './write-subjects.ts';

/** Takes back what was done to the subjects of a set at an instant: they stand as before it. */
export const undoSubjects = command({
  deed: 'publish',
  input: z.strictObject({ set: z.string().max(64), at: z.int() }),
  run(context, { set, at: then }) {
    const { connection } = context;
    setOf(context, set);
    const states = statesOf(context, set);
    const after = before(connection, set, then);
    for (const [key, state] of after) {
      checkLast(connection, { set, key, then });
      if (state === null) checkUnused(connection, set, states, key);
    }
    if (after.size === 0) throw new Refused(overtaken());
    const issues = checkSubjects(states, after);
    if (issues.length > 0) throw new Refused(...issues);
    const sentence = describeChange(states, after);
    writeSubjects(context, set, { states, after });
    return { at: context.at, sentence };
  },
});

/** How those stood before an instant that changed at it; null where they were not there. */
function before(connection: Connection, set: string, then: Instant): SubjectsAfter {
  const changed = statement<string>(
    connection,
    'SELECT DISTINCT key FROM subject WHERE "set" = @set AND (starts = @then OR ends = @then)',
  ).pluck();
  const was = statement<SubjectRow>(
    connection,
    `SELECT ${SUBJECT_COLUMNS} FROM subject WHERE "set" = ? AND key = ? AND ends = ?`,
  );
  return new Map(
    changed.all({ set, then }).map((key) => {
      const row = was.get(set, key, then);
      return [key, row ? subjectOf(row) : null];
    }),
  );
}

/** @throws Refused where something was done to a subject since */
function checkLast(
  connection: Connection,
  asked: { set: string; key: string; then: Instant },
): void {
  const sql = `SELECT 1 FROM subject WHERE "set" = @set AND key = @key
    AND (starts > @then OR ends > @then)`;
  if (statement(connection, sql).get(asked)) throw new Refused(overtaken());
}

function overtaken(): Refused['issues'][number] {
  return {
    code: 'overtaken',
    message: 'These subjects have been changed again since.',
    fix: 'Undo what was done last first.',
  };
}

/** @throws Refused where entries have a subject that would not be there any more */
function checkUnused(
  connection: Connection,
  set: string,
  states: SubjectStates,
  key: string,
): void {
  const users = entriesWith(connection, set, [key]).size;
  if (users === 0) return;
  throw new Refused({
    code: 'subject-in-use',
    message: `${states.get(key)?.name ?? key} is in use by now.`,
    fix: 'Delete it, which says where what has it goes.',
  });
}
