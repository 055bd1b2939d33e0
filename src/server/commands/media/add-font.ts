import { z } from 'zod';
import { UNTOLD } from '@/core/design/values.ts';
import { slugText } from '@/core/pattern/slug.ts';
import { mediumNow } from '../../store/media.ts';
import { command } from '../definition.ts';
import { keptFile, writeMedium } from './write-medium.ts';

const LONGEST = 60;
const HASH_SHOWN = 8;

/**
 * Takes a font that is kept in among the files of the style, under a name made of that which it
 * had and of its hash: what is called so never changes.
 */
export const addFont = command({
  deed: 'change-design',
  fromServer: true,
  input: z.strictObject({ name: z.string().max(1000), file: keptFile }),
  run(context, { name, file }) {
    const { language } = context.site.design.site;
    const own = name.slice(Math.max(name.lastIndexOf('/'), name.lastIndexOf('\\')) + 1);
    const stem = slugText(own.replace(/\.woff2$/i, ''), language).slice(0, LONGEST) || 'font';
    const called = `${stem}-${file.hash.slice(0, HASH_SHOWN)}.woff2`;
    if (!mediumNow(context.connection, `style/${called}`))
      writeMedium(context, `style/${called}`, { ...file, ...UNTOLD });
    return { file: called };
  },
});
