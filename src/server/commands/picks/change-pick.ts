import { z } from 'zod';
import { statement } from '../../store/statement.ts';
import { Refused, command } from '../definition.ts';
import { instantOf } from '../plan-change.ts';
import { checkApart, checkBounds } from './pick.ts';
import { openPick, picksOf, picksChanged } from './picks-of.ts';

/** Changes from when and until when an entry stands in picks. */
export const changePick = command({
  deed: 'publish',
  input: z.strictObject({
    id: z.int(),
    /** Local times or instants (ISO 8601); `from` null for as it is, `to` null for no end. */
    from: z.string().max(64).nullable().default(null),
    to: z.string().max(64).nullable(),
  }),
  run(context, { id, ...given }) {
    const { connection, at } = context;
    const was = openPick(context, id);
    if (given.from !== null && was.from <= at)
      throw new Refused({
        code: 'past-instant',
        path: 'from',
        message: 'It stands in the picks already, and the past stays as it was.',
        fix: 'Leave the start as it is.',
      });
    const from = given.from === null ? was.from : instantOf(context, { at: given.from });
    const to = given.to === null ? null : instantOf(context, { at: given.to });
    checkBounds(from, to);
    checkApart(context, picksOf(context, was.picks), { id, entry: was.entry, from, to });
    statement(connection, 'UPDATE pick SET starts = ?, ends = ? WHERE id = ?').run(from, to, id);
    picksChanged(context, was.picks);
    return { was };
  },
});
