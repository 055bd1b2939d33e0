import fc from 'fast-check';
import { describe, expect, test } from 'vitest';
import type { EntryView } from '@/core/design/values.ts';
import { fanned } from '@/core/listing/fan-out.ts';
import { fanValueAt, fanValues } from '@/core/site/fan-values.ts';
import { Validity } from '@/core/time/interval.ts';
import { hasListingIndex } from '@/server/store/listing-index.ts';
import { SITE, at, loadFiles } from '../helpers/folder.ts';
import { entry } from '../helpers/notes.ts';
import { day, randomSite } from '../helpers/random-site.ts';

const FAMILIES = { beans: ['legumes', 'beans'], peas: ['legumes', 'peas'], legumes: ['legumes'] };
const MONTH = new Intl.DateTimeFormat('sv', {
  timeZone: 'Europe/Dublin',
  year: 'numeric',
  month: '2-digit',
});

/** The paths that an entry is to be found at, worked out from what it holds alone. */
const PATHS: Record<string, (entry: EntryView, growers: readonly EntryView[]) => string[]> = {
  families: ({ values }) => {
    const lies = FAMILIES[values['family'] as keyof typeof FAMILIES] ?? [];
    return lies.map((_, i) => `/families/${lies.slice(0, i + 1).join('/')}`);
  },
  growers: ({ values: { grower } }, growers) => {
    const at = growers.findIndex(({ id }) => id === grower);
    if (at < 0) return [];
    const title = growers[at]!.values['title'] as string;
    const before = growers.slice(0, at).filter(({ values }) => values['title'] === title).length;
    return [`/by/${title.toLowerCase()}${before === 0 ? '' : `-${before + 1}`}`];
  },
  writers: ({ authorId }) => (authorId ? [`/writers/${authorId.toLowerCase()}`] : []),
  days: ({ values: { starts, shade } }) => {
    if (typeof starts !== 'number' || shade === true) return [];
    const [year, month] = MONTH.format(starts).split('-');
    return [`/days/${year}`, `/days/${year}/${month}`];
  },
};

test('a page for each value has the entries that have it, at any instant, and is there while some do', async () => {
  let compared = 0;
  await fc.assert(
    fc.asyncProperty(
      randomSite,
      fc.array(day, { minLength: 3, maxLength: 3 }),
      async (files, days) => {
        const { connection, view, result } = await loadFiles(files);
        if (!result.ok) return;
        for (const instant of days.map((d) => Date.parse(d))) {
          const { site, reader } = view.at(instant)!;
          for (const [key, pathsOf] of Object.entries(PATHS)) {
            const plan = site.listings.get(key)!;
            const validity = new Validity(instant);
            const { ids } = reader.listing(plan, validity, 0, 100);
            const live = reader.liveEntries(ids, validity);
            const entries = ids.map((id) => live.get(id)!);
            const led = new Set(entries.map(({ values }) => values['grower']));
            const there = ['g0', 'g1'].filter((id) => led.has(id));
            const growers = [...reader.liveEntries(there, validity).values()];
            growers.sort((a, b) => (a.id < b.id ? -1 : 1));
            const expected = new Map<string, string[]>();
            for (const own of entries)
              for (const path of pathsOf(own, growers))
                expected.set(path, [...(expected.get(path) ?? []), own.id]);
            const out = { plan, reader, validity, language: 'en' };
            const values = fanValues(out);
            expect(values.map(({ path }) => path).toSorted()).toEqual([...expected.keys()].sort());
            for (const value of values) {
              const own = fanned(plan, value.key);
              expect(hasListingIndex(connection, own)).toBe(true);
              expect(reader.listing(own, validity, 0, 100).ids).toEqual(expected.get(value.path));
              expect(value.count).toBe(expected.get(value.path)!.length);
              expect(fanValueAt(out, value.path)).toEqual(value);
              compared += value.count;
            }
          }
        }
      },
    ),
    { numRuns: Number(process.env.LONG ?? 40) },
  );
  expect(compared).toBeGreaterThan(50);
});

const NOTES = {
  'site.yaml': SITE,
  'subjects/topics.yaml': {
    key: 'topics',
    kind: 'tree',
    subjects: [
      {
        key: 'sea',
        name: 'Sea',
        description: 'All that floats.',
        below: [{ key: 'tide', name: 'Tide' }],
      },
      { key: 'land', name: 'Land' },
    ],
  },
  'types/note.json': {
    key: 'note',
    address: '/notes/{title}',
    fields: [
      { key: 'title', kind: 'text' },
      { key: 'topic', kind: 'category', set: 'topics' },
      { key: 'mood', kind: 'choice', options: ['calm', { key: 'wild', label: 'Quite wild' }] },
      { key: 'on', kind: 'date' },
    ],
  },
  'listings/topics.json': {
    key: 'topics',
    type: 'note',
    address: '/topics',
    sort: ['title'],
    pageSize: 2,
    intro: 'Find your way.',
    each: { by: 'topic', title: 'On {value}: {value.count}' },
  },
  'listings/moods.json': { key: 'moods', type: 'note', address: '/moods', each: { by: 'mood' } },
  'listings/archive.json': {
    key: 'archive',
    type: 'note',
    address: '/archive',
    each: { by: 'on', per: 'month', intro: 'Written in {value}.' },
  },
  'entries/note.json': [
    entry('a', 'Ebb', ['2026-01-01/'], {}, { topic: 'tide', mood: 'calm', on: '2026-03-31' }),
    entry('b', 'Flow', ['2026-01-01/'], {}, { topic: 'tide', on: '2025-12-01' }),
    entry('c', 'Gull', ['2026-01-01/2026-02-01'], {}, { topic: 'sea', on: '2026-01-01' }),
    entry('d', 'Hill', ['2026-03-01/'], {}, { topic: 'land', mood: 'wild' }),
  ],
};

describe('pages for each value', () => {
  const pages = async (instant: string, files: object = {}) => {
    const { view, result } = await loadFiles({ ...NOTES, ...files });
    if (!result.ok) throw new Error(JSON.stringify(result.issues));
    return (path: string) => view.render(path, at(instant))!;
  };

  test('of categories lie within each other, counted with all below, and are left where none is', async () => {
    const early = await pages('2026-01-15');
    const index = early('/topics').body;
    expect(index).toContain('<h1>Topics</h1><p class="intro">Find your way.</p>');
    expect(index).toContain(
      '<section class="values"><ul><li><a href="/topics/sea">Sea</a> <span class="count">3</span><ul><li><a href="/topics/sea/tide">Tide</a> <span class="count">2</span></li></ul></li></ul></section>',
    );
    expect(early('/topics/land').status).toBe(404);
    const later = await pages('2026-03-15');
    expect(later('/topics/land').status).toBe(200);
    expect(later('/topics/tide').status).toBe(404);
    expect(early('/topics').validUntil).toBe(at('2026-02-01'));
  });

  test('have a name, a description, an address and pages of their own', async () => {
    const get = await pages('2026-01-15');
    const first = get('/topics/sea');
    expect(first.body).toContain('<title>On Sea: 3</title>');
    expect(first.body).toContain('<meta name="description" content="All that floats.">');
    expect(first.body).toContain('<link rel="canonical" href="https://test.example/topics/sea">');
    expect(first.body).toContain('<h1>Sea</h1><p class="intro">All that floats.</p>');
    expect(first.body).toContain('href="/topics/sea/page-2"');
    expect(first.body).toMatch(/Ebb.*Flow/s);
    expect(first.body).not.toContain('Gull');
    const second = get('/topics/sea/page-2');
    expect(second.body).toContain('<title>On Sea: 3 · page 2</title>');
    expect(second.body).toContain('Gull');
    for (const path of ['/topics/sea/page-1', '/topics/sea/page-3', '/topics/page-2'])
      expect(get(path).status).toBe(404);
    expect(get('/Topics/Sea/').headers.location).toBe('/topics/sea');
  });

  test('of a choice stand in the order of its options, those of months newest first', async () => {
    const get = await pages('2026-03-15');
    expect(get('/moods').body).toMatch(/\/moods\/calm.*\/moods\/wild">Quite wild</s);
    const archive = get('/archive').body;
    expect([...archive.matchAll(/href="(\/archive\/[^"]+)"/g)].map(([, path]) => path)).toEqual([
      '/archive/2026',
      '/archive/2026/03',
      '/archive/2025',
      '/archive/2025/12',
    ]);
    expect(get('/archive/2026/03').body).toContain('Written in March 2026.');
    for (const path of ['2026/02', '2026/3', '2026/13', '0000', '2026/03/31', '99999'])
      expect(get(`/archive/${path}`).status).toBe(404);
  });

  test('may stand beside all entries, page by page', async () => {
    const moods = { ...NOTES['listings/moods.json'], pageSize: 2 };
    const get = await pages('2026-01-15', {
      'listings/moods.json': { ...moods, each: { by: 'mood', index: 'entries' } },
    });
    const { body } = get('/moods');
    expect(body).toContain('<a href="/moods/calm">calm</a> <span class="count">1</span>');
    expect(body).toContain('href="/notes/ebb"');
    expect(get('/moods/page-2').body).toContain('href="/notes/gull"');
    expect(get('/moods/calm').body).not.toContain('href="/notes/gull"');
  });

  test('are where subjects and breadcrumbs lead', async () => {
    const blocks = [
      { block: 'breadcrumbs', field: 'topic' },
      { block: 'subjects', field: 'topic' },
    ];
    const get = await pages('2026-01-15', {
      'types/note.json': { ...NOTES['types/note.json'], template: 'note' },
      'templates/note.json': { key: 'note', kind: 'page', type: 'note', blocks },
    });
    const { body } = get('/notes/ebb');
    expect(body).toContain(
      '<ol><li><a href="/topics/sea">Sea</a></li><li><a href="/topics/sea/tide">Tide</a></li>',
    );
    expect(body).toContain('<ul><li><a href="/topics/sea/tide">Tide</a></li></ul>');
  });

  test('leave a path to the entry that stands there', async () => {
    const own = { 'entries/note.json': [...NOTES['entries/note.json'], LAND] };
    const get = await pages('2026-03-15', own);
    expect(get('/topics/land').entry).toBe('e');
    expect(get('/topics/sea').listing).toBe('topics');
  });

  test('stand in the list of all pages and in the site map', async () => {
    const { view } = await loadFiles(NOTES);
    const paths = view.pages(at('2026-01-15'))!.map(({ path, title }) => `${path} ${title}`);
    expect(paths).toContain('/topics/sea/tide On Tide: 2');
    expect(paths).toContain('/topics/sea/page-2 On Sea: 3 · page 2');
    expect(view.render('/sitemap.xml', at('2026-01-15'))!.body).toContain('/archive/2025/12<');
  });

  test.each([
    [{ by: 'title' }, 'There is no page for each Title.'],
    [{ by: 'moood' }, 'Note has no field "moood".'],
    [{ by: 'mood', per: 'year' }, 'Mood is no date: it has no years and months.'],
  ])('%j are refused: %s', async (each, message) => {
    const moods = { ...NOTES['listings/moods.json'], each };
    const { result } = await loadFiles({ ...NOTES, 'listings/moods.json': moods });
    expect(result.ok ? [] : result.issues.map((issue) => issue.message)).toEqual([message]);
  });
});

const LAND = entry('e', 'Lie of the land', ['2026-01-01/'], {
  address: [{ path: '/topics/land', from: '2026-01-01' }],
});
