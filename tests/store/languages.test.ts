import { expect, test } from 'vitest';
import { textsOf } from '@/core/design/texts.ts';
import { Validity } from '@/core/time/interval.ts';
import { runCommand } from '@/server/commands/run.ts';
import { COMMAND_LINE } from '@/server/permit.ts';
import { type Files, loadFiles } from '../helpers/folder.ts';
import { FILES, GERMAN, NOW, run, seen, site, wall } from '../helpers/german-site.ts';
import { setting } from '../helpers/release.ts';

test('an address reads what stood in before, once a release lets it again', async () => {
  const seed = {
    ...(FILES['types/seed.json'] as object),
    address: '/seeds/{friend.title ?? "all"}/{title}',
  };
  const found = await site({
    'types/seed.json': seed,
    'languages/de.json': { key: 'de' },
    'entries/seed.json': [
      { entry: { id: 'bean', live: '2026-01-01/2026-06-01' }, title: 'Bean' },
      { entry: { id: 'pea', live: '2026-01-01/' }, title: 'Pea', friend: 'bean' },
    ],
  });
  const paths = ['/de/seeds/bean/pea', '/de/seeds/all/pea'];
  const statuses = (at: number): string[] => paths.map((p) => seen(found, p, at).slice(0, 3));
  expect(statuses(NOW)).toEqual(['200', '404']);
  const says = (fallback: boolean, at: number | null): object => {
    const steps = setting(found.view.at(wall)!.site.design, 'languages/de', { fallback });
    return { edit: { steps }, at: at && new Date(at).toISOString() };
  };
  expect(run(found, 'release', says(false, null))).toMatchObject({ ok: true });
  expect(statuses(wall)).toEqual(['410', '404']);
  const then = wall + 86_400_000;
  expect(run(found, 'release', says(true, then))).toMatchObject({ ok: true });
  expect(statuses(then)).toEqual(['200', '404']);
});

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

test.each([
  { fallback: false, statuses: ['200', '410'] },
  { fallback: true, statuses: ['404', '200'] },
])('what stands in goes or comes when a release that lies ahead says so', async (asked) => {
  const { fallback, statuses } = asked;
  const found = await site({ 'languages/de.json': { ...GERMAN, fallback: !fallback } });
  const day = 86_400_000;
  const then = wall + 10 * day;
  const steps = setting(found.view.at(wall)!.site.design, 'languages/de', { fallback });
  const release = { edit: { steps }, at: new Date(then).toISOString() };
  expect(run(found, 'release', release)).toMatchObject({ ok: true });
  const expectSo = (): void =>
    expect([then - 1, then].map((at) => seen(found, '/de/sorten/bean', at).slice(0, 3))).toEqual(
      statuses,
    );
  expectSo();
  // So it is once that lies behind, whatever is written then.
  const plan = { entry: 'pea', action: 'retire', at: null, revision: null };
  const wallClock = then + day;
  const retired = runCommand(found.connection, 'planChange', COMMAND_LINE, plan, { wallClock });
  expect(retired).toMatchObject({ ok: true });
  expectSo();
  expect(seen(found, '/de/sorten/bean', wallClock).slice(0, 3)).toBe(statuses[1]);
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

test('dates are written as each language has them, and a form that none can have is refused', async () => {
  const seed = FILES['types/seed.json'] as { fields: object[] };
  const inGerman = (format: string): Files => ({
    'types/seed.json': {
      ...{ ...seed, template: 'seed-page' },
      fields: [...seed.fields, { key: 'sown', kind: 'date' }],
    },
    'templates/seed-page.json': {
      ...{ key: 'seed-page', kind: 'page', type: 'seed' },
      blocks: [
        { block: 'date', id: 'when', field: 'sown', format: 'EEE d MMM' },
        { block: 'date', id: 'named', field: 'sown', format: 'long' },
      ],
    },
    'languages/de.json': {
      ...{ ...GERMAN, texts: { ...GERMAN.texts, 'templates/seed-page/blocks/when': { format } } },
    },
    'entries/seed.json': [
      { entry: { id: 'pea', live: '2026-01-01/' }, title: 'Pea', sown: '2026-12-03' },
    ],
  });
  const found = await site(inGerman('EEE, d. MMM'));
  expect(seen(found, '/seeds/pea')).toBe('200 Pea: Thu 3 Dec December 3, 2026');
  expect(seen(found, '/de/sorten/pea')).toBe('200 Pea: Do, 3. Dez. 3. Dezember 2026');
  const forms = textsOf(found.view.at(NOW)!.site.design).filter((t) => t.property === 'format');
  expect(forms.map(({ text }) => text)).toEqual(['EEE d MMM']);
  const { result } = await loadFiles({ ...FILES, ...inGerman('jjj') }, NOW);
  expect(JSON.stringify(result)).toMatch(/languages\/de/);
});

test('when a page was public first stays, whatever language is published later', async () => {
  const live = [
    { from: '2026-01-10T12:00Z', to: '2026-03-01', language: 'de' },
    { from: '2026-06-01T12:00Z', to: null },
  ];
  const found = await site({
    'entries/seed.json': [
      { entry: { id: 'pea', live, languages: { de: { title: 'Erbse' } } }, title: 'Pea', stock: 3 },
    ],
  });
  const published = (day: string, language?: string): string => {
    const at = Date.parse(day);
    const { site, reader } = found.view.at(at)!;
    const seen = language === undefined ? site : site.languages.find((l) => l.design.edition)!;
    const entries = reader.in(seen).liveEntries(['pea'], new Validity(at));
    return new Date(entries.get('pea')!.published!).toISOString().slice(0, 10);
  };
  expect(published('2026-02-01', 'de')).toBe('2026-01-10');
  expect(published('2026-06-20', 'de')).toBe('2026-06-01');
  expect(published('2026-06-20')).toBe('2026-06-01');
  const rows = found.connection.driver.prepare('SELECT starts, published FROM "index_seed:de"');
  for (const row of rows.all() as { starts: number; published: number }[])
    expect(row.published).toBeLessThanOrEqual(row.starts);
});
