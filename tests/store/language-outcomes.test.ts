import { describe, expect, test } from 'vitest';
import type { Seeing } from '@/server/queries/clock.ts';
import { contentTable } from '@/server/queries/content.ts';
import { listingOutcome } from '@/server/queries/listing.ts';
import { templateOutcome } from '@/server/queries/template-outcome.ts';
import { typeOutcome } from '@/server/queries/type.ts';
import { viewedPage } from '@/server/queries/view-page.ts';
import type { TestSite } from '../helpers/folder.ts';
import { GERMAN, run, site, wall } from '../helpers/german-site.ts';
import { ANN } from '../helpers/seeds.ts';

const looking = (language: string | null, seeing: Seeing = 'published') => ({
  ...{ at: wall, past: false, seeing, language },
});
const HEADING = { id: 'b1', block: 'heading', text: 'Of {title}', level: 1 };
const WITH_PAGE = {
  'templates/seed-page.json': {
    ...{ key: 'seed-page', kind: 'page', type: 'seed' },
    blocks: [HEADING, { block: 'link', to: '/all', text: 'All' }],
  },
  'languages/de.json': {
    ...GERMAN,
    texts: { ...GERMAN.texts, 'templates/seed-page/blocks/b1': { text: 'Von {title}' } },
  },
};

describe('what a design gives is seen in the language that is looked at', () => {
  const page = (
    { view }: TestSite,
    specimen: string,
    { language, seeing, text }: { language: string | null; seeing?: Seeing; text?: string },
  ): string => {
    const part = 'templates/seed-page/blocks/b1';
    const set = { do: 'set', part, property: 'text', was: HEADING.text, now: text! } as const;
    const steps = text === undefined ? [] : [set];
    const input = { id: 'seed-page', steps, specimen };
    const { html, issues } = templateOutcome(view, ANN, input, looking(language, seeing))!;
    expect(issues).toEqual([]);
    return html!.replaceAll(/<!--.*?-->/g, '');
  };

  test('a template: its words, those of the entry, and where its links lead', async () => {
    const s = await site(WITH_PAGE);
    expect(page(s, 'pea', { language: null })).toContain('<h1>Of Pea</h1>');
    const german = page(s, 'pea', { language: 'de' });
    expect(german).toContain('<h1>Von Erbse</h1>');
    expect(german).toContain('<a href="/de/alle">All</a>');
    expect(german).toMatch(/<html[^>]* lang="de"/);
    expect(page(s, 'bean', { language: 'de' })).toContain('<h1>Von Bean</h1>');
    expect(page(s, 'pea', { language: 'fr' })).toContain('<h1>Of Pea</h1>');
  });

  test('a template with unsaved words, where the language says nothing in their place', async () => {
    const s = await site({ ...WITH_PAGE, 'languages/de.json': GERMAN });
    const text = 'About {title}';
    expect(page(s, 'pea', { language: 'de', text })).toContain('<h1>About Erbse</h1>');
    const said = await site(WITH_PAGE);
    expect(page(said, 'pea', { language: 'de', text })).toContain('<h1>Von Erbse</h1>');
  });

  test('an entry with a draft: as the language has it, else the site’s own', async () => {
    const s = await site(WITH_PAGE);
    const said = { entry: 'pea', language: 'de', values: { title: 'Perle' }, seen: 1 };
    expect(run(s, 'saveWords', said)).toMatchObject({ ok: true });
    const own = { id: 'bean', type: 'seed', values: { title: 'Broad bean' }, seen: 1 };
    expect(run(s, 'saveEntry', own)).toMatchObject({ ok: true });
    const draft = (id: string): string => page(s, id, { language: 'de', seeing: 'bench' });
    expect(draft('pea')).toContain('<h1>Von Perle</h1>');
    expect(draft('bean')).toContain('<h1>Von Broad bean</h1>');
    expect(page(s, 'pea', { language: 'de' })).toContain('<h1>Von Erbse</h1>');
  });

  test('a type: its page and where that stands; its own address stays', async () => {
    const { view } = await site();
    const input = { id: 'seed', steps: [], specimen: 'pea' };
    const own = typeOutcome(view, ANN, input, looking(null))!;
    const german = typeOutcome(view, ANN, input, looking('de'))!;
    expect(german).toMatchObject({
      path: '/seeds/pea',
      shownAt: '/de/sorten/erbse',
      title: 'Erbse',
    });
    expect(own).toMatchObject({ path: '/seeds/pea', shownAt: '/seeds/pea', title: 'Pea' });
    expect(german.elsewhere).toEqual(own.elsewhere);
  });
});

describe('a listing in the language that is looked at', () => {
  const outcome = async (language: string | null, more: object = {}) => {
    const { view } = await site({ 'languages/de.json': { ...GERMAN, ...more } });
    return listingOutcome(view, ANN, { id: 'all', steps: [], find: '' }, looking(language))!;
  };

  test('has the entries by their names and addresses there, and its page', async () => {
    const { entries, page } = await outcome('de');
    expect(entries.map(({ name, path }) => [name, path])).toEqual([
      ['Bean', '/de/sorten/bean'],
      ['Erbse', '/de/sorten/erbse'],
    ]);
    expect(page!.html).toContain('<h1>Alle</h1>');
  });

  test('says who is left out since they say nothing in it', async () => {
    const { entries, leftOut } = await outcome('de', { fallback: false });
    expect(entries.map(({ id }) => id)).toEqual(['pea']);
    expect(leftOut).toMatchObject([{ id: 'bean', reasons: [{ words: 'not in Deutsch' }] }]);
    expect((await outcome(null, { fallback: false })).leftOut).toEqual([]);
  });
});

test('a page of a language is looked at in it, and its texts are filled in in it', async () => {
  const seed = {
    ...WITH_PAGE['templates/seed-page.json'],
    blocks: [{ ...HEADING, text: '{title}' }],
  };
  const { view } = await site({
    ...WITH_PAGE,
    'templates/seed-page.json': seed,
    'languages/de.json': GERMAN,
  });
  const places = (path: string): unknown => {
    const { html, ...page } = viewedPage(view, ANN, path, looking(null))!;
    const place = /<!--place (\S*)--><h1>(.*)<\/h1>/.exec(html)!;
    return [page.status, page.language, place[2], JSON.parse(decodeURIComponent(place[1]!))];
  };
  const title = view
    .at(wall)!
    .site.types.get('seed')!
    .fields.find(({ key }) => key === 'title')!.id;
  expect(places('/seeds/pea')).toEqual([
    200,
    null,
    'Pea',
    { of: 'text', entry: 'pea', field: title },
  ]);
  const filled = { of: 'field', entry: 'pea', key: 'title', language: 'de' };
  expect(places('/de/sorten/erbse')).toEqual([200, 'de', 'Erbse', filled]);
});

test('content tells of each language whether an entry is public in words of its own', async () => {
  const s = await site();
  const said = { entry: 'bean', language: 'de', values: { title: 'Bohne' }, seen: 1 };
  const lives = (): unknown[] =>
    contentTable(s.view, ANN, wall, { type: 'seed', sort: '@name' }).rows.map((row) => [
      row.id,
      row.elsewhere.map(({ language, spans, isWritten }) => [language, spans.length, isWritten]),
    ]);
  expect(lives()).toEqual([
    ['bean', [['Deutsch', 0, false]]],
    ['pea', [['Deutsch', 1, true]]],
  ]);
  expect(run(s, 'saveWords', said)).toMatchObject({ ok: true });
  expect(lives()[0]).toEqual(['bean', [['Deutsch', 0, true]]]);
});
