import fc from 'fast-check';
import { describe, expect, test } from 'vitest';
import { PublicPages } from '@/server/delivery/public-pages.ts';
import type { SiteView } from '@/server/queries/site-view.ts';
import { type Files, at, loadFiles } from '../helpers/folder.ts';
import { entry } from '../helpers/notes.ts';

const always = [{ from: '2026-01-01', to: null }];
const seed = (id: string, title: string, more: object): Files => ({
  [`entries/seed/${id}.json`]: entry(id, title, always, {}, more),
});
const FILES: Files = {
  'subjects/family.yaml': {
    key: 'family',
    kind: 'tree',
    subjects: [
      { key: 'legumes', name: 'Legumes', below: [{ key: 'beans', name: 'Beans' }] },
      { key: 'roots', name: 'Roots & tubers' },
    ],
  },
  'subjects/traits.yaml': {
    key: 'traits',
    kind: 'tags',
    subjects: [
      { key: 'hardy', name: 'Hardy' },
      { key: 'early', name: 'Early' },
    ],
  },
  'types/seed.json': {
    key: 'seed',
    address: '/seeds/{title}',
    fields: [
      { key: 'title', kind: 'text' },
      { key: 'story', kind: 'richtext' },
      { key: 'note', kind: 'text' },
      { key: 'family', kind: 'category', set: 'family' },
      { key: 'traits', kind: 'tags', set: 'traits' },
      { key: 'ease', kind: 'choice', options: ['easy', 'hard'] },
      { key: 'weight', kind: 'number' },
    ],
  },
  'listings/all.json': {
    ...{ key: 'all', type: 'seed', address: '/all', pageSize: 2, sort: ['title'] },
    visitor: {
      filters: ['family', 'traits', 'ease'],
      search: ['title', 'story'],
      orders: [{ key: 'heavy', label: 'Heaviest first', sort: ['-weight'] }],
    },
  },
  ...seed('a', 'Ash bean', { family: 'beans', traits: ['hardy'], ease: 'easy', weight: 1 }),
  ...seed('b', 'Bog bean', {
    family: 'beans',
    traits: ['early'],
    story: 'Ashen *pods*.',
    weight: 3,
  }),
  ...seed('c', 'Carrot', { family: 'roots', traits: ['hardy', 'early'], ease: 'hard', weight: 9 }),
  ...seed('d', 'Dúlse root', { family: 'roots', note: 'ashes', weight: 2 }),
  ...seed('e', 'Elder pea', { family: 'legumes', ease: 'easy', weight: 5 }),
};

const body = (view: SiteView, path: string, when = '2026-07-02'): string =>
  view.render(path, at(when))!.body;
const titles = (html: string): string[] =>
  [...html.matchAll(/<h3[^>]*><a[^>]*>(.*?)<\/a>/g)].map(([, title]) =>
    title!.replace(/<\/?mark>/g, ''),
  );

describe('a page of a listing that visitors narrow, search and order', () => {
  test('has what has any of the values of a field, and something of each field', async () => {
    const { view, issues } = await loadFiles(FILES);
    expect(issues).toEqual([]);
    expect(titles(body(view, '/all?family=legumes'))).toEqual(['Ash bean', 'Bog bean']);
    expect(titles(body(view, '/all/page-2?family=legumes'))).toEqual(['Elder pea']);
    expect(titles(body(view, '/all?family=legumes&ease=easy'))).toEqual(['Ash bean', 'Elder pea']);
    expect(titles(body(view, '/all?ease=easy&ease=hard&traits=hardy'))).toEqual([
      'Ash bean',
      'Carrot',
    ]);
    expect(titles(body(view, '/all?order=heavy'))).toEqual(['Carrot', 'Elder pea']);
    expect(body(view, '/all?family%5B%5D=roots')).toBe(body(view, '/all?family=roots'));
  });

  test('says how many there are of each value as the others are, those chosen left as they are', async () => {
    const { view } = await loadFiles(FILES);
    const html = body(view, '/all?ease=easy');
    const counts = [...html.matchAll(/value="(\w+)"( checked)?>.*?<span class="count">(\d+)/g)];
    expect(
      counts.map(([, value, checked, count]) => [value, count, checked !== undefined]),
    ).toEqual([
      ['legumes', '2', false],
      ['beans', '1', false],
      ['hardy', '1', false],
      ['easy', '2', true],
      ['hard', '1', false],
    ]);
    expect(html).toContain('2 found.');
    expect(html).toContain('<a href="/all">Without easy</a>');
    expect(html).toContain('Heaviest first');
  });

  test('finds words by their beginnings, accents or not, names first, and marks them', async () => {
    const { view } = await loadFiles(FILES);
    const found = body(view, '/all?q=ASH');
    expect(titles(found)).toEqual(['Ash bean', 'Bog bean']);
    expect(found).toContain('<mark>Ash</mark> bean');
    expect(found).toContain('2 found.');
    expect(titles(body(view, '/all?q=dulse'))).toEqual(['Dúlse root']);
    expect(titles(body(view, '/all?q=%22bog+bean%22'))).toEqual(['Bog bean']);
    expect(titles(body(view, '/all?q=bean+bog'))).toEqual(['Bog bean']);
    expect(titles(body(view, '/all?q=nothing+there'))).toEqual([]);
  });

  test('does not find what visitors are not to search', async () => {
    const { view } = await loadFiles(FILES);
    expect(titles(body(view, '/all?q=ashes'))).toEqual([]);
  });

  test('leads from page to page with what is wanted, and is canonically the plain list', async () => {
    const { view } = await loadFiles(FILES);
    const html = body(view, '/all?q=%20bean&order=heavy&traits=early&traits=hardy&utm=x');
    expect(html).toContain('<link rel="canonical" href="https://test.example/all">');
    const pages = body(view, '/all?order=heavy&family=roots&family=legumes');
    expect(pages).toContain('href="/all/page-2?family=legumes&amp;family=roots&amp;order=heavy"');
    expect(view.render('/all/page-2?q=carrot', at('2026-07-02'))!.status).toBe(404);
  });

  test('is led to with what is wanted', async () => {
    const { view } = await loadFiles(FILES);
    const led = view.render('/ALL/?ease=easy&utm=1&q=b%20c', at('2026-07-02'))!;
    expect([led.status, led.headers.location]).toEqual([308, '/all?ease=easy&q=b%20c']);
    expect(view.render('/all/?utm=1', at('2026-07-02'))!.headers.location).toBe('/all');
  });

  test('passes over what it does not know', async () => {
    const { view } = await loadFiles(FILES);
    const plain = body(view, '/all');
    for (const query of [
      'family=nothing',
      'q=',
      'q=%21%3F',
      'order=none',
      'utm=1',
      'constructor=1&__proto__=2',
      'ease',
      '%E0%A4%A=1',
      `q=${'x'.repeat(9000)}`,
      `${'ease=none&'.repeat(300)}`,
    ])
      expect(body(view, `/all?${query}`)).toBe(plain);
  });

  test('answers whatever is asked, and keeps few pages and no words that were searched for', async () => {
    const { view } = await loadFiles(FILES);
    const now = at('2026-07-02');
    const pages = new PublicPages(view, () => now);
    const kept = new Set<string>();
    const pair = fc.tuple(
      fc.oneof(fc.constantFrom('family', 'traits', 'ease', 'order', 'q'), fc.string()),
      fc.oneof(fc.constantFrom('beans', 'hardy', 'easy', 'heavy', 'bean'), fc.string()),
    );
    fc.assert(
      fc.property(
        fc.constantFrom('/all', '/all/page-2', '/all/page-9', '/seeds/carrot', '/'),
        fc.oneof(
          fc.array(pair, { maxLength: 6 }).map((all) => String(new URLSearchParams(all))),
          fc.string(),
        ),
        (path, query) => {
          const found = pages.find(path, `?${query}`)!;
          expect([200, 404]).toContain(found.page.status);
          const { query: read, isSearch } = view.asked(`${path}?${query}`, now);
          if (isSearch) expect(pages.known(`${path}?${read}`)).toBeUndefined();
          else if (found.page.status === 200) kept.add(`${path}?${read}`);
        },
      ),
      { numRuns: Number(process.env.LONG ?? 2000) },
    );
    // Families, traits and eases, two orders, on two pages, and three that read nothing.
    expect(kept.size).toBeLessThanOrEqual(8 * 4 * 4 * 2 * 2 + 3);
  });

  test('escapes what is searched for', async () => {
    const { view } = await loadFiles(FILES);
    const html = body(view, `/all?q=${encodeURIComponent('"><script>alert(1)</script> bean')}`);
    expect(html.match(/<script[^>]*>/g)).toEqual(['<script type="module" src="/style/page.js">']);
    expect(html).toContain('value="&quot;&gt;&lt;script&gt;');
  });

  test('searches what was public at an earlier instant as well', async () => {
    const { view } = await loadFiles({
      ...FILES,
      ...{
        'entries/seed/f.json': entry('f', 'Fen ash', [{ from: '2026-02-01', to: '2026-03-01' }]),
      },
    });
    expect(titles(body(view, '/all?q=fen', '2026-02-10'))).toEqual(['Fen ash']);
    expect(titles(body(view, '/all?q=fen', '2026-03-10'))).toEqual([]);
  });
});

test('a page for a value is narrowed and searched like the list itself', async () => {
  const all = FILES['listings/all.json'] as object;
  const { view } = await loadFiles({
    ...FILES,
    'listings/all.json': { ...all, each: { by: 'family', index: 'entries' } },
  });
  expect(titles(body(view, '/all/legumes/beans?traits=early'))).toEqual(['Bog bean']);
  expect(titles(body(view, '/all/legumes?q=pea'))).toEqual(['Elder pea']);
  expect(body(view, '/all/legumes?q=pea')).toContain('action="/all/legumes"');
});

test('a yes or no that is wanted is given back by what it is asked of', async () => {
  const seedType = FILES['types/seed.json'] as { fields: object[] };
  const all = FILES['listings/all.json'] as object;
  const { view } = await loadFiles({
    ...FILES,
    'types/seed.json': {
      ...seedType,
      fields: [...seedType.fields, { key: 'shade', kind: 'yesno' }],
    },
    'listings/all.json': { ...all, visitor: { filters: ['shade'] } },
    ...seed('f', 'Fern', { shade: true }),
  });
  const html = body(view, '/all?shade=yes');
  expect(titles(html)).toEqual(['Fern']);
  expect(html).toContain('<a href="/all">Without Shade</a>');
});

test('visitors may not do what cannot be done', async () => {
  const codes = async (visitor: object, more: object = {}): Promise<string[]> => {
    const all = FILES['listings/all.json'] as object;
    const { issues } = await loadFiles({
      ...FILES,
      'listings/all.json': { ...all, visitor, ...more },
    });
    return issues.map(({ code }) => code);
  };
  expect(await codes({ filters: ['weight'] })).toEqual(['not-narrowing']);
  expect(await codes({ filters: ['smell'] })).toEqual(['unknown-field']);
  expect(await codes({ search: ['weight'] })).toEqual(['not-searched']);
  expect(await codes({ filters: ['ease', 'ease'] })).toEqual(['named-twice']);
  expect(await codes({ orders: [{ key: 'x', sort: ['traits'] }] })).toEqual(['not-sortable']);
  expect(await codes({ orders: [{ key: 'x', sort: ['entry.place'] }] })).toEqual(['no-places']);
  expect(await codes({ search: ['title'] }, { address: undefined })).toEqual(['address-missing']);
});
