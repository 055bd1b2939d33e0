import { z } from 'zod';
import { slugText } from '../pattern/slug.ts';
import { type Edition, tag } from './language-spec.ts';
import type { Subject } from './values.ts';

/** What is made of small letters, digits and single hyphens between them. */
export const SLUG = /^[a-z0-9]+(-[a-z0-9]+)*$/;

/** What a further language says of a subject; what it leaves out is as the site's own has it. */
export const subjectWords = z.strictObject({
  name: z.string().trim().min(1).max(200).optional(),
  slug: z.string().max(120).optional(),
  description: z.string().max(10_000).optional(),
});

/** The same by the BCP 47 tags of the languages. */
export const wordsByTag = z.record(tag, subjectWords);
/** What further languages say of a subject, by their tags. */
export type WordsByTag = z.output<typeof wordsByTag>;

/** A subject with what is said of it in further languages. */
export interface SpokenSubject extends Subject {
  languages: WordsByTag;
}

/**
 * A subject as a site has it in its language: a name of its own brings a word for addresses along,
 * where none is given and something of it is left.
 */
export function subjectIn(
  { languages, ...subject }: SpokenSubject,
  { site, edition }: { site: { language: string }; edition?: Edition | undefined },
): Subject {
  const said = edition && Object.hasOwn(languages, site.language) && languages[site.language];
  if (!said) return subject;
  const slug = said.slug ?? (said.name === undefined ? '' : slugText(said.name, site.language));
  return {
    ...subject,
    name: said.name ?? subject.name,
    slug: slug || subject.slug,
    description: said.description ?? subject.description,
  };
}
