import { describe, expect, test } from 'vitest';
import { Validity } from '@/core/time/interval.ts';
import type { SiteView } from '@/server/queries/site-view.ts';
import { type Files, at, loadFiles } from '../helpers/folder.ts';
import { entry } from '../helpers/notes.ts';
import { ANN } from '../helpers/seeds.ts';
import { listingOutcome } from '@/server/queries/listing.ts';

const always = [{ from: '2026-01-01', to: null }];
const type = (key: string, ...fields: object[]): object => ({
  key,
  address: `/${key}/{name}`,
  fields: [{ key: 'name', kind: 'text' }, ...fields],
});
const SITE_OF_THREE: Files = {
  'types/walk.json': type('walk', { key: 'length', kind: 'number' }),
  'types/talk.json': type('talk', { key: 'length', kind: 'number' }, { key: 'hall', kind: 'text' }),
  'types/place.json': {
    key: 'place',
    naming: 'called',
    fields: [
      { key: 'called', kind: 'text' },
      { key: 'length', kind: 'text' },
    ],
  },
  ...Object.fromEntries(
    [
      ['walk', 'w1', 'Bog walk', { length: 3 }],
      ['walk', 'w2', 'Early walk', {}],
      ['talk', 't1', 'Clay', { length: 2, hall: 'Barn' }],
      ['talk', 't2', 'Dew', { length: 9 }],
    ].map(([kind, id, name, more]) => [
      `entries/${String(kind)}/${String(id)}.json`,
      { ...entry(String(id), '', always), title: undefined, name, ...(more as object) },
    ]),
  ),
  'entries/place/p1.json': { ...entry('p1', '', always), title: undefined, called: 'Alder pool' },
  'picks/sunday.json': {
    key: 'sunday',
    members: [
      't2',
      { entry: 'w1', to: '2026-08-01' },
      { entry: 'p1', from: '2026-07-15' },
      { entry: 't1' },
    ].map((member) => (typeof member === 'string' ? { entry: member } : member)),
  },
};

const listed = (view: SiteView, key: string, when = '2026-07-02'): string[] => {
  const { site, reader } = view.at(at(when))!;
  return reader.listing(site.listings.get(key)!, new Validity(at(when)), 0, 100).ids;
};
const load = (listing: object, more: Files = {}) =>
  loadFiles({ ...SITE_OF_THREE, ...more, 'listings/list.json': { key: 'list', ...listing } });

describe('a listing of several types', () => {
  test('has the entries of all of them in one order, by their names whatever these are called', async () => {
    const { view } = await load({ type: 'walk', also: ['talk', 'place'], sort: ['entry.name'] });
    expect(listed(view, 'list')).toEqual(['p1', 'w1', 't1', 't2', 'w2']);
  });

  test('takes what a type does not have as blank', async () => {
    const where = { field: 'hall', op: 'is-not', value: 'Barn' };
    const { view } = await load({ type: 'walk', also: ['talk'], where, sort: ['-length'] });
    expect(listed(view, 'list')).toEqual(['t2', 'w1', 'w2']);
    const filled = await load({
      ...{ type: 'walk', also: ['talk'] },
      where: { field: 'hall', op: 'not-blank' },
    });
    expect(listed(filled.view, 'list')).toEqual(['t1']);
  });

  test('draws each entry by the card of its type, a card of one type those of that type', async () => {
    const card = (key: string, of: string, text: string): object => ({
      ...{ key, kind: 'card', type: of, blocks: [{ block: 'text', text }] },
    });
    const talk = SITE_OF_THREE['types/talk.json'] as object;
    const { view } = await load(
      { type: 'walk', also: ['talk'], card: 'path', address: '/all', sort: ['entry.name'] },
      {
        'templates/path.json': card('path', 'walk', 'Walk: {name}'),
        'templates/said.json': card('said', 'talk', 'Talk: {name}'),
        'types/talk.json': { ...talk, card: 'said' },
      },
    );
    const { body } = view.render('/all', at('2026-07-02'))!;
    expect([...body.matchAll(/(?:Walk|Talk): [\w ]+/g)].map(([text]) => text)).toEqual([
      'Walk: Bog walk',
      'Talk: Clay',
      'Talk: Dew',
      'Walk: Early walk',
    ]);
  });

  test('pins entries of any of its types', async () => {
    const { view } = await load({
      ...{
        type: 'walk',
        also: ['talk'],
        address: '/all',
        sort: ['entry.name'],
        pins: ['t2', 'p1'],
      },
    });
    const { body } = view.render('/all', at('2026-07-02'))!;
    expect(body.indexOf('Dew')).toBeLessThan(body.indexOf('Bog walk'));
    expect(body).not.toContain('Alder pool');
  });

  test('is refused over fields that are not alike, types that are not there, or there twice', async () => {
    const codes = async (listing: object): Promise<string[]> =>
      (await load(listing)).issues.map(({ code, path }) => `${code} ${path}`);
    expect(await codes({ type: 'walk', also: ['place'], sort: ['length'] })).toEqual([
      'types-differ listings/list.json',
    ]);
    expect(await codes({ type: 'walk', also: ['plaice'] })).toEqual([
      'unknown-name listings/list.json',
    ]);
    expect(await codes({ type: 'walk', also: ['walk'] })).toEqual([
      'named-twice listings/list.json',
    ]);
    expect(await codes({ type: 'walk', also: ['talk'], sort: ['weight'] })).toEqual([
      'unknown-field listings/list.json',
    ]);
  });
});

describe('a listing of picks', () => {
  const sunday = {
    ...{ type: 'walk', also: ['talk', 'place'], sort: ['entry.place'], address: '/sunday' },
    where: { field: 'entry.picks', op: 'is', value: 'sunday' },
  };

  test('has them in the order in which they are picked, each while it stands there', async () => {
    const { view } = await load(sunday);
    expect(listed(view, 'list')).toEqual(['t2', 'w1', 't1']);
    expect(listed(view, 'list', '2026-07-20')).toEqual(['t2', 'w1', 'p1', 't1']);
    expect(listed(view, 'list', '2026-08-02')).toEqual(['t2', 'p1', 't1']);
  });

  test('holds until somebody comes to them or goes', async () => {
    const { view } = await load(sunday);
    const until = view.render('/sunday', at('2026-07-02'))!.validUntil;
    expect(until).toBe(Date.parse('2026-07-14T23:00:00Z'));
  });

  test('lets further conditions in', async () => {
    const both = { all: [sunday.where, { field: 'length', op: 'more-than', value: 2 }] };
    const { view } = await load({ ...sunday, also: ['talk'], where: both });
    expect(listed(view, 'list')).toEqual(['t2', 'w1']);
    const none = { none: [sunday.where] };
    const { view: others } = await load({ ...sunday, where: none, sort: ['entry.name'] });
    expect(listed(others, 'list')).toEqual(['p1', 'w2']);
  });

  test('is refused for picks that are not there, and for an order without them', async () => {
    const unknown = { ...sunday, where: { ...sunday.where, value: 'sundae' } };
    expect((await load(unknown)).issues).toMatchObject([
      { code: 'unknown-name', fix: expect.stringContaining('sunday') as string },
    ]);
    expect((await load({ ...sunday, where: undefined })).issues).toMatchObject([
      { code: 'no-places' },
    ]);
  });
});

test('a listing names entries one by one, and has them in that order', async () => {
  const where = { field: 'entry', op: 'any-of', value: ['t1', 'gone', 'w2', 't1'] };
  const { view } = await load({ type: 'walk', also: ['talk'], where, sort: ['-entry.place'] });
  expect(listed(view, 'list')).toEqual(['w2', 't1']);
});

describe('a listing that is cut off', () => {
  test('has its pages of what is left, and says of the others that it is their place', async () => {
    const { view } = await load({
      ...{ type: 'walk', also: ['talk'], sort: ['entry.name'] },
      ...{ skip: 1, most: 2, pageSize: 1, address: '/cut' },
    });
    const answer = (path: string) => view.render(path, at('2026-07-02'))!;
    expect(answer('/cut').body).toContain('Clay');
    expect(answer('/cut/page-2').body).toContain('Dew');
    expect([answer('/cut').status, answer('/cut/page-3').status]).toEqual([200, 404]);
    const listing = view.at(at('2026-07-02'))!.site.design.listings[0]!;
    const looking = { at: at('2026-07-02'), past: false, seeing: 'published' as const };
    const outcome = listingOutcome(view, ANN, { id: listing.id, steps: [], find: '' }, looking)!;
    expect(outcome.leftOut.map(({ name, reasons }) => [name, reasons[0]!.words])).toEqual([
      ['Bog walk', 'its place: the first 1 are left out, it has 2 at most'],
      ['Early walk', 'its place: the first 1 are left out, it has 2 at most'],
    ]);
  });

  test('makes no other lists of itself', async () => {
    const { result } = await load({ type: 'walk', most: 2, address: '/cut', feed: {} });
    expect(result.ok ? [] : result.issues.map(({ code }) => code)).toEqual(['not-whole']);
  });
});

test('a listing stands inside one entry’s text, as a part whose card has it', async () => {
  const { view, result } = await load(
    { type: 'walk', sort: ['name'] },
    {
      'types/note.json': type('note', { key: 'body', kind: 'richtext' }),
      'types/shelf.json': {
        ...{ key: 'shelf', card: 'shelf' },
        fields: [{ key: 'name', kind: 'text' }],
      },
      'templates/shelf.json': {
        ...{ key: 'shelf', kind: 'card', type: 'shelf' },
        blocks: [{ block: 'listing', listing: 'list', heading: 'Walks' }],
      },
      'entries/note/n1.json': {
        ...{ ...entry('n1', '', always), title: undefined, name: 'Out' },
        body: 'Before.\n\n:::part[shelf]{name="Now"}\n:::\n\nAfter.',
      },
    },
  );
  expect(result.ok ? [] : result.issues).toEqual([]);
  const { body } = view.render('/note/out', at('2026-07-02'))!;
  const [before, walks, after] = ['Before.', 'Bog walk', 'After.'].map((words) =>
    body.indexOf(words),
  );
  expect(before).toBeGreaterThan(0);
  expect(before! < walks! && walks! < after!).toBe(true);
});
