import { z } from 'zod';
import { same } from '@/core/design-edit/properties.ts';
import { mediaWordsByTag } from '@/core/design/media-words.ts';
import { command } from '../definition.ts';
import { mediumId, mediumOf, writeMedium } from './write-medium.ts';

const words = (most: number) => z.string().trim().max(most).optional();
const percent = z.int().min(0).max(100).optional();

/** Changes what is said of a medium, and what of it matters; the past keeps what was said. */
export const changeMedium = command({
  deed: 'publish',
  input: z.strictObject({
    id: mediumId,
    alt: words(2000),
    decorative: z.boolean().optional(),
    caption: words(2000),
    credit: words(500),
    /** In per cent from the left and the top. */
    focusX: percent,
    focusY: percent,
    /** What every further language says of it. */
    languages: mediaWordsByTag.optional(),
  }),
  run(context, { id, ...given }) {
    const now = mediumOf(context, id);
    const said = Object.entries(given).filter(([, value]) => value !== undefined);
    const changed = said.filter(([name, value]) => !same(now[name as keyof typeof now], value));
    if (changed.length === 0) return { at: context.at, before: null };
    writeMedium(context, id, { ...now, ...Object.fromEntries(changed) });
    return { at: context.at, before: now.starts };
  },
});
