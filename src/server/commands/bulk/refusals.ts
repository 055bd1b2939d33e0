import type { Issue } from '@/core/issue.ts';
import type { Connection } from '../../db/connection.ts';
import { statement } from '../../store/statement.ts';

/** Entries that something cannot be done to for the same reason. */
export interface RefusedGroup {
  message: string;
  fix: string;
  count: number;
  /** The first of them, with names. */
  entries: { id: string; name: string }[];
}

const NAMED = 5;
const MOST_GROUPS = 50;

/** Refused entries by their first reasons, the most frequent first. */
export function refusedGroups(
  connection: Connection,
  left: ReadonlyMap<string, readonly Issue[]>,
): RefusedGroup[] {
  const groups = new Map<string, { issue: Issue; ids: string[] }>();
  for (const [id, [first]] of left) {
    const issue = groups.size < MOST_GROUPS || groups.has(first!.message) ? first! : OTHERS;
    const known = groups.get(issue.message);
    if (known) known.ids.push(id);
    else groups.set(issue.message, { issue, ids: [id] });
  }
  const sql = 'SELECT name FROM revision WHERE entry = ? ORDER BY number DESC LIMIT 1';
  const name = statement<string>(connection, sql).pluck();
  return [...groups.values()]
    .sort((a, b) => b.ids.length - a.ids.length)
    .map(({ issue: { message, fix = '' }, ids }) => ({
      ...{ message, fix, count: ids.length },
      entries: ids.slice(0, NAMED).map((id) => ({ id, name: name.get(id) ?? id })),
    }));
}

const OTHERS: Issue = {
  code: 'others',
  message: 'For other reasons.',
  fix: 'Choose fewer entries to see each reason.',
};
