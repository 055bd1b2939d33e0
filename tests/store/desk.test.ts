import { expect, test } from 'vitest';
import { contentTable } from '@/server/queries/content.ts';
import { entry } from '../helpers/notes.ts';
import { ANN, FILES, NOW, done, ids, running, site } from '../helpers/seeds.ts';

const LATER = NOW + 3_600_000;

test('columns are chosen by each person and for each type, and go back to those of the type', async () => {
  const loaded = await site();
  const run = running(loaded);
  const bob = { ...ANN, id: 'bob' };
  const shown = (actor = ANN, type?: string): string[] =>
    contentTable(loaded.view, actor, LATER, { type })
      .columns.filter((c) => c.shown)
      .map(({ name }) => name);
  done(run('chooseColumns', { type: 'seed', columns: ['sow', '@author', 'about', 'gone'] }));
  expect(shown(ANN, 'seed')).toEqual(['sow', '@author', 'about']);
  expect([shown(bob, 'seed'), shown(ANN, 'grower'), shown()]).toEqual([['stock', 'sow'], [], []]);
  done(run('chooseColumns', { type: 'seed', columns: null }));
  expect(shown(ANN, 'seed')).toEqual(['stock', 'sow']);
});

test('filters are kept by their names, for oneself or for all, and follow a type that is renamed', async () => {
  const loaded = await site();
  const [run, bob] = [running(loaded), { ...ANN, id: 'bob', name: 'Bob' }];
  const where = { field: 'stock', op: 'more-than', value: 10 } as const;
  const mine = done(run('keepFilter', { name: 'Mine', shared: false, filters: { search: 'pea' } }));
  done(run('keepFilter', { name: 'Plenty', shared: true, filters: { type: 'seed', where } }));
  const kept = (actor = ANN) => contentTable(loaded.view, actor, LATER, {}).kept;
  expect(kept().map(({ name, by }) => [name, by])).toEqual([
    ['Mine', null],
    ['Plenty', null],
  ]);
  expect(kept(bob)).toMatchObject([
    { name: 'Plenty', by: 'Ann', filters: { type: 'seed', where: { field: 'stock' } } },
  ]);
  expect(running(loaded, bob)('dropFilter', mine)).toMatchObject({ ok: false });
  const step = { do: 'rename', part: 'types/seed', was: 'seed', now: 'variety' } as const;
  done(run('release', { edit: { steps: [step] } }));
  expect(kept(bob)[0]!.filters.type).toBe('variety');
  done(run('dropFilter', mine));
  expect(kept().map(({ name }) => name)).toEqual(['Plenty']);
});

test('entries are put in order by hand, and new ones come last', async () => {
  const loaded = await site({
    ...FILES,
    'types/seed.json': {
      key: 'seed',
      fields: [
        { key: 'title', kind: 'text' },
        { key: 'place', kind: 'number', position: true },
      ],
    },
    'entries/seed.json': ['a', 'b', 'c'].map((id, i) => entry(id, id, [], {}, { place: i + 1 })),
    'listings/in-stock.json': { key: 'in-stock', type: 'seed', address: '/in-stock' },
  });
  const run = running(loaded);
  const order = (): string[] =>
    ids(contentTable(loaded.view, ANN, LATER, { type: 'seed', sort: 'place' }).rows);
  const move = (id: string, before: string | null) =>
    run('moveEntry', { entry: id, field: 'place', before });
  done(move('c', 'a'));
  expect(order()).toEqual(['c', 'a', 'b']);
  done(move('c', 'b'));
  expect(order()).toEqual(['a', 'c', 'b']);
  done(move('a', null));
  expect(order()).toEqual(['c', 'b', 'a']);
  const { id } = done(
    run('saveEntry', { id: null, type: 'seed', values: { title: 'New' }, seen: null }),
  );
  expect(order()).toEqual(['c', 'b', 'a', id]);
  for (let i = 0; i < 60; i++) {
    const result = move(order()[2]!, order()[1]!);
    if (result.ok) continue;
    expect(result.issues[0]).toMatchObject({ code: 'no-room' });
    return;
  }
  expect.unreachable('there is no end to the numbers between two');
});
