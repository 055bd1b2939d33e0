import type { Issue } from '../issue.ts';
import { isReserved } from '../address/path.ts';
import type { Design } from '../design/spec.ts';

/** What is wrong with the languages of a site: one of them twice, or below what is taken. */
export function languageIssues({ site, languages, listings }: Design): Issue[] {
  const tags = [site.language, ...languages.map(({ language }) => language)].map((t) =>
    t.toLowerCase(),
  );
  const paths = languages.map(({ path }) => path);
  return languages.flatMap(({ key, language, path, label }, i): Issue[] => {
    const place = `languages/${key}`;
    const root = `/${path}`;
    const listing = listings.find(
      ({ address }) => address === root || address?.startsWith(`${root}/`),
    );
    return [
      ...(tags.indexOf(language.toLowerCase()) <= i
        ? [
            {
              code: 'doubled-language',
              path: `${place}/language`,
              message: `The site is in ${label} already.`,
              fix: 'Take one of them away, or say which language it is.',
            },
          ]
        : []),
      ...(isReserved(root) || paths.indexOf(path) < i
        ? [taken(place, `${root} is taken.`)]
        : listing
          ? [taken(place, `The listing ${listing.label} stands at ${listing.address}.`)]
          : []),
    ];
  });
}

function taken(place: string, message: string): Issue {
  return {
    code: 'reserved-address',
    path: `${place}/path`,
    message,
    fix: 'Let its pages stand below another word.',
  };
}
