import { z } from 'zod';
import { nextPick } from '../../store/picks.ts';
import { statement } from '../../store/statement.ts';
import { type CommandContext, command } from '../definition.ts';
import { openPick, picksChanged } from './picks-of.ts';

/** Takes an entry out of picks: from now on, or where it would have joined them later. */
export const unpick = command({
  deed: 'publish',
  input: z.strictObject({ id: z.int() }),
  run(context, { id }) {
    const was = openPick(context, id);
    const before = nextPick(context.connection, was, context.at)?.id ?? null;
    end(context, was);
    picksChanged(context, was.picks);
    return { was, before };
  },
});

/** Ends a stretch now; one that lies ahead has never been. */
export function end({ connection, at }: CommandContext, pick: { id: number; from: number }): void {
  if (pick.from > at) statement(connection, 'DELETE FROM pick WHERE id = ?').run(pick.id);
  else statement(connection, 'UPDATE pick SET ends = ? WHERE id = ?').run(at, pick.id);
}
