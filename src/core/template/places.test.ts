import { describe, expect, test } from 'vitest';
import { designOf, typeOf, viewOf } from '../../../tests/helpers/design.ts';
import { MemoryReader } from '../../../tests/helpers/memory-reader.ts';
import { type CompiledSite, compileSite } from '../site/compile.ts';
import type { SiteReader } from '../site/reader.ts';
import { render } from '../site/render.ts';
import { compileTemplates } from './compile.ts';
import type { Place } from './places.ts';

const AT = Date.parse('2026-07-01T12:00:00Z');
const design = designOf({
  types: [
    typeOf('boat', [{ key: 'about', kind: 'paragraphs' }], {
      address: '/{title}',
      template: 'boat-page',
    }),
    typeOf('race', [
      {
        key: 'boats',
        kind: 'reference',
        types: ['boat'],
        many: true,
        otherKey: 'races',
        otherSide: 'races',
      },
    ]),
  ],
  listings: [{ key: 'all', type: 'boat', address: '/all' }],
  templates: [
    {
      key: 'boat-page',
      kind: 'page',
      type: 'boat',
      blocks: [
        { block: 'heading', text: '{title}', level: 1 },
        { block: 'text', text: 'About {title}' },
        { block: 'text', text: '{about}' },
        { block: 'fieldSheet', fields: ['about'] },
        { block: 'cards', field: 'races' },
        { block: 'listing', listing: 'all' },
      ],
    },
  ],
});
const { site } = compileSite(design);
const [boat, race] = ['boat', 'race'].map((id) => site.types.get(id)!);
const reader = new MemoryReader(site, {
  entries: [
    viewOf(boat!, 'Heron', { title: 'Heron', about: 'Quick -- and dry' }, { path: '/heron' }),
    viewOf(race!, 'Regatta', { title: 'Regatta', boats: ['Heron'] }, { path: null }),
  ],
});
const placed = {
  ...site,
  templates: compileTemplates(design, site.environments, 'places').templates,
};

const placesOf = (path: string): Place[] => placesIn(placed, reader, path);

/** The places of a page, in their order. */
function placesIn(of: CompiledSite, read: SiteReader, path: string): Place[] {
  const { body } = render(of, read, { path, at: AT });
  return [...body.matchAll(/<!--place ([^>]*?)-->/g)].map(
    ([, name]) => JSON.parse(decodeURIComponent(name!)) as Place,
  );
}

describe('what can be edited on a page', () => {
  test('is each text that is one field, each card and each list, by what they are of', () => {
    expect(placesOf('/heron')).toEqual([
      { of: 'text', entry: 'Heron', field: 'title' },
      { of: 'text', entry: 'Heron', field: 'about' },
      { of: 'leading', entry: 'Heron', field: 'boats', type: 'race' },
      { of: 'entry', entry: 'Regatta', name: 'Regatta' },
      { of: 'text', entry: 'Regatta', field: 'title' },
      { of: 'listing', listing: 'all', type: 'boat' },
      { of: 'entry', entry: 'Heron', name: 'Heron' },
      { of: 'text', entry: 'Heron', field: 'title' },
    ]);
  });

  test('leaves the page as it is but for comments, and public pages without any', () => {
    const marked = render(placed, reader, { path: '/heron', at: AT }).body;
    const plain = render(site, reader, { path: '/heron', at: AT }).body;
    expect(plain).not.toContain('<!--');
    expect(marked.replaceAll(/<!--.*?-->/g, '')).toBe(plain);
  });
});

test('nothing is offered within a part of a text: it is edited in that', () => {
  const note = typeOf('note', [{ key: 'body', kind: 'richtext' }], { address: '/{title}' });
  const tip = typeOf('tip', [], { card: 'tip-card' });
  const blocks = [{ block: 'text', text: '{title}' }];
  const templates = [{ key: 'tip-card', kind: 'card', type: 'tip', blocks }];
  const of = designOf({ types: [note, tip], templates });
  const whole = compileSite(of).site;
  const attrs = { type: 'tip', values: { title: 'Soak first' } };
  const body = { type: 'doc', content: [{ type: 'part', attrs }] };
  const entry = viewOf(whole.types.get('note')!, 'N', { title: 'N', body }, { path: '/n' });
  const { templates: marked } = compileTemplates(of, whole.environments, 'places');
  const site = { ...whole, templates: marked };
  const html = render(site, new MemoryReader(site, { entries: [entry] }), { path: '/n', at: AT });
  expect(html.body).toContain('<div class="part"><p>Soak first</p></div>');
});

describe('a card’s heading', () => {
  const headings = (path: string): string[] =>
    [...render(site, reader, { path, at: AT }).body.matchAll(/<h3[^>]*>/g)].map(([tag]) => tag);

  test('counts one level higher on the pages of its own listing, and looks the same', () => {
    expect(headings('/all')).toEqual(['<h3 aria-level="2">']);
  });

  test('is as it is where it stands on other pages', () => {
    expect(headings('/heron')).toEqual(['<h3>', '<h3>']);
  });
});

test('a site without a frame of its own has a menu of its listings, the page at hand marked', () => {
  const { body } = render(site, reader, { path: '/all', at: AT });
  expect(body).toMatch(/<nav class="menu"[^>]*><ul><li><a href="\/all" aria-current="page">/);
});

test('a list says whose page it stands on where it compares with that, and which value’s', () => {
  const race = typeOf('race', [{ key: 'boat', kind: 'reference', types: ['boat'] }]);
  const where = { field: 'boat', op: 'is', value: { page: 'entry' } };
  const listings = [
    { key: 'sailed', type: 'race', where },
    { key: 'by-boat', type: 'race', address: '/by', each: { by: 'boat' } },
  ];
  const blocks = [{ block: 'listing', listing: 'sailed' }];
  const templates = [{ key: 'boat-page', kind: 'page', type: 'boat', blocks }];
  const type = typeOf('boat', [], { address: '/{title}', template: 'boat-page' });
  const of = designOf({ types: [type, race], listings, templates });
  const whole = compileSite(of).site;
  const [boats, races] = ['boat', 'race'].map((id) => whole.types.get(id)!);
  const entries = [
    viewOf(boats!, 'H-1', { title: 'Heron' }, { path: '/heron' }),
    viewOf(races!, 'Cup', { title: 'Cup', boat: 'H-1' }, { path: null }),
  ];
  const { templates: marked } = compileTemplates(of, whole.environments, 'places');
  const listOf = (path: string): Place | undefined =>
    placesIn({ ...whole, templates: marked }, new MemoryReader(whole, { entries }), path).find(
      (place) => place.of === 'listing',
    );
  const there = { of: 'listing', type: 'race' };
  expect(listOf('/heron')).toEqual({ ...there, listing: 'sailed', on: 'H-1' });
  expect(listOf('/by/heron')).toEqual({ ...there, listing: 'by-boat', each: 'H-1' });
});
