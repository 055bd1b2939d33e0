import { z } from 'zod';
import { addPick, nextPick, placeBefore } from '../../store/picks.ts';
import { command } from '../definition.ts';
import { openPick, picksChanged } from './picks-of.ts';
import { end } from './unpick.ts';

/** Gives an entry another place in picks, from now on: how they stood before stays. */
export const movePick = command({
  deed: 'publish',
  input: z.strictObject({
    id: z.int(),
    /** Right before which other, by its id; null for last. */
    before: z.int().nullable(),
  }),
  run(context, { id, before }) {
    const { connection, at } = context;
    const was = openPick(context, id);
    const following = nextPick(connection, was, at)?.id ?? null;
    const next = before === null ? null : openPick(context, before);
    if (next?.id === id || following === before) {
      picksChanged(context, was.picks);
      return { id, before: following };
    }
    const position = next?.picks === was.picks ? placeBefore(connection, next) : null;
    end(context, was);
    const moved = addPick(connection, { ...was, from: Math.max(was.from, at), position });
    picksChanged(context, was.picks);
    return { id: moved, before: following };
  },
});
