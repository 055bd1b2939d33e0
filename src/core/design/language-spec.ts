import { z } from 'zod';
import { key } from './key.ts';

/** Texts of one part of a design, by the properties that hold them. */
export interface Texts {
  [property: string]: string | Texts;
}

const MOST_CHARACTERS = 20_000;
const texts: z.ZodType<Texts> = z.lazy(() =>
  z.record(z.string().max(200), z.union([z.string().max(MOST_CHARACTERS), texts])),
);

/** A BCP 47 tag in its canonical form; null where it is none. */
export function tagOf(language: string): string | null {
  try {
    return Intl.getCanonicalLocales(language)[0] ?? null;
  } catch {
    return null;
  }
}

/** A BCP 47 tag. */
export const tag = z.string().refine((language) => tagOf(language) !== null, {
  error: (i) => `"${String(i.input)}" is not a language tag, such as "en" or "de".`,
});

/** What a language is called in itself: "Deutsch". */
export function nameOfLanguage(language: string): string {
  return new Intl.DisplayNames([language], { type: 'language' }).of(language) ?? language;
}

/** A language that the site is in besides its own, as it is stored. */
export const languageSpec = z
  .strictObject({
    id: key.optional(),
    key,
    /** What it is called in itself. */
    label: z.string().min(1).max(80).optional(),
    /** BCP 47 tag; the key where left out. */
    language: tag.optional(),
    /** First segment of all its addresses; the key in small letters where left out. */
    path: z
      .string()
      .regex(/^[a-z0-9]+(-[a-z0-9]+)*$/, 'This is small letters, digits and single hyphens.')
      .max(40)
      .optional(),
    /** Whether entries without words in it are shown in the site’s own language. */
    fallback: z.boolean().default(true),
    /** What the design says otherwise in it, by the paths of parts and their properties. */
    texts: z.record(z.string().max(1000), texts).default({}),
  })
  .refine(({ key: own, language }) => tagOf(language ?? own) !== null, {
    error: 'Its key is no language tag, such as "de": say which language it is.',
    path: ['language'],
  })
  .transform(({ id, key: own, label, language, path, ...rest }) => ({
    id: id ?? own,
    key: own,
    label: label ?? nameOfLanguage(language ?? own),
    language: language ?? own,
    path: path ?? own.toLowerCase().replaceAll('_', '-'),
    ...rest,
  }));
/** A language that the site is in besides its own. */
export type Language = z.output<typeof languageSpec>;

/** What a design compiled in a further language is in. */
export interface Edition extends Pick<Language, 'key' | 'id' | 'label' | 'fallback'> {
  /** Where its front page stands, and below which all of its pages do. */
  root: string;
  /** The site's own language, BCP 47. */
  own: string;
}

/** Where the front page of a design stands: "/", or of one in a further language "/de". */
export function rootOf({ edition }: { edition?: Edition | undefined }): string {
  return edition?.root ?? '/';
}

/** A path below a root. */
export function below(root: string, path: string): string {
  if (root === '/') return path;
  return path === '/' ? root : root + path;
}

/** A path as it reads from a root that it lies below; itself where it does not. */
export function within(root: string, path: string): string {
  if (path === root) return '/';
  return root !== '/' && path.startsWith(`${root}/`) ? path.slice(root.length) : path;
}
