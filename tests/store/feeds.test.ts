import { parseFeed } from 'htmlparser2';
import { expect, test } from 'vitest';
import { planListing } from '@/core/listing/planner.ts';
import { listingSpec } from '@/core/design/listing-spec.ts';
import { SITE, at, loadFiles } from '../helpers/folder.ts';
import { answer, entry, note } from '../helpers/notes.ts';

const ODD = 'Peas & <b>beans</b> \u0001 “now” 🌱';
const FILES = {
  'site.yaml': SITE,
  'types/note.json': note({
    summary: 'about',
    presets: { author: true },
    fields: [
      { key: 'title', kind: 'text' },
      { key: 'about', kind: 'paragraphs' },
      { key: 'mood', kind: 'choice', options: ['calm', 'wild'] },
    ],
  }),
  'listings/all.json': {
    key: 'all',
    label: 'All & sundry',
    type: 'note',
    address: '/all',
    sort: ['title'],
    each: { by: 'mood', index: 'entries' },
    feed: { size: 3 },
  },
  'entries/note.json': [
    entry('a', 'Alder', ['2026-01-01/'], { author: 'Ann' }, { about: 'A tree.', mood: 'calm' }),
    entry('b', ODD, ['2026-02-01/'], {}, { mood: 'calm' }),
    entry('c', 'Clover', ['2026-03-01/2026-04-01']),
    entry('d', 'Dill', ['2025-01-01/']),
  ],
};
const NOW = '2026-03-15T08:00:00Z';

async function get(path: string, instant = NOW, files: object = FILES) {
  const { view, result } = await loadFiles(files as typeof FILES);
  expect(result.ok).toBe(true);
  return view.render(path, at(instant))!;
}

test('a feed tells the newest entries as a reader of Atom understands it', async () => {
  const { headers, body, validUntil } = await get('/all/feed.atom');
  expect(headers['content-type']).toBe('application/atom+xml; charset=utf-8');
  const feed = parseFeed(body)!;
  expect(feed).toMatchObject({
    type: 'atom',
    title: 'All & sundry',
    updated: new Date('2026-03-01T00:00:00Z'),
  });
  expect(feed.items.map(({ title, link }) => [title, link])).toEqual([
    ['Clover', 'https://test.example/clover'],
    ['Peas & <b>beans</b>  “now” 🌱', 'https://test.example/peas-b-beans-b-now'],
    ['Alder', 'https://test.example/alder'],
  ]);
  expect(body).toContain('<author><name>Ann</name></author><summary>A tree.</summary>');
  expect(body).toContain(
    '<link rel="self" type="application/atom+xml" href="https://test.example/all/feed.atom"/>',
  );
  expect(body).not.toMatch(/[\u0000-\u0008]/);
  expect(validUntil).toBe(at('2026-04-01T00:00+01:00'));
});

test('it is there as JSON, too, and for each value', async () => {
  const { headers, body } = await get('/all/calm/feed.json');
  expect(headers['content-type']).toBe('application/feed+json; charset=utf-8');
  const feed = JSON.parse(body) as { items: { url: string; content_text: string }[] };
  expect(feed).toMatchObject({
    version: 'https://jsonfeed.org/version/1.1',
    title: 'calm',
    home_page_url: 'https://test.example/all/calm',
    feed_url: 'https://test.example/all/calm/feed.json',
  });
  expect(feed.items.map(({ url }) => url)).toEqual([
    'https://test.example/peas-b-beans-b-now',
    'https://test.example/alder',
  ]);
  expect(feed.items[1]).toMatchObject({ content_text: 'A tree.', authors: [{ name: 'Ann' }] });
});

test('pages say where their feeds are; others have none', async () => {
  const { body } = await get('/all/calm');
  expect(body).toContain('type="application/feed+json" title="calm" href="/all/calm/feed.json">');
  expect((await get('/alder')).body).not.toContain('rel="alternate"');
  for (const path of ['/feed.atom', '/all/wild/feed.atom', '/all/feed.rss', '/alder/feed.json'])
    expect((await get(path)).status).toBe(404);
});

test('what names an entry stays, whatever it is called and wherever it stands', async () => {
  const idsOf = async (files: object): Promise<(string | undefined)[]> =>
    parseFeed((await get('/all/feed.atom', NOW, files)).body)!.items.map(({ id }) => id);
  const [, first, ...rest] = FILES['entries/note.json'];
  const renamed = { ...first, title: 'Otherwise' };
  const files = {
    ...FILES,
    'entries/note.json': [FILES['entries/note.json'][0], renamed, ...rest],
  };
  const ids = await idsOf(FILES);
  expect(new Set(ids).size).toBe(3);
  for (const id of ids)
    expect(id).toMatch(/^urn:uuid:[0-9a-f-]{14}8[0-9a-f]{3}-[89ab][0-9a-f-]{16}$/);
  expect(await idsOf(files)).toEqual(ids);
});

test('no entry stands where a feed is', async () => {
  const types = { 'types/note.json': note({ address: '/all/{title}.atom' }) };
  const { view } = await loadFiles({
    ...FILES,
    ...types,
    'listings/all.json': { ...FILES['listings/all.json'], each: undefined },
    'entries/note.json': [entry('f', 'feed', ['2026-01-01/'])],
  });
  expect(answer(view, '/all/feed.atom', NOW)).toBe('200');
  expect(view.render('/all/feed.atom', at(NOW))!.kind).toBe('file');
});

test('a listing without an address has no feed', async () => {
  const { view } = await loadFiles(FILES);
  const spec = listingSpec.parse({ key: 'x', type: 'note', feed: {} });
  const { issues } = planListing(spec, view.at(at(NOW))!.site.design);
  expect(issues).toMatchObject([{ code: 'address-missing', path: 'feed' }]);
});
