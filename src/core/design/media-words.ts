import { z } from 'zod';
import { type Edition, tag } from './language-spec.ts';

/** What a further language says of a medium; what it leaves out is as the site's own has it. */
const mediaWords = z.strictObject({
  alt: z.string().trim().max(2000).optional(),
  caption: z.string().trim().max(2000).optional(),
});

/** The same by the BCP 47 tags of the languages. */
export const mediaWordsByTag = z.record(tag, mediaWords);
/** What further languages say of a medium, by their tags. */
export type MediaWordsByTag = z.output<typeof mediaWordsByTag>;

/** A medium as a site has it in its language. */
export function mediumIn<Medium extends { languages: MediaWordsByTag }>(
  medium: Medium,
  { site, edition }: { site: { language: string }; edition?: Edition | undefined },
): Medium {
  const { languages } = medium;
  const said = edition && Object.hasOwn(languages, site.language) && languages[site.language];
  return said ? { ...medium, ...said } : medium;
}
