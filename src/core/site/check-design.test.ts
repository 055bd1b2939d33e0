import { describe, expect, test } from 'vitest';
import { designOf, typeOf } from '../../../tests/helpers/design.ts';
import { designSpec } from '../design/spec.ts';
import { compileSite } from './compile.ts';

const found = (parts: Record<string, unknown>): string[] =>
  compileSite(designOf({ types: [typeOf('note')], ...parts })).issues.map(
    (i) => `${i.code} ${i.path}`,
  );
const listing = (more: object): object => ({ key: 'all', type: 'note', ...more });
const redirect = (from: string, to: string): object => ({ from, to });

describe('a design', () => {
  test.each<[string, Record<string, unknown>, string]>([
    ['two types of one key', { types: [typeOf('a'), typeOf('a')] }, 'doubled-key types/a'],
    [
      'two ids alike',
      { types: [typeOf('a'), typeOf('b', [], { id: 'a' })] },
      'doubled-id types/b/id',
    ],
    [
      'two fields of one key',
      { types: [typeOf('a', [{ key: 'title', kind: 'text' }])] },
      'doubled-key types/a/fields/title',
    ],
    [
      'a naming field that is not there',
      { types: [typeOf('a', [], { naming: 'x' })] },
      'unknown-name types/a/naming',
    ],
    [
      'a single type that patterns cannot tell from the site',
      { types: [typeOf('name', [], { single: true })] },
      'reserved-key types/name/key',
    ],
    [
      'a summary that is not there',
      { types: [typeOf('a', [], { summary: 'x' })] },
      'unknown-name types/a/summary',
    ],
    [
      'two trees of pages in one type',
      {
        types: [
          typeOf('a', [
            { key: 'x', kind: 'reference', sitsWithin: true },
            { key: 'y', kind: 'reference', sitsWithin: true },
          ]),
        ],
      },
      'several-within types/a/fields/y',
    ],
    [
      'retired pages that lead to no listing',
      { types: [typeOf('note', [], { retired: { listing: 'x' } })] },
      'unknown-name types/note/retired',
    ],
    [
      'retired pages that lead to a listing without an address',
      { types: [typeOf('note', [], { retired: { listing: 'all' } })], listings: [listing({})] },
      'no-address types/note/retired',
    ],
    [
      'a reference to a type that is not there',
      { types: [typeOf('a', [{ key: 'x', kind: 'reference', types: ['nobody'] }])] },
      'unknown-name types/a/fields/x',
    ],
    [
      'tags of a set that is not there',
      { types: [typeOf('a', [{ key: 'x', kind: 'tags', set: 'nothing' }])] },
      'unknown-name types/a/fields/x',
    ],
    ...(
      [
        ['limits in the wrong order', { kind: 'number', min: 3, max: 2 }, 'wrong-limits', ''],
        [
          'lengths in the wrong order',
          { kind: 'text', minLength: 3, maxLength: 2 },
          'wrong-limits',
          '',
        ],
        [
          'counts in the wrong order',
          { kind: 'text', minCount: 3, maxCount: 2 },
          'wrong-limits',
          '',
        ],
        ['a limit that is no day', { kind: 'date', earliest: 'soon' }, 'wrong-limits', ''],
        ['a default of another kind', { kind: 'number', default: 'x' }, 'wrong-value', '/default'],
        [
          'a control that does not fit',
          { kind: 'text', control: 'slider' },
          'wrong-control',
          '/control',
        ],
        [
          'a slider without an end',
          { kind: 'number', min: 0, control: 'slider' },
          'wrong-control',
          '/control',
        ],
        [
          'a field shown by itself',
          { kind: 'text', shownIf: { field: 'x' } },
          'unknown-name',
          '/shownIf',
        ],
        [
          'a field shown by none',
          { kind: 'text', shownIf: { field: 'y' } },
          'unknown-name',
          '/shownIf',
        ],
        [
          'what is required and hidden',
          { kind: 'text', required: true, hidden: true },
          'hidden-required',
          '',
        ],
      ] as const
    ).map(([name, given, code, place]): [string, Record<string, unknown>, string] => [
      name,
      { types: [typeOf('a', [{ key: 'x', ...given }])] },
      `${code} types/a/fields/x${place}`,
    ]),
    ['"/" for no listing', { site: { front: { listing: 'x' } } }, 'unknown-name site/front'],
    [
      'two listings at one address',
      { listings: [listing({ address: '/a' }), listing({ key: 'b', address: '/a' })] },
      'doubled-key listings//a',
    ],
    [
      'a listing where the site keeps a path',
      { listings: [listing({ address: '/media/x' })] },
      'reserved-address listings/all/address',
    ],
    [
      'a listing on a page of another',
      { listings: [listing({ address: '/a' }), listing({ key: 'b', address: '/a/page-2' })] },
      'reserved-address listings/b/address',
    ],
    [
      'addresses that build on each other in a circle',
      {
        types: [
          typeOf('a', [{ key: 'b', kind: 'reference', types: ['b'] }], {
            address: '[{b.path}]/{title}',
          }),
          typeOf('b', [{ key: 'a', kind: 'reference', types: ['a'] }], {
            address: '[{a.path}]/{title}',
          }),
        ],
      },
      'circular-address types/a/address',
    ],
    [
      'a share picture that is none',
      { types: [typeOf('a', [], { seo: { picture: 'title' } })] },
      'unknown-field types/a/seo/picture',
    ],
    [
      'a template of another type',
      {
        types: [typeOf('a', [], { template: 't' }), typeOf('b')],
        templates: [{ key: 't', kind: 'page', type: 'b', blocks: [] }],
      },
      'template-type types/a/template',
    ],
    [
      'a template that is not there',
      { types: [typeOf('a', [], { template: 't' })] },
      'unknown-template types/a/template',
    ],
    [
      'a frame without its slot',
      { site: { frame: 'f' }, templates: [{ key: 'f', kind: 'frame', blocks: [] }] },
      'frame-slot templates/f',
    ],
    [
      'two redirects from one path',
      { redirects: [redirect('/a', '/b'), redirect('/A/', '/c')] },
      'wrong-redirect redirects/2/from',
    ],
    [
      'a redirect from a reserved path',
      { redirects: [redirect('/build', '/b')] },
      'wrong-redirect redirects/1/from',
    ],
    [
      'a redirect from a listing',
      { listings: [listing({ address: '/a' })], redirects: [redirect('/a', '/b')] },
      'wrong-redirect redirects/1/from',
    ],
    [
      'redirects in a circle',
      { redirects: [redirect('/a', '/b'), redirect('/b', '/c'), redirect('/c', '/a')] },
      'wrong-redirect redirects/1/to',
    ],
    [
      'a redirect to itself',
      { redirects: [redirect('/a', '/A')] },
      'wrong-redirect redirects/1/to',
    ],
  ])('with %s is refused, with the place', (_, parts, expected) => {
    expect(found(parts)).toContain(expected);
  });

  test('without any of this has no issues', () => {
    const inside = { key: 'inside', kind: 'reference', types: ['b'], sitsWithin: true };
    expect(
      found({
        // Fields of two types may have one id: a page sits within its own type by its own.
        types: [
          typeOf('note', [{ key: 'inside', kind: 'text' }]),
          typeOf('b', [inside], { address: '[{within.path}]/{title}' }),
        ],
        listings: [listing({ address: '/a' })],
        redirects: [
          redirect('/b', '/a'),
          redirect('/c', '/b'),
          redirect('/d', 'mailto:a@b.example'),
        ],
      }),
    ).toEqual([]);
  });
});

describe('what a design can be', () => {
  const site = { name: 'S', url: 'https://s.example', zone: 'UTC', language: 'en' };
  const parses = (parts: object): boolean =>
    designSpec.safeParse({ site, types: [typeOf('note')], ...parts }).success;

  test.each([
    ['a path in its URL', { site: { ...site, url: 'https://s.example/blog' } }],
    ['a user in its URL', { site: { ...site, url: 'https://a@s.example' } }],
    ['a query in its URL', { site: { ...site, url: 'https://s.example/?a' } }],
    ['another scheme', { site: { ...site, url: 'ftp://s.example' } }],
    ['no such zone', { site: { ...site, zone: 'Europe/Nowhere' } }],
    ['no such language', { site: { ...site, language: 'not a tag' } }],
    ['pages that are kept too long', { site: { ...site, freshness: 61 } }],
    ['a type without fields', { types: [{ key: 'a', fields: [] }] }],
    ['301 fields', { types: [typeOf('a', fields(300))] }],
    ['a field named "within"', { types: [typeOf('a', [{ key: 'within', kind: 'text' }])] }],
    ['a field of no kind', { types: [typeOf('a', [{ key: 'x', kind: 'colour' }])] }],
    ['something unheard of', { extras: [] }],
    ['a redirect to a script', { redirects: [redirect('/a', 'javascript:alert(1)')] }],
    ['a redirect to another host by two slashes', { redirects: [redirect('/a', '//x.example')] }],
    ['a redirect that starts nowhere', { redirects: [redirect('a', '/b')] }],
  ])('not one with %s', (_, parts) => {
    expect(parses(parts)).toBe(false);
  });

  test('one with 300 fields, and a port in its URL', () => {
    expect(parses({ types: [typeOf('a', fields(299))] })).toBe(true);
    expect(parses({ site: { ...site, url: 'http://localhost:4300/' } })).toBe(true);
  });
});

function fields(count: number): object[] {
  return Array.from({ length: count }, (_, i) => ({ key: `f${i}`, kind: 'text' }));
}
