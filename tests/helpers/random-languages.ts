import fc from 'fast-check';
import type { Files } from './folder.ts';

/** What a site says in German, and which of its entries are live in it, from when until when. */
const spoken = fc.record({
  fallback: fc.boolean(),
  texts: fc.constantFrom(
    {},
    {
      'types/variety': { address: '/sorten/{title}', seo: { title: '{title} auf Deutsch' } },
      'listings/all': { label: 'Alles', address: '/alles', empty: 'Nichts.' },
    },
    { 'types/variety': { address: '/{title}' }, 'types/page': { address: '/{title}' } },
  ),
  words: fc.array(
    fc.record({
      entry: fc.constantFrom('v0', 'v1', 'v2', 'g0', 'p0', 'p1', 's0'),
      title: fc.constantFrom('Erbse', 'Bohne', 'Über', 'Pea'),
      month: fc.integer({ min: 1, max: 9 }),
      months: fc.option(fc.integer({ min: 1, max: 3 })),
    }),
    { maxLength: 5 },
  ),
});

const firstOf = (month: number): string => `2026-${String(month).padStart(2, '0')}-01T00:00:00Z`;

/** The files of a site that is in German, too. */
function withGerman(
  files: Files,
  { fallback, texts, words }: typeof spoken extends fc.Arbitrary<infer S> ? S : never,
): Files {
  const family = files['subjects/family.json'] as { subjects: object[] };
  const german = { languages: { de: { name: 'Hülsenfrüchte', description: 'Im Boden.' } } };
  const all: Files = {
    ...files,
    'languages/de.json': { key: 'de', fallback, texts },
    'subjects/family.json': {
      ...family,
      subjects: family.subjects.map((subject) => ({ ...subject, ...german })),
    },
  };
  const seen = new Set<string>();
  for (const { entry: id, title, month, months } of words) {
    const path = Object.keys(all).find((name) => name.endsWith(`/${id}.json`));
    if (path === undefined || seen.has(id)) continue;
    seen.add(id);
    const file = all[path] as { entry: { live?: object[] } };
    const to = months === null ? {} : { to: firstOf(month + months) };
    const live = [...(file.entry.live ?? []), { from: firstOf(month), ...to, language: 'de' }];
    const entry = { ...file.entry, live, languages: { de: { title } } };
    all[path] = { ...file, entry };
  }
  return all;
}

/** Sites that are in German, too. */
export function inGerman(sites: fc.Arbitrary<Files>): fc.Arbitrary<Files> {
  return fc.tuple(sites, spoken).map(([files, said]) => withGerman(files, said));
}

/** Where much is tried, some of the sites. */
export function someInGerman(sites: fc.Arbitrary<Files>): fc.Arbitrary<Files> {
  if (process.env.LONG === undefined) return sites;
  return fc.oneof({ weight: 3, arbitrary: sites }, { weight: 2, arbitrary: inGerman(sites) });
}
