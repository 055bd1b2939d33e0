import { z } from 'zod';
import { isPicture } from '@/core/design/media-formats.ts';
import { Refused, command } from '../definition.ts';
import { keptFile, mediumId, mediumOf, writeMedium } from './write-medium.ts';

/** Puts another file in a medium's place; what is said of it stays, and so does the past. */
export const replaceMedium = command({
  deed: 'publish',
  fromServer: true,
  input: z.strictObject({ id: mediumId, file: keptFile }),
  run(context, { id, file }) {
    const now = mediumOf(context, id);
    if (now.hash === file.hash)
      throw new Refused({
        code: 'same-file',
        message: `“${id}” is this file already.`,
        fix: 'Choose another file.',
      });
    if (isPicture(now) !== isPicture(file))
      throw new Refused({
        code: 'other-sort',
        message: isPicture(now)
          ? `“${id}” is a picture, and this file is none.`
          : `“${id}” is no picture, and this file is one.`,
        fix: 'Add it as a file of its own.',
      });
    writeMedium(context, id, { ...now, ...file });
    return { at: context.at, before: now.starts };
  },
});
