import { z } from 'zod';
import { statement } from '../../store/statement.ts';
import { startersOf } from '../../store/starters.ts';
import { command } from '../definition.ts';
import { entryOf, newestValues } from '../entry-lookup.ts';
import { LONGEST_NAME, writeStarter } from './save-starter.ts';

/** Makes a starter of what was saved of an entry last; the entry stays as it is. */
export const makeStarter = command({
  deed: 'write-entry',
  input: z.strictObject({ entry: z.string().max(200) }),
  about: ({ entry: id }) => [{ of: 'entry', id }],
  run(context, { entry: id }) {
    const { connection } = context;
    const { type, row } = entryOf(context, id);
    const sql = 'SELECT name FROM revision WHERE entry = ? AND number = ?';
    const called = statement<string>(connection, sql).pluck().get(id, row.newest) ?? type.label;
    const taken = new Set(startersOf(connection, type.id).map(({ name }) => name));
    const name = freeName(called.slice(0, LONGEST_NAME - 4), taken);
    const values = newestValues(context, id, type);
    return { name, ...writeStarter(context, type, { name, values, before: undefined }) };
  },
});

/** A name that is not taken: itself, or with the lowest free number from 2 on. */
function freeName(name: string, taken: ReadonlySet<string>): string {
  let free = name;
  for (let n = 2; taken.has(free); n++) free = `${name} ${n}`;
  return free;
}
