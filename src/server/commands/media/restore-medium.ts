import { z } from 'zod';
import { versionsOf } from '../../store/media.ts';
import { Refused, command } from '../definition.ts';
import { mediumId, writeMedium } from './write-medium.ts';

/** Makes a medium what it was from an instant on: undoes a change, a replacement, a deletion. */
export const restoreMedium = command({
  deed: 'publish',
  input: z.strictObject({
    id: mediumId,
    /** The instant (ms UTC) from which it was so. */
    starts: z.int(),
  }),
  run(context, { id, starts }) {
    const versions = versionsOf(context.connection, id);
    const wanted = id.startsWith('style/') ? undefined : versions.find((v) => v.starts === starts);
    if (!wanted)
      throw new Refused({
        code: 'unknown-version',
        message: 'There is no such version of this file.',
        fix: 'Reload the page.',
      });
    const now = versions.find(({ ends }) => ends === null) ?? null;
    writeMedium(context, id, wanted);
    return { at: context.at, before: now?.starts ?? null };
  },
});
