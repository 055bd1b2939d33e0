import { describe, expect, test } from 'vitest';
import { designOf, typeOf, viewOf } from '../../../tests/helpers/design.ts';
import { MemoryReader } from '../../../tests/helpers/memory-reader.ts';
import type { Block } from '../design/block.ts';
import type { EntryView, Values } from '../design/values.ts';
import { compileSite } from '../site/compile.ts';
import { type RenderedPage, render } from '../site/render.ts';

const FIELDS = [
  { key: 'stock', kind: 'number' },
  { key: 'sow', kind: 'date' },
  { key: 'starts', kind: 'datetime' },
  { key: 'friend', kind: 'reference', types: ['note'] },
  { key: 'friends', kind: 'reference', types: ['note'], many: true, otherSide: 'liked by' },
  { key: 'marks', kind: 'tags', set: 'marks' },
  { key: 'names', kind: 'text', many: true },
  {
    key: 'crew',
    kind: 'group',
    many: true,
    fields: [
      { key: 'name', kind: 'text' },
      { key: 'boss', kind: 'reference', types: ['note'] },
      { key: 'ports', kind: 'text', many: true },
    ],
  },
];
const NOON = Date.parse('2026-06-15T12:00:00Z');

interface Site {
  blocks?: Block[];
  frame?: Block[];
  entries: Values[];
}

/** A site of notes n0, n1, …, each at a path of its name, that are drawn by the blocks. */
function siteOf({ blocks = [], frame = [], entries }: Site) {
  const type = typeOf('note', FIELDS, { address: '/{title}', template: 't' });
  const templates = [
    { key: 't', kind: 'page', type: 'note', blocks },
    { key: 'bare', kind: 'frame', blocks: [{ block: 'slot', slot: 'main' }, ...frame] },
  ];
  const listings = [
    { key: 'all', type: 'note', address: '/all', sort: ['title'], pageSize: 2 },
    {
      key: 'many',
      type: 'note',
      sort: ['title'],
      where: { field: 'stock', op: 'more-than', value: 1 },
    },
  ];
  const sets = [{ key: 'marks', kind: 'tags' }];
  const { site, issues } = compileSite(
    designOf({ types: [type], templates, listings, subjectSets: sets, site: { frame: 'bare' } }),
  );
  const note = site.types.get('note')!;
  const views = entries.map((v, i): EntryView => viewOf(note, `n${i}`, v, { path: `/n${i}` }));
  const reader = new MemoryReader(site, { entries: views });
  return { site, issues, reader };
}

function page(given: Site, path = '/n0', at = NOON): RenderedPage {
  const { site, issues, reader } = siteOf(given);
  expect(issues).toEqual([]);
  return render(site, reader, { path, at });
}
const bodyOf = ({ body }: RenderedPage): string => /<\/a>(.*)<\/body>/s.exec(body)![1]!;
const shown = (given: Site, path?: string, at?: number): string => bodyOf(page(given, path, at));
const says = (text: string): Block => ({ block: 'text', text });
const when = (how: object): Block => ({
  block: 'condition',
  ...how,
  blocks: [says('Yes')],
  otherwise: [says('No')],
});

describe('a condition', () => {
  test.each([
    ['filled', { field: 'stock', op: 'not-blank' }, { stock: 0 }, 'Yes'],
    ['not filled', { field: 'stock', op: 'not-blank' }, {}, 'No'],
    [
      'equal, whatever the case',
      { field: 'title', op: 'is', value: 'PEA' },
      { title: 'Pea' },
      'Yes',
    ],
    ['before today', { field: 'sow', op: 'before', value: 'today' }, { sow: '2026-06-14' }, 'Yes'],
    ['today', { field: 'sow', op: 'before', value: 'today' }, { sow: '2026-06-15' }, 'No'],
    ['a reference that is live', { field: 'friend', op: 'not-blank' }, { friend: 'n0' }, 'Yes'],
    ['a reference to nothing', { field: 'friend', op: 'not-blank' }, { friend: 'gone' }, 'No'],
    ['none of nothing', { none: [] }, {}, 'Yes'],
  ])('of the entry: %s', (_, where, values, expected) => {
    const html = shown({ blocks: [when({ where })], entries: [values as Values] });
    expect(html).toContain(`<p>${expected}</p>`);
  });

  test('that asks of today ends at midnight, one that asks of now when a value is come to', () => {
    const today = when({ where: { field: 'sow', op: 'before', value: 'today' } });
    const midnight = Date.parse('2026-06-15T23:00:00Z'); // of Dublin, in summer
    expect(page({ blocks: [today], entries: [{ sow: '2026-01-01' }] }).validUntil).toBe(midnight);
    const soon = when({ where: { field: 'starts', op: 'on-or-before', value: 'now + PT1H' } });
    const given = { blocks: [soon], entries: [{ starts: NOON + 5_400_000 }] };
    const until = page(given).validUntil!;
    expect(until).toBe(NOON + 1_800_000);
    expect(
      [shown(given, '/n0', until - 1), shown(given, '/n0', until)].map((h) => h.includes('Yes')),
    ).toEqual([false, true]);
  });

  test('of instants holds from the first on and up to the second', () => {
    const given = {
      blocks: [when({ from: '2026-06-15T13:00', until: '2026-06-16' })],
      entries: [{}],
    };
    const edges = ['2026-06-15T11:59:59.999Z', '2026-06-15T12:00Z', '2026-06-15T23:00Z'];
    const pages = edges.map((at) => page(given, '/n0', Date.parse(at)));
    expect(pages.map(({ body }) => body.includes('Yes'))).toEqual([false, true, false]);
    expect(pages.map(({ validUntil }) => validUntil)).toEqual([
      Date.parse('2026-06-15T12:00Z'),
      Date.parse('2026-06-15T23:00Z'),
      null,
    ]);
  });

  test.each([
    ['/n0', { page: ['entry'] }, true],
    ['/all', { page: ['entry'] }, false],
    ['/all', { page: ['listing'] }, true],
    ['/all/page-2', { page: ['listing'] }, false],
    ['/all/page-2', { page: ['further'] }, true],
    ['/nothing-here', { page: ['other'] }, true],
    ['/', { page: ['front'] }, true],
    ['/all/page-2', { path: '/all' }, true],
    ['/all', { path: '/al' }, false],
    ['/n0', { path: '/' }, true],
    ['/nothing-here', { path: '/nothing-here' }, false],
    ['/n0', { page: ['entry'], path: '/all' }, false],
  ])('in the frame, at %s, of %j: %s', (path, how, expected) => {
    const given = { frame: [when(how)], entries: [{ title: 'A' }, { title: 'B' }, { title: 'C' }] };
    expect(shown(given, path)).toContain(expected ? '<p>Yes</p>' : '<p>No</p>');
  });

  test.each([
    [{ where: { field: 'smell', op: 'blank' } }, 'unknown-field', 'blocks/1/where/field'],
    [{ where: { field: 'stock', op: 'before', value: 1 } }, 'wrong-operator', 'blocks/1/where/op'],
    [{ where: { field: 'title', op: 'blank' }, of: 'item' }, 'no-entry', 'blocks/1/where'],
    [{ from: 'soon' }, 'wrong-value', 'blocks/1/from'],
    [{ path: 'all' }, 'wrong-form', 'blocks/1/path'],
  ])('that cannot be asked says what is wrong: %j', (how, code, path) => {
    const { issues } = siteOf({ blocks: [when(how)], entries: [] });
    expect(issues).toMatchObject([{ code, path: `templates/t/${path}` }]);
  });
});

describe('a repetition', () => {
  const each = (over: string, blocks: Block[], more: object = {}): Block => ({
    block: 'repeat',
    over,
    blocks,
    ...more,
  });

  test('over plain values draws each of them, escaped, up to its limit', () => {
    const blocks = [each('names', [says('{item}')], { as: 'plain', limit: 2 })];
    expect(shown({ blocks, entries: [{ names: ['<A>', 'B', 'C'] }] })).toContain(
      '<section class="repeat"><p>&lt;A&gt;</p><p>B</p></section>',
    );
  });

  test('leaves no trace of items that give nothing, nor of itself without any', () => {
    const blocks = [each('names', [says('{item}')]), each('crew', [says('{item.name}')])];
    expect(shown({ blocks, entries: [{ names: [], crew: [{}, { name: 'Bo' }] }] })).toContain(
      '<main id="content"><section class="repeat"><ul><li><p>Bo</p></li></ul></section></main>',
    );
  });

  test('over entries binds fields of each, within it further ones, and reads the page still', () => {
    const inner = each('item.friends', [says('{item.title} of {title}')]);
    const blocks = [each('friends', [{ block: 'number', field: 'item.stock' }, inner])];
    const entries = [
      { title: 'A', friends: ['n1', 'n2'] },
      { title: 'B', stock: 7, friends: ['n2'] },
      { title: 'C' },
    ];
    expect(shown({ blocks, entries })).toContain(
      '<li><p class="number"><data value="7">7</data></p><section class="repeat"><ul><li><p>C of A</p></li></ul></section></li></ul>',
    );
  });

  test('over what leads here draws who does', () => {
    const blocks = [each('likedBy', [says('{item.title}'), { block: 'date', field: 'item.sow' }])];
    const entries = [{ title: 'A' }, { title: 'B', friends: ['n0'], sow: '2026-03-09' }];
    expect(shown({ blocks, entries })).toContain(
      '<p>B</p><p class="date"><time datetime="2026-03-09"',
    );
  });

  test.each([
    ['title', 'wrong-kind'],
    ['smell', 'unknown-name'],
  ])('over "%s", of which there are no several, says so', (over, code) => {
    const { issues } = siteOf({ blocks: [each(over, [])], entries: [] });
    expect(issues).toMatchObject([{ code, path: 'templates/t/blocks/1/over' }]);
  });

  test('has its item within it alone', () => {
    const { issues } = siteOf({ blocks: [each('names', []), says('{item}')], entries: [] });
    expect(issues).toMatchObject([{ code: 'unknown-name', path: 'templates/t/blocks/2/text' }]);
  });
});

describe('a field over a reference', () => {
  test('is drawn of the entry that the reference leads to, and is nothing without one', () => {
    const blocks = [{ block: 'number', field: 'friend.friend.stock' }];
    const entries = [{ friend: 'n1' }, { friend: 'n2' }, { stock: 3 }];
    expect(shown({ blocks, entries })).toContain('<data value="3">3</data>');
    expect(shown({ blocks, entries }, '/n1')).toContain('<main id="content"></main>');
  });

  test.each([
    ['friends.stock', 'wrong-kind'],
    ['friend.smell', 'unknown-field'],
    ['friend', 'wrong-kind'],
    ['item.stock', 'unknown-field'],
  ])('that cannot be come at says so: %s', (field, code) => {
    const { issues } = siteOf({ blocks: [{ block: 'number', field }], entries: [] });
    expect(issues).toMatchObject([{ code, path: 'templates/t/blocks/1/field' }]);
  });
});

describe('previous and next', () => {
  const blocks = [{ block: 'beside', listing: 'many' }];
  const entries = [
    { title: 'B', stock: 2 },
    { title: 'A', stock: 2 },
    { title: 'C', stock: 0 },
    { title: 'D', stock: 9 },
  ];
  const led = (path: string): string[] =>
    [...shown({ blocks, entries }, path).matchAll(/href="([^"]*)" rel="(\w+)"/g)].map(
      ([, to, rel]) => `${rel} ${to}`,
    );

  test('lead to the neighbours in the order of the listing', () => {
    expect(led('/n0')).toEqual(['prev /n1', 'next /n3']);
    expect(led('/n1')).toEqual(['next /n0']);
    expect(led('/n3')).toEqual(['prev /n0']);
  });

  test('are nothing for an entry that is not in it', () => {
    expect(led('/n2')).toEqual([]);
  });
});
