import { z } from 'zod';
import { command } from '../definition.ts';
import { mediumId, mediumOf, writeMedium } from './write-medium.ts';

/** Takes a medium away from now on: what shows it shows nothing; the past still does. */
export const deleteMedium = command({
  deed: 'publish',
  input: z.strictObject({ id: mediumId }),
  run(context, { id }) {
    const { starts } = mediumOf(context, id);
    writeMedium(context, id, null);
    return { at: context.at, before: starts };
  },
});
