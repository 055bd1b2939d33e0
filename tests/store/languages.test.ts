import { expect, test } from 'vitest';
import type { CommandInput, CommandName } from '@/server/commands/index.ts';
import { runCommand } from '@/server/commands/run.ts';
import { COMMAND_LINE } from '@/server/permit.ts';
import { expectTheSame, loaded, saved } from '../helpers/comes-back.ts';
import { type Files, SITE, type TestSite, loadFiles } from '../helpers/folder.ts';
import { setting } from '../helpers/release.ts';

const NOW = Date.parse('2026-07-01T12:00:00Z');
const GERMAN = {
  key: 'de',
  texts: {
    site: { name: 'Saaten' },
    'types/seed': { address: '/sorten/{title}' },
    'listings/all': { label: 'Alle', address: '/alle', empty: 'Nichts da.' },
    'templates/frame/blocks/b2': { text: 'Von {site.name}' },
  },
};
const FILES: Files = {
  'site.yaml': { ...SITE, name: 'Seeds', url: 'https://seeds.example', frame: 'frame' },
  'languages/de.json': GERMAN,
  'types/seed.json': {
    key: 'seed',
    address: '/seeds/{title}',
    fields: [
      { key: 'title', kind: 'text' },
      { key: 'about', kind: 'text' },
      { key: 'stock', kind: 'number' },
      { key: 'friend', kind: 'reference', types: ['seed'] },
    ],
  },
  'types/page.json': {
    key: 'page',
    address: '[{within.path}]/{title}',
    fields: [
      { key: 'title', kind: 'text' },
      { key: 'parent', kind: 'reference', types: ['page'], sitsWithin: true },
    ],
  },
  'listings/all.json': { key: 'all', type: 'seed', address: '/all', sort: ['title'] },
  'templates/frame.json': {
    key: 'frame',
    kind: 'frame',
    blocks: [
      { block: 'menu', menu: 'main' },
      { block: 'text', text: 'Of {site.name}' },
      { block: 'languageLinks' },
      { block: 'slot', slot: 'main' },
    ],
  },
  'templates/main.json': {
    key: 'main',
    kind: 'menu',
    blocks: [
      { block: 'menuListing', listing: 'all' },
      { block: 'menuLink', to: '/', text: 'Home' },
    ],
  },
  'entries/seed.json': [
    {
      entry: {
        id: 'pea',
        live: ['2026-01-01/', { from: '2026-02-01', language: 'de' }],
        languages: { de: { title: 'Erbse', about: 'Grün.' } },
      },
      ...{ title: 'Pea', about: 'Green.', stock: 3, friend: 'bean' },
    },
    { entry: { id: 'bean', live: '2026-01-01/' }, title: 'Bean', stock: 5 },
  ],
  'entries/page.json': [
    {
      entry: {
        id: 'about',
        live: ['2026-01-01/', { from: '2026-01-01', language: 'de' }],
        languages: { de: { title: 'Über uns' } },
      },
      title: 'About',
    },
    { entry: { id: 'team', live: '2026-01-01/' }, title: 'Team', parent: 'about' },
  ],
};

async function site(more: Files = {}): Promise<TestSite> {
  const loaded = await loadFiles({ ...FILES, ...more }, NOW - 1000);
  expect(loaded.result).toMatchObject({ ok: true });
  return loaded;
}

let wall = NOW;
function run<N extends CommandName>(
  { connection }: TestSite,
  name: N,
  input: Partial<CommandInput<N>>,
) {
  return runCommand(connection, name, COMMAND_LINE, input, { wallClock: (wall += 1000) });
}

/** What a path answers as of an instant: its status, title and text, or where it leads. */
function seen({ view }: TestSite, path: string, at = wall): string {
  const { status, meta, headers, body } = view.render(path, at)!;
  if (headers.location !== undefined) return `${status} ${headers.location}`;
  const main = /<main id="content">(.*)<\/main>/s.exec(body)?.[1] ?? '';
  return `${status} ${meta?.title ?? ''}: ${main
    .replaceAll(/<[^>]+>/g, ' ')
    .replaceAll(/\s+/g, ' ')
    .trim()}`;
}

test('an entry has a page in each language, with its words, address and neighbours in it', async () => {
  const found = await site();
  expect(seen(found, '/seeds/pea')).toBe('200 Pea: Pea About Green. Stock 3 Friend Bean');
  expect(seen(found, '/de/sorten/erbse')).toBe('200 Erbse: Erbse About Grün. Stock 3 Friend Bean');
  const { body } = found.view.render('/de/sorten/erbse', NOW)!;
  expect(body).toContain('<html lang="de">');
  expect(body).toContain('<p>Von Saaten</p>');
  expect(body).toContain('<a href="/de/alle">Alle</a></li><li><a href="/de">Home</a>');
  expect(body).toContain('<a href="/de/sorten/bean">Bean</a>');
  for (const [tag, path] of [
    ['en', '/seeds/pea'],
    ['de', '/de/sorten/erbse'],
  ])
    expect(body).toContain(
      `<link rel="alternate" hreflang="${tag}" href="https://seeds.example${path}">`,
    );
  expect(body).toContain('<a href="/seeds/pea" hreflang="en" lang="en">English</a>');
  expect(seen(found, '/DE/Sorten/Erbse')).toBe('308 /de/sorten/erbse');
});

test('without words of its own the site’s language stands in, and says so', async () => {
  const found = await site();
  const { body, headers } = found.view.render('/de/sorten/bean', NOW)!;
  expect(body).toContain('<html lang="en">');
  expect(headers['content-language']).toBe('en');
  expect(body).toContain('<link rel="canonical" href="https://seeds.example/seeds/bean">');
  expect(body).not.toContain('hreflang="de" href="https');
  expect(found.view.render('/de/alle', NOW)!.body).toContain(
    '<ul class="cards"><li lang="en"><h3 aria-level="2"><a href="/de/sorten/bean">Bean</a></h3></li><li><h3 aria-level="2"><a href="/de/sorten/erbse">Erbse</a></h3></li></ul>',
  );
  const sitemap = found.view.render('/sitemap.xml', NOW)!.body;
  expect(sitemap).toContain('<loc>https://seeds.example/de/sorten/erbse</loc>');
  expect(sitemap).not.toContain('/de/sorten/bean');
});

test('where it may not, there is nothing', async () => {
  const found = await site({ 'languages/de.json': { ...GERMAN, fallback: false } });
  expect(seen(found, '/de/sorten/bean')).toMatch(/^404/);
  expect(seen(found, '/de/sorten/erbse')).toBe('200 Erbse: Erbse About Grün. Stock 3');
  expect(seen(found, '/de/alle')).toBe('200 Alle: Alle Erbse');
  expect(found.view.render('/seeds/bean', NOW)!.body).toContain('<a href="/de" hreflang="de"');
});

test('pages that sit within others have the addresses of their language', async () => {
  const found = await site();
  expect(seen(found, '/about/team')).toMatch(/^200 Team/);
  expect(seen(found, '/de/ueber-uns/team')).toMatch(/^200 Team/);
  expect(seen(found, '/de')).toMatch(/^200 Saaten/);
});

test('languages are published apart, and what is the same in all of them with any', async () => {
  const found = await site();
  const values = { title: 'Peas', about: 'Greener.', stock: 9, friend: null };
  run(found, 'saveEntry', { id: 'pea', type: 'seed', values, seen: null });
  const words = { title: 'Erbsen', about: 'Grüner.' };
  run(found, 'saveWords', { entry: 'pea', language: 'de', values: words, seen: 1 });
  expect(seen(found, '/seeds/pea')).toBe('200 Pea: Pea About Green. Stock 3 Friend Bean');
  run(found, 'planChange', {
    entry: 'pea',
    action: 'publish',
    at: null,
    revision: null,
    language: 'de',
  });
  expect(seen(found, '/de/sorten/erbsen')).toBe('200 Erbsen: Erbsen About Grüner. Stock 9');
  expect(seen(found, '/de/sorten/erbse')).toBe('308 /de/sorten/erbsen');
  expect(seen(found, '/seeds/pea')).toBe('200 Pea: Pea About Green. Stock 9');
  expect(seen(found, '/all')).toContain('Pea');
  run(found, 'planChange', {
    entry: 'pea',
    action: 'retire',
    at: null,
    revision: null,
    language: 'de',
  });
  expect(seen(found, '/de/sorten/pea')).toBe('200 Pea: Pea About Green. Stock 9');
  expect(seen(found, '/de/sorten/erbsen')).toBe('308 /de/sorten/pea');
});

test('who saves one language leaves what the others say', async () => {
  const found = await site();
  const values = { title: 'Peas', about: null, stock: 9, friend: null };
  run(found, 'saveEntry', { id: 'pea', type: 'seed', values, seen: null });
  run(found, 'planChange', {
    entry: 'pea',
    action: 'publish',
    at: null,
    revision: null,
    language: 'de',
  });
  expect(seen(found, '/de/sorten/erbse')).toBe('200 Erbse: Erbse About Grün. Stock 9');
});

test('what is to go public in a language is whole in it', async () => {
  const fields = [
    { key: 'title', kind: 'text' },
    { key: 'about', kind: 'text', required: true },
  ];
  const found = await site({
    'types/seed.json': { key: 'seed', address: '/seeds/{title}', fields },
    'entries/seed.json': [
      { entry: { id: 'pea', live: '2026-01-01/' }, title: 'Pea', about: 'Green.' },
    ],
  });
  const plan = { entry: 'pea', action: 'publish' as const, at: null, revision: null };
  expect(run(found, 'planChange', { ...plan, language: 'de' })).toMatchObject({ ok: false });
  expect(run(found, 'planChange', { ...plan, language: 'fr' })).toMatchObject({
    ok: false,
    issues: [{ code: 'unknown-language' }],
  });
});

test('addresses of one language are not those of another, nor below its first word', async () => {
  const found = await site();
  const values = { title: 'De', about: null, stock: null, friend: null };
  run(found, 'release', {
    edit: {
      steps: setting(found.view.at(wall)!.site.design, 'types/seed', { address: '/{title}' }),
    },
  });
  const saved = run(found, 'saveEntry', { id: null, type: 'seed', values, seen: null });
  const { id } = (saved as { value: { id: string } }).value;
  const plan = { entry: id, action: 'publish' as const, at: null, revision: null };
  run(found, 'planChange', plan);
  expect(found.view.pages(wall)!.find(({ entry }) => entry === id)?.path).toBe('/de-2');
  expect(seen(found, '/de')).toMatch(/^200 Saaten/);
});

test('a language that moves below another word leads on from where it was', async () => {
  const found = await site();
  const { design } = found.view.at(wall)!.site;
  run(found, 'release', { edit: { steps: setting(design, 'languages/de', { path: 'deutsch' }) } });
  expect(seen(found, '/deutsch/sorten/erbse')).toMatch(/^200 Erbse/);
  expect(seen(found, '/de/sorten/erbse')).toBe('308 /deutsch/sorten/erbse');
  expect(seen(found, '/de/sorten/nie')).toMatch(/^404/);
});

test('a language comes in by a release, and goes by one; the past has what it had', async () => {
  const { 'languages/de.json': _, ...files } = FILES;
  const entries = [{ entry: { id: 'pea', live: '2026-01-01/' }, title: 'Pea', stock: 3 }];
  const found = await loadFiles({
    ...files,
    'entries/seed.json': entries,
    'entries/page.json': [],
  });
  expect(seen(found, '/de/sorten/pea')).toMatch(/^404/);
  const part = { id: 'de', ...GERMAN };
  const added = run(found, 'release', {
    edit: { steps: [{ do: 'add', within: '', list: 'languages', after: null, part } as never] },
  });
  expect(added).toMatchObject({ ok: true });
  const then = wall;
  expect(seen(found, '/de/sorten/pea')).toMatch(/^200 Pea/);
  expect(seen(found, '/de/sorten/pea', then - 1)).toMatch(/^404/);
  const was = found.view.at(wall)!.site.design.languages[0]!;
  run(found, 'release', {
    edit: {
      steps: [
        {
          do: 'remove',
          part: 'languages/de',
          within: '',
          list: 'languages',
          after: null,
          was,
        } as never,
      ],
    },
  });
  expect(seen(found, '/de/sorten/pea')).toMatch(/^404/);
  expect(seen(found, '/de/sorten/pea', then)).toMatch(/^200 Pea/);
});

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
