import { type SubjectsAfter, describeChange } from '@/core/design/subject-change.ts';
import type { Instant } from '@/core/time/interval.ts';
import { personName } from '../store/persons.ts';
import { statement } from '../store/statement.ts';
import { SUBJECT_COLUMNS, type SubjectRow, subjectOf } from '../store/subject-rows.ts';
import type { SiteView } from './site-view.ts';

/** Something that was done to the subjects of a set. */
export interface SubjectDeed {
  at: Instant;
  /** "Early renamed to Earliest". */
  sentence: string;
  /** Who did it; null where that is not known. */
  who: string | null;
}

const SHOWN = 10;

/** What was done to a set, by its id, until an instant; the last first. */
export function deedsOf({ connection }: SiteView, set: string, at: Instant): SubjectDeed[] {
  const instants = statement<Instant>(
    connection,
    `SELECT starts AS t FROM subject WHERE "set" = @set AND starts BETWEEN 0 AND @at
     UNION SELECT ends FROM subject WHERE "set" = @set AND ends <= @at
     ORDER BY t DESC LIMIT ${SHOWN}`,
  ).pluck();
  const of = (bound: 'starts' | 'ends') =>
    statement<SubjectRow & { author: string | null }>(
      connection,
      `SELECT ${SUBJECT_COLUMNS}, author FROM subject WHERE "set" = ? AND ${bound} = ?`,
    );
  const name = statement<string>(
    connection,
    `SELECT name FROM subject WHERE "set" = ? AND key = ? ORDER BY starts DESC LIMIT 1`,
  ).pluck();
  return instants.all({ set, at }).map((then) => {
    const before = new Map(
      of('ends')
        .all(set, then)
        .map((row) => [row.key, subjectOf(row)]),
    );
    const news = of('starts').all(set, then).map(subjectOf);
    const after: SubjectsAfter = new Map([...before.keys()].map((key) => [key, null]));
    for (const state of news) after.set(state.key, state);
    const sentence = describeChange(before, after, (key) => name.get(set, key));
    const author = news[0]?.author ?? null;
    return { at: then, sentence, who: author === null ? null : personName(connection, author) };
  });
}
