import { z } from 'zod';
import { MEDIA_FORMATS, formatOf } from '@/core/design/media-formats.ts';
import { UNTOLD } from '@/core/design/values.ts';
import { slugText } from '@/core/pattern/slug.ts';
import { statement } from '../../store/statement.ts';
import { type CommandContext, command } from '../definition.ts';
import { keptFile, writeMedium } from './write-medium.ts';

/**
 * Takes a file that is kept in among the media, under a name made of that which it had; where the
 * same file is there already, that one is meant.
 */
export const addMedium = command({
  deed: 'write-entry',
  fromServer: true,
  input: z.strictObject({ name: z.string().max(1000), file: keptFile }),
  run(context, { name, file }) {
    const known = `SELECT id FROM media WHERE hash = ? AND ends IS NULL AND id NOT LIKE 'style/%'`;
    const same = statement<string>(context.connection, known).pluck().get(file.hash);
    if (same !== undefined) return { id: same, isNew: false };
    const id = freeName(context, name, file.mime);
    writeMedium(context, id, { ...file, ...UNTOLD });
    return { id, isNew: true };
  },
});

const LONGEST = 80;

/**
 * A name in small letters, digits and hyphens, with the ending of the format, that no medium has
 * or ever had.
 */
function freeName({ connection, site }: CommandContext, name: string, mime: string): string {
  const { language } = site.design.site;
  const own = name.slice(Math.max(name.lastIndexOf('/'), name.lastIndexOf('\\')) + 1);
  const words = own.replace(/\.[a-z0-9]{1,5}$/i, '').slice(0, LONGEST);
  const stem = slugText(words, language).slice(0, LONGEST) || 'file';
  const format = formatOf(mime);
  const ending = format ? `.${MEDIA_FORMATS[format].ending}` : '';
  const taken = statement(connection, 'SELECT 1 FROM media WHERE id = ? COLLATE NOCASE');
  for (let n = 1; ; n++) {
    const id = `${stem}${n === 1 ? '' : `-${n}`}${ending}`;
    if (taken.get(id) === undefined) return id;
  }
}
