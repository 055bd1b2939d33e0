import { describe, expect, test } from 'vitest';
import { designOf, typeOf, viewOf } from '../../../tests/helpers/design.ts';
import { type Held, MemoryReader } from '../../../tests/helpers/memory-reader.ts';
import type { Values } from '../design/values.ts';
import { compileSite } from './compile.ts';
import { cacheControl, render, trace } from './render.ts';

const AT = Date.parse('2026-07-01T12:00:00Z');
const design = designOf({
  types: [typeOf('note', [{ key: 'about', kind: 'richtext' }], { address: '/{title}' })],
  listings: [
    { key: 'all', label: 'All notes', type: 'note', address: '/all', pageSize: 2, sort: ['title'] },
    { key: 'hidden', type: 'note', address: '/hidden', seo: { index: false } },
  ],
  redirects: [
    { from: '/old', to: '/pea' },
    { from: '/out', to: 'https://other.example/x', status: 302 },
  ],
});

function siteOf(
  held: Partial<Held> & { titles?: string[] } = {},
  of = design,
): (path: string) => ReturnType<typeof render> {
  const { site, issues } = compileSite(of);
  expect(issues).toEqual([]);
  const type = site.types.get('note')!;
  const note = (title: string, values: Values = {}) =>
    viewOf(type, title, { title, ...values }, { path: `/${title.toLowerCase()}` });
  const entries = [...(held.titles ?? ['Pea', 'Bean', 'Kale']).map((t) => note(t))];
  const reader = new MemoryReader(site, { entries, ...held });
  return (path) => render(site, reader, { path, at: AT });
}

describe('a path', () => {
  const answer = siteOf({ former: { '/peas': 'Pea', '/gone': 'Nobody' } });
  const outcome = (path: string): string => {
    const { status, headers, kind } = answer(path);
    return `${status} ${headers.location ?? kind}`;
  };

  test.each([
    ['/pea', '200 entry'],
    ['/PEA/', '308 /pea'],
    ['//pea', '308 /pea'],
    ['/p%65a', '308 /pea'],
    ['/all', '200 listing'],
    ['/all/page-2', '200 listing'],
    ['/all/page-1', '404 missing'],
    ['/all/page-02', '404 missing'],
    ['/all/page-3', '404 missing'],
    ['/', '200 front'],
    ['/page-2', '404 missing'],
    ['/peas', '308 /pea'],
    ['/gone', '410 gone'],
    ['/old', '308 /pea'],
    ['/out', '302 https://other.example/x'],
    ['/nothing', '404 missing'],
    ['/NOTHING', '404 missing'],
    ['/robots.txt', '200 file'],
    ['/sitemap.xml', '200 file'],
    ['/sitemap-7.xml', '404 missing'],
    ['/media/none.png', '404 missing'],
    ['/build', '404 missing'],
    ['/build-log', '404 missing'],
    ['/a/../pea', '400 bad'],
    ['/%00', '400 bad'],
    ['/%ff', '400 bad'],
    ['pea', '400 bad'],
  ])('%s answers %s', (path, expected) => {
    expect(outcome(path)).toBe(expected);
  });

  test('is answered by a live page before a redirect by hand', () => {
    expect(siteOf({ titles: ['Old'] })('/old').kind).toBe('entry');
  });

  test('that is one of a page that says there is nothing leads on to the front page and listings', () => {
    const { body } = answer('/nothing');
    expect(body).toContain('<a href="/all">All notes</a>');
    expect(body).not.toContain('href="/hidden"');
  });
});

describe('what is chosen for "/"', () => {
  test('as a listing stands there alone, and its further pages below', () => {
    const of = designOf({ ...design, site: { ...design.site, front: { listing: 'all' } } });
    const answer = siteOf({}, of);
    expect(answer('/').listing).toBe('all');
    expect(answer('/').meta!.canonical).toBe('https://seeds.example/');
    expect(answer('/page-2').page).toBe(2);
    expect(answer('/all').headers.location).toBe('/');
    expect(answer('/all/page-2').headers.location).toBe('/page-2');
    expect(answer('/all/page-9').status).toBe(404);
    expect(answer('/all').status).toBe(308);
  });

  test('as an entry that is not live leaves the list of newest pages there', () => {
    const of = designOf({ ...design, site: { ...design.site, front: { entry: 'Home' } } });
    expect(siteOf({}, of)('/').kind).toBe('front');
  });
});

describe('a page', () => {
  test('says where it stands, what it is called, and when it changed', () => {
    const { body, meta, changed, headers } = siteOf()('/pea');
    expect(meta).toMatchObject({
      title: 'Pea',
      canonical: 'https://seeds.example/pea',
      index: true,
      follow: true,
    });
    expect(body).toMatch(/^<!DOCTYPE html>\n<html lang="en">/);
    expect(body).toContain('<title>Pea</title>');
    expect(changed).toBe(Date.parse('2026-01-01T00:00:00Z'));
    expect(headers['content-type']).toBe('text/html; charset=utf-8');
  });

  test('has nothing of a value that could be markup', () => {
    const { body } = siteOf({ titles: ['<script>x</script>"&'] })(
      '/%3cscript%3ex%3c%2fscript%3e%22&',
    );
    expect(body).not.toContain('<script>');
  });

  test('of a listing has its number in the title, and is its own canonical', () => {
    expect(siteOf()('/all/page-2').meta).toMatchObject({
      title: 'All notes · page 2',
      canonical: 'https://seeds.example/all/page-2',
    });
  });

  test('of an empty listing answers 200 and says so', () => {
    const page = siteOf({ titles: [] })('/all');
    expect(page.status).toBe(200);
    expect(page.body).toContain('Nothing here at the moment.');
  });

  test('is the same whenever it is asked for', () => {
    expect(siteOf()('/all')).toEqual(siteOf()('/all'));
  });
});

describe('a trace', () => {
  const { site } = compileSite(design);
  const steps = (path: string, held: Partial<Held> = {}): [string, boolean][] =>
    trace(site, new MemoryReader(site, { entries: [], ...held }), { path, at: AT }).steps.map(
      ({ step, matched }) => [step, matched],
    );

  test('ends with the step that decides, and names those before', () => {
    expect(steps('/all')).toEqual([
      ['normal form', false],
      ['reserved', false],
      ['listing', true],
    ]);
  });

  test('has one step that decides, also where the path is in no normal form', () => {
    for (const path of ['/ALL', '/nothing', '/old', '/', '/build', '/a/../b'])
      expect([path, steps(path).filter(([, matched]) => matched).length]).toEqual([
        path,
        path === '/nothing' ? 0 : 1,
      ]);
    expect(steps('/ALL')[0]).toEqual(['normal form', true]);
  });
});

describe('how long a page may be reused', () => {
  test.each([
    [0, null, 'public, max-age=0, must-revalidate'],
    [60, null, 'public, max-age=60'],
    [60, AT + 10_900, 'public, max-age=10'],
    [60, AT + 999, 'public, max-age=0, must-revalidate'],
    [60, AT - 5000, 'public, max-age=0, must-revalidate'],
  ])('with freshness %i and an end at %s is "%s"', (freshness, until, expected) => {
    expect(cacheControl(freshness, until, AT)).toBe(expected);
  });
});
