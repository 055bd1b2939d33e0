import { z } from 'zod';
import type { Values } from '@/core/design/values.ts';
import type { CompiledSite } from '@/core/site/compile.ts';
import { siteIn } from '../store/designs-ahead.ts';
import { valuesOfForm } from '../store/form-values.ts';
import { statement } from '../store/statement.ts';
import { wordsChanged } from '../store/stored-values.ts';
import type { Concerned } from './bulk/definition.ts';
import { type CommandContext, Refused, command } from './definition.ts';
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
  run(context, { entry: id, language, values, seen, note }) {
    const { type, row } = entryOf(context, id);
    const read = siteSpoken(context, language);
    const revisions = statement<{ number: number; values: string }>(
      context.connection,
      'SELECT number, "values" FROM revision WHERE entry = ? ORDER BY number',
    ).all(id);
    const last = wordsChanged(revisions, read.design.site.language).at(-1)?.number ?? null;
    if (last !== null && last > (seen ?? 0)) throw new Refused(newer());
    const revision = writeWords(context, { id, row, type }, { read, values, note });
    retain(context, id, type);
    deriveEntry(context, id);
    return { id, revision };
  },
});

/** The site in a further language, by its id. @throws Refused where it is not in that one */
export function siteSpoken({ site }: CommandContext, language: string): CompiledSite {
  const read = siteIn(site, language);
  if (read.design.edition?.id === language) return read;
  throw new Refused(noLanguage(language));
}

/**
 * Writes what an entry says in all its translated fields as a revision, and gives its number; what
 * follows from it is not derived. @throws Refused
 */
export function writeWords(
  context: CommandContext,
  { id, row, type }: Concerned,
  { read, values: form, note }: { read: CompiledSite; values: Values; note?: string },
): number {
  const { connection, actor, at } = context;
  const own = read.types.get(type.id)!;
  const fields = own.fields.filter(({ translated }) => translated);
  const asked = { now: at, entry: id, role: actor.role };
  const words = valuesOfForm(connection, read, { ...own, fields }, form, asked);
  if (words.issues.length > 0) throw new Refused(...words.issues);
  const number = row.newest + 1;
  const languages = { [read.design.site.language]: words.values };
  const values = newestValues(context, id, type);
  writeRevision(context, id, type, { number, values, languages, ...(note ? { note } : {}) });
  return number;
}

/** Says that the site is not in a language. */
export function noLanguage(id: string): Refused['issues'][number] {
  return {
    code: 'unknown-language',
    message: `The site is not in the language “${id}”.`,
    fix: 'Reload the page: it may have been taken away.',
  };
}
