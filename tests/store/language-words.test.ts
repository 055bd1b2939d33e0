import { expect, test } from 'vitest';
import { expectTheSame, loaded, saved } from '../helpers/comes-back.ts';
import { type Files, loadFiles } from '../helpers/folder.ts';
import { FILES, GERMAN, NOW, run, seen, site, wall } from '../helpers/german-site.ts';

test.each([
  ['a language twice', { 'languages/en.json': { key: 'en' } }, /in English already/],
  [
    'below a listing',
    { 'listings/more.json': { key: 'more', type: 'seed', address: '/de/more' } },
    /listing More stands at \/de\/more/,
  ],
  [
    'with addresses below a language',
    {
      'types/page.json': {
        ...{ key: 'page', address: '/de/{title}' },
        fields: [{ key: 'title', kind: 'text' }],
      },
      'entries/page.json': [],
    },
    /another language stand below \/de/,
  ],
  ['below what the site keeps', { 'languages/fr.json': { key: 'fr', path: 'media' } }, /taken/],
  [
    'with a pattern that reads nothing',
    { 'languages/de.json': { key: 'de', texts: { 'types/seed': { address: '/{titel}' } } } },
    /titel/,
  ],
  [
    'with words for what is the same in all',
    {
      'entries/page.json': [],
      'entries/seed.json': [{ entry: { id: 'a', languages: { de: { stock: 3 } } }, title: 'A' }],
    },
    /Stock is the same in every language/,
  ],
  [
    'with words in a language that it is not in',
    {
      'entries/page.json': [],
      'entries/seed.json': [{ entry: { id: 'a', languages: { it: { title: 'B' } } }, title: 'A' }],
    },
    /not in the language/,
  ],
])('a site is not loaded %s', async (_, more, message) => {
  const { result } = await loadFiles({ ...FILES, ...(more as Files) }, NOW);
  expect(result).toMatchObject({ ok: false });
  expect(JSON.stringify(result)).toMatch(message);
});

test('subjects and pictures say in each language what they are, and addresses follow', async () => {
  const words = { de: { name: 'Hülsenfrüchte', description: 'Im Boden.' } };
  const seed = FILES['types/seed.json'] as { fields: object[] };
  const fields = [
    { key: 'family', kind: 'category', set: 'family' },
    { key: 'photo', kind: 'media' },
  ];
  const [pea, bean] = FILES['entries/seed.json'] as object[];
  const found = await site({
    'subjects/family.json': {
      ...{ key: 'family', kind: 'tree' },
      subjects: [{ key: 'legumes', name: 'Legumes', languages: words }],
    },
    'media/pea.svg': '<svg xmlns="http://www.w3.org/2000/svg" width="40" height="20"/>',
    'media/alt.yaml': { 'pea.svg': { alt: 'A pea', languages: { de: { alt: 'Eine Erbse' } } } },
    'types/seed.json': {
      ...{ ...seed, address: '/seeds/{family.slug}/{title}' },
      fields: [...seed.fields, ...fields],
    },
    'languages/de.json': {
      ...GERMAN,
      texts: { ...GERMAN.texts, 'types/seed': { address: '/sorten/{family.slug}/{title}' } },
    },
    'listings/all.json': {
      ...{ key: 'all', type: 'seed', address: '/all', sort: ['title'] },
      each: { by: 'family' },
    },
    'entries/seed.json': [
      { ...pea, family: 'legumes', photo: 'pea.svg' },
      { ...bean, family: 'legumes' },
    ],
  });
  expect(seen(found, '/seeds/legumes/pea')).toContain('Legumes');
  const path = '/de/sorten/huelsenfruechte/erbse';
  expect(seen(found, path)).toContain('Hülsenfrüchte');
  expect(found.view.render(path, wall)!.body).toContain('alt="Eine Erbse"');
  expect(found.view.render('/seeds/legumes/pea', wall)!.body).toContain('alt="A pea"');
  expect(seen(found, '/de/alle/huelsenfruechte')).toMatch(/^200 Hülsenfrüchte: .*Im Boden/);

  const languages = { de: { name: 'Hülsen', slug: 'huelsen' } };
  const change = { do: 'set', key: 'legumes', languages } as const;
  expect(run(found, 'changeSubjects', { set: 'family', change })).toMatchObject({
    ok: true,
    value: { sentence: 'Legumes: other words in Deutsch', moved: 2 },
  });
  expect(seen(found, path)).toBe('308 /de/sorten/huelsen/erbse');
  expect(seen(found, '/seeds/legumes/pea')).toMatch(/^200 /);
  const wrong = { ...change, languages: { de: { slug: 'Für Alle' } } };
  expect(run(found, 'changeSubjects', { set: 'family', change: wrong })).toMatchObject({
    ok: false,
    issues: [{ code: 'wrong-slug', path: 'languages.de.slug' }],
  });
  const said = { alt: 'Erbsen', caption: 'Im Beet' };
  run(found, 'changeMedium', { id: 'pea.svg', languages: { de: said } });
  expect(found.view.render('/de/sorten/huelsen/erbse', wall)!.body).toContain('alt="Erbsen"');
  expect(found.view.render(path, NOW)!.body).toContain('alt="Eine Erbse"');
  await expectTheSame(found);
});

test('what was purged leads nowhere in any language, in a site that comes back from its folder too', async () => {
  const found = await site();
  expect(run(found, 'purgeEntry', { entry: 'pea' })).toMatchObject({ ok: true });
  const open = ['address', '"address:de"'].map((table) =>
    found.connection.driver
      .prepare(`SELECT count(*) FROM ${table} WHERE entry = 'pea' AND ends IS NULL`)
      .pluck()
      .get(),
  );
  expect(open).toEqual([0, 0]);
  const again = await loaded(saved(found), wall + 1000);
  for (const { view } of [found, again])
    for (const path of ['/seeds/pea', '/de/sorten/erbse'])
      expect(view.render(path, wall + 2000)!.status).toBe(410);
});
