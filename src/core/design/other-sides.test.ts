import { describe, expect, test } from 'vitest';
import { designOf, typeOf, viewOf } from '../../../tests/helpers/design.ts';
import { MemoryReader } from '../../../tests/helpers/memory-reader.ts';
import { compileSite } from '../site/compile.ts';
import { render } from '../site/render.ts';

const boat = { key: 'boat', kind: 'reference', types: ['boat'], otherSide: 'Crews of it' };
const CREW = (more: object = {}, address = '/crews/{title}') =>
  typeOf('crew', [{ ...boat, ...more }], { address });
const BOAT = (seo: string, fields: object[] = []) =>
  typeOf('boat', fields, { address: '/boats/{title}', template: 'boat', seo: { title: seo } });
const templates = [
  {
    key: 'boat',
    kind: 'page',
    type: 'boat',
    blocks: [{ block: 'cards', field: 'crewsOfIt', heading: 'Crews' }],
  },
];

function page(types: object[], held: { title: string; boat: unknown; state?: string }[]) {
  const { site, issues } = compileSite(designOf({ types, templates }));
  expect(issues).toEqual([]);
  const [crews, boats] = ['crew', 'boat'].map((key) => site.types.get(key)!);
  const entries = [
    viewOf(boats!, 'swift', { title: 'Swift' }, { path: '/boats/swift' }),
    ...held.map(({ title, boat, state = 'live' }) =>
      viewOf(crews!, title, { title, boat }, { path: `/crews/${title}`, state }),
    ),
  ];
  const at = Date.parse('2026-07-01');
  const { body } = render(site, new MemoryReader(site, { entries }), { path: '/boats/swift', at });
  return {
    title: /<title>(.*)<\/title>/.exec(body)?.[1],
    cards: [...body.matchAll(/<h3><a href="(.*?)">/g)].map(([, path]) => path),
  };
}

const issuesOf = (...types: object[]) =>
  compileSite(designOf({ types, templates })).issues.map(({ code, path }) => `${code} ${path}`);

describe('the other side of a reference', () => {
  const held = [
    { title: 'a', boat: 'swift' },
    { title: 'b', boat: 'heron' },
    { title: 'c', boat: 'swift', state: 'retired' },
    { title: 'd', boat: 'swift' },
  ];

  test('is what leads there and is live, in patterns and as cards', () => {
    expect(page([CREW(), BOAT('{title}[: {crewsOfIt}]')], held)).toEqual({
      title: 'Swift: a, d',
      cards: ['/crews/a', '/crews/d'],
    });
    const many = held.map((crew) => ({ ...crew, boat: ['heron', crew.boat] }));
    expect(page([CREW({ many: true }), BOAT('{crewsOfIt.title}')], many).title).toBe('a, d');
    expect(page([CREW(), BOAT('{title}[: {crewsOfIt}]')], []).title).toBe('Swift');
  });

  test('is one entry where no two lead to the same', () => {
    const types = [CREW({ unique: true }), BOAT('{crewsOfIt.boat.title}')];
    expect(page(types, [{ title: 'a', boat: 'swift' }])).toEqual({
      title: 'Swift',
      cards: ['/crews/a'],
    });
  });

  test('is read by no address', () => {
    const address = typeOf('boat', [], { address: '/{crewsOfIt}', template: 'boat' });
    expect(issuesOf(CREW(), address)[0]).toMatch(/^not-in-address/);
  });

  test('is called like nothing else of the type', () => {
    const own = BOAT('{title}', [{ key: 'crewsOfIt', kind: 'text' }]);
    expect(issuesOf(CREW(), own)).toContain('doubled-key types/crew/fields/boat/otherKey');
    const rival = typeOf('race', [{ ...boat, key: 'winner' }]);
    expect(issuesOf(CREW(), rival, BOAT('{title}'))).toContain(
      'doubled-key types/race/fields/winner/otherKey',
    );
  });

  test('is named by the words it is called, unless another name is set', () => {
    const named = CREW({ otherKey: 'crews' });
    const reads = typeOf('boat', [], { address: '/boats/{title}', seo: { title: '{crews}' } });
    expect(page([named, reads], held.slice(0, 1)).title).toBe('a');
  });
});
