import fc from 'fast-check';
import { describe, expect, test } from 'vitest';
import { designOf, typeOf } from '../../../tests/helpers/design.ts';
import { compileSite } from '../site/compile.ts';
import { checkByHand, isReserved, normalisePath, pagePath, splitPageNumber } from './path.ts';
import { typesToDealAnew } from './rules.ts';
import { MAX_NUMBER, lowestFree, notToBeDealt, numbered } from './taken.ts';

describe('the normal form of a path', () => {
  test.each([
    ['/', '/'],
    ['/A/B/', '/a/b'],
    ['//a///b', '/a/b'],
    ['/caf%C3%A9', '/café'],
    ['/cafe%CC%81', '/café'],
    ['/a%2Fb', '/a/b'],
    ['/a.b', '/a.b'],
  ])('of %s is %s', (raw, path) => {
    expect(normalisePath(raw)).toEqual({ ok: true, path, changed: path !== raw });
  });

  test.each(['a', '', '/../a', '/a/./b', '/a/%2e%2e/b', '/%', '/%ff', '/%00', '/a\\b', '/\u007f'])(
    '%j has none',
    (raw) => {
      expect(normalisePath(raw).ok).toBe(false);
    },
  );

  test('is its own normal form', () => {
    fc.assert(
      fc.property(fc.string({ unit: 'grapheme' }), (text) => {
        const normal = normalisePath(`/${text}`);
        if (!normal.ok || normal.path.includes('%')) return;
        expect(normalisePath(normal.path)).toEqual({ ...normal, changed: false });
      }),
    );
  });

  test('is not looked for in what is too long', () => {
    expect(normalisePath(`/${'a'.repeat(3072)}`).ok).toBe(false);
  });
});

describe('what the site keeps for itself', () => {
  test.each([
    '/build',
    '/build/x',
    '/api',
    '/media/a',
    '/style',
    '/_next/x',
    '/.well-known/security.txt',
    '/robots.txt',
    '/sitemap.xml',
    '/sitemap-12.xml',
    '/favicon.ico',
  ])('%s', (path) => {
    expect(isReserved(path)).toBe(true);
  });

  test.each(['/', '/build-log', '/a/build', '/sitemap-x.xml', '/apis', '/sitemap.xml.gz'])(
    'not %s',
    (path) => {
      expect(isReserved(path)).toBe(false);
    },
  );
});

describe('the pages of a listing', () => {
  test('stand below it, the first without a number', () => {
    expect(pagePath('/all', 1)).toBe('/all');
    expect(pagePath('/all', 2)).toBe('/all/page-2');
    expect(pagePath('/', 2)).toBe('/page-2');
    expect(splitPageNumber('/all/page-2')).toEqual({ address: '/all', number: 2 });
    expect(splitPageNumber('/page-2')).toEqual({ address: '/', number: 2 });
    expect(splitPageNumber('/all/page-x')).toBeNull();
    expect(splitPageNumber('/page-2/x')).toBeNull();
  });

  test('and back', () => {
    fc.assert(
      fc.property(fc.constantFrom('/', '/a', '/a/b'), fc.integer({ min: 2, max: 9e8 }), (a, n) => {
        expect(splitPageNumber(pagePath(a, n))).toEqual({ address: a, number: n });
      }),
    );
  });
});

test.each([
  ['/a/b-c.d_e~f', true],
  ['/', false],
  ['a', false],
  ['', false],
  ['/A', false],
  ['/a/', false],
  ['/a//b', false],
  ['/a b', false],
  ['/é', false],
  ['/../a', false],
  [`/${'a'.repeat(1023)}`, true],
  [`/${'a'.repeat(1024)}`, false],
])('an address by hand may be %j: %s', (path, expected) => {
  expect(checkByHand(path) === null).toBe(expected);
});

describe('numbers', () => {
  const { site } = compileSite(
    designOf({
      types: [typeOf('note', [], { address: '/{title}' })],
      listings: [{ key: 'all', type: 'note', address: '/all' }],
    }),
  );
  const isTaken = (taken: string[]) => (path: string) =>
    taken.includes(path) || notToBeDealt(site.addresses, path) !== null;

  test.each([
    ['/pea', [], 1],
    ['/pea', ['/pea'], 2],
    ['/pea', ['/pea', '/pea-3'], 2],
    ['/all', [], 2],
    ['/build', [], 2],
    ['/all/page-4', [], 2],
    ['/media/pea', [], null],
  ])('of %s beside %j is %s', (base, taken, n) => {
    expect(lowestFree(base, 1, isTaken(taken))).toBe(n);
  });

  test('end at a bound', () => {
    let asked = 0;
    expect(lowestFree('/pea', 1, () => (asked++, true))).toBeNull();
    expect(asked).toBe(MAX_NUMBER);
    expect(numbered('/pea', 1)).toBe('/pea');
    expect(numbered('/pea', 2)).toBe('/pea-2');
  });
});

describe('a design that takes the place of another deals anew the addresses of', () => {
  const base = {
    types: [
      typeOf('note', [{ key: 'by', kind: 'reference', types: ['person'] }], {
        address: '/{by.title}/{title}',
      }),
      typeOf('person', [], { address: '/people/{title}' }),
    ],
    listings: [{ key: 'all', type: 'note', address: '/all' }],
  };
  const [note, person] = base.types as [object, object];
  const rules = (parts: object) => compileSite(designOf({ ...base, ...parts })).site.addresses;
  const anew = (parts: object): string[] => [...typesToDealAnew(rules({}), rules(parts))];

  test.each<[string, object, string[]]>([
    ['nobody where nothing changed', {}, []],
    ['nobody for a description', { types: [{ ...note, description: 'D' }, person] }, []],
    ['nobody for SEO', { types: [{ ...note, seo: { title: '{title}' } }, person] }, []],
    [
      'nobody for what retired pages answer',
      { types: [note, { ...person, retired: { path: '/over' } }] },
      [],
    ],
    ['one type for its pattern', { types: [{ ...note, address: '/{title}' }, person] }, ['note']],
    ['one type for clashes', { types: [note, { ...person, clash: 'refuse' }] }, ['person']],
    [
      'nobody for what forms have of a field, or for a field that no address reads',
      {
        types: [
          note,
          typeOf('person', [{ key: 'age', kind: 'number' }], {
            ...person,
            fields: [
              { key: 'age', kind: 'number' },
              { key: 'title', kind: 'text', label: 'Name', required: true, unique: true },
            ],
          }),
        ],
      },
      [],
    ],
    [
      'nobody for a key, where the pattern follows',
      {
        types: [
          note,
          {
            key: 'person',
            address: '/people/{name}',
            naming: 'name',
            fields: [{ id: 'title', key: 'name', kind: 'text' }],
          },
        ].map((type, i) => (i === 0 ? { ...type, address: '/{by.name}/{title}' } : type)),
      },
      [],
    ],
    [
      'whoever reads a field that holds something else',
      {
        types: [
          note,
          { key: 'person', address: '/people/{title}', fields: [{ key: 'title', kind: 'number' }] },
        ],
      },
      ['person'],
    ],
    ['nobody for the name of the site', { site: { name: 'Other' } }, []],
    ['all for the language', { site: { language: 'de' } }, ['note', 'person']],
    ['all for what is chosen for "/"', { site: { front: { entry: 'x' } } }, ['note', 'person']],
  ])('%s', (_, parts, expected) => {
    expect(anew(parts)).toEqual(expected);
  });
});
