import { z } from 'zod';
import { siteIn } from '../store/designs-ahead.ts';
import { valuesOfForm } from '../store/form-values.ts';
import { statement } from '../store/statement.ts';
import { wordsChanged } from '../store/stored-values.ts';
import { Refused, command } from './definition.ts';
import { deriveEntry } from './derive-entry.ts';
import { entryOf, newestValues } from './entry-lookup.ts';
import { retain } from './retain.ts';
import { newer, writeRevision } from './save-entry.ts';

/** Saves what an entry says in a further language, as a revision. Nothing public changes by it. */
export const saveWords = command({
  deed: 'write-entry',
  input: z.strictObject({
    entry: z.string().min(1).max(200),
    /** Id of the language. */
    language: z.string().max(64),
    /** Of translated fields, by their ids. */
    values: z.record(z.string().max(64), z.unknown()),
    /** The newest revision with other words that the person saw; null for none. */
    seen: z.int().nullable(),
    /** What is said of this version, for those who look at it later. */
    note: z.string().trim().max(500).default(''),
  }),
  about: ({ entry: id }) => [{ of: 'entry', id }],
  run(context, { entry: id, language, values: form, seen, note }) {
    const { connection, site, actor, at } = context;
    const { type, row } = entryOf(context, id);
    const read = siteIn(site, language);
    const own = read.types.get(type.id);
    if (!own) throw new Refused(noLanguage(language));
    const tag = read.design.site.language;
    const fields = own.fields.filter(({ translated }) => translated);
    const words = valuesOfForm(connection, read, { ...own, fields }, form, {
      ...{ now: at, entry: id, role: actor.role },
    });
    if (words.issues.length > 0) throw new Refused(...words.issues);
    const revisions = statement<{ number: number; values: string }>(
      connection,
      'SELECT number, "values" FROM revision WHERE entry = ? ORDER BY number',
    ).all(id);
    const last = wordsChanged(revisions, tag).at(-1)?.number ?? null;
    if (last !== null && last > (seen ?? 0)) throw new Refused(newer());
    const number = row.newest + 1;
    const values = newestValues(context, id, type);
    writeRevision(context, id, type, { number, values, note, languages: { [tag]: words.values } });
    retain(context, id, type);
    deriveEntry(context, id);
    return { id, revision: number };
  },
});

/** Says that the site is not in a language. */
export function noLanguage(id: string): Refused['issues'][number] {
  return {
    code: 'unknown-language',
    message: `The site is not in the language “${id}”.`,
    fix: 'Reload the page: it may have been taken away.',
  };
}
