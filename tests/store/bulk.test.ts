import { describe, expect, test } from 'vitest';
import type { CommandInput } from '@/server/commands/index.ts';
import { contentTable } from '@/server/queries/content.ts';
import { NotPermitted } from '@/server/permit.ts';
import { entryDetail } from '@/server/queries/entry.ts';
import { derivedRows } from '../helpers/snapshot.ts';
import { entry } from '../helpers/notes.ts';
import { ANN, FILES, NOW, done, ids, running, site } from '../helpers/seeds.ts';

const HOUR = 3_600_000;
type Input = CommandInput<'changeEntries'>;

/** A site on which things are done to many entries. */
async function lived(files = FILES) {
  const loaded = await site(files);
  const run = running(loaded);
  const at = NOW + HOUR;
  const change = (what: Input['what'], which: Input['which'], dry = false) =>
    done(run('changeEntries', { what, which, dry }));
  const state = (id: string): string =>
    contentTable(loaded.view, ANN, at, {}).rows.find((row) => row.id === id)!.state;
  const value = (id: string, field: string): unknown =>
    entryDetail(loaded.view, ANN, id, at, at)!.values[field];
  return { ...loaded, run, at, change, state, value };
}

describe('doing something to many entries', () => {
  test('publishes those that can be, and tells the others by their reasons', async () => {
    const nameless = entry('blank', '', [], {});
    const { change, state } = await lived({
      ...FILES,
      'entries/seed.json': [...(FILES['entries/seed.json'] as object[]), nameless],
    });
    const all = { ids: ['draft', 'late', 'blank', 'pea', 'kale'] };
    const { count, done: did, same, refused } = change({ do: 'publish', at: null }, all);
    expect([count, did, same]).toEqual([5, 3, 1]);
    expect(refused).toEqual([
      {
        count: 1,
        message: expect.stringContaining('Title'),
        fix: expect.any(String),
        entries: [{ id: 'blank', name: 'blank' }],
      },
    ]);
    expect(['draft', 'late', 'kale', 'blank'].map(state)).toEqual([
      'live',
      'live',
      'live',
      'draft',
    ]);
  });

  test('those that would take each other’s addresses are left out, the rest is done', async () => {
    const twins = ['one', 'two', 'three'].map((id) =>
      entry(id, id === 'three' ? 'Own' : 'Twin', []),
    );
    const { change, state } = await lived({
      ...FILES,
      'types/seed.json': { ...(FILES['types/seed.json'] as object), clash: 'refuse' },
      'entries/seed.json': twins,
    });
    const { done: did, refused } = change(
      { do: 'publish', at: null },
      { ids: ['one', 'two', 'three'] },
    );
    expect([did, refused.map(({ count }) => count)]).toEqual([2, [1]]);
    expect(['one', 'two', 'three'].map(state).sort()).toEqual(['draft', 'live', 'live']);
  });

  test('only said, it leaves no trace, and says what would come of it', async () => {
    const { change, connection } = await lived();
    const before = derivedRows(connection);
    const { done: would, change: kept } = change(
      { do: 'retire', at: null },
      { ids: ['pea', 'lost'] },
      true,
    );
    expect([would, kept]).toEqual([1, null]);
    expect(derivedRows(connection)).toEqual(before);
  });

  test('to all that match: refused where others match by then', async () => {
    const { run, change, at, value } = await lived();
    const filters = {
      type: 'seed',
      where: { field: 'stock', op: 'more-than' as const, value: 10 },
    };
    const late = run('changeEntries', {
      what: { do: 'setValue', field: 'stock', value: 5 },
      which: { filters, at, count: 7 },
    });
    expect(late).toMatchObject({ ok: false, issues: [{ code: 'others-match' }] });
    const { done: did } = change(
      { do: 'setValue', field: 'stock', value: '5' },
      { filters, at, count: 3 },
    );
    expect(did).toBe(3);
    expect(['kale', 'bean', 'pea'].map((id) => value(id, 'stock'))).toEqual([5, 5, 9]);
  });

  test('to all that match: refused where a condition cannot be read, which would match all', async () => {
    const { run, at } = await lived();
    const filters = { type: 'seed', where: { field: 'gone', op: 'is' as const, value: 1 } };
    const result = run('changeEntries', { what: { do: 'remove' }, which: { filters, at } });
    expect(result).toMatchObject({ ok: false, issues: [{ code: 'unknown-field' }] });
  });

  test('needs the right to do it, entry by entry', async () => {
    const loaded = await site();
    const visitor = running(loaded, { ...ANN, role: 'visitor' });
    const what = { do: 'remove' } as const;
    expect(() => visitor('changeEntries', { what, which: { ids: ['pea'] } })).toThrow(NotPermitted);
  });
});

describe('taken back', () => {
  test.each<[string, Input['what'], string[]]>([
    ['a publication', { do: 'publish', at: null }, ['draft', 'late', 'kale']],
    ['a planned publication', { do: 'publish', at: '2026-08-01T09:00' }, ['draft', 'late']],
    ['a retirement', { do: 'retire', at: null }, ['pea', 'bean', 'ecole']],
    ['a planned retirement', { do: 'retire', at: '2026-07-02T09:00' }, ['pea', 'ecole']],
    ['a value', { do: 'setValue', field: 'stock', value: 3 }, ['pea', 'draft', 'bean']],
    [
      'a value taken away',
      { do: 'setValue', field: 'stock', value: null },
      ['pea', 'draft', 'bean'],
    ],
    ['another author', { do: 'give', author: 'ann' }, ['pea', 'kale']],
    ['a deletion', { do: 'remove' }, ['pea', 'draft', 'kale']],
  ])('%s is as it was', async (_, what, which) => {
    const { run, change, view, connection } = await lived();
    done(run('saveEntry', { id: null, type: 'grower', values: { title: 'Ann' }, seen: null }));
    const seen = (): unknown =>
      [1, 40].map((days) => [
        view.pages(NOW + days * 24 * HOUR),
        contentTable(view, ANN, NOW + days * 24 * HOUR, { sort: '@name' }).rows.map(
          // What was public for a moment has been so.
          ({ id, state, cells }) => [id, state === 'retired' ? 'draft' : state, cells],
        ),
        connection.driver.prepare('SELECT id, author FROM entry ORDER BY id').all(),
        which.map((id) => entryDetail(view, ANN, id, NOW + HOUR, NOW + HOUR)?.values),
      ]);
    const before = seen();
    const { change: kept, done: did } = change(what, { ids: which });
    expect(did).toBeGreaterThan(0);
    expect(seen()).not.toEqual(before);
    const undone = done(run('undoChange', { change: kept! }));
    expect([undone.done, undone.refused]).toEqual([did, []]);
    expect(seen()).toEqual(before);
    expect(run('undoChange', { change: kept! }).ok).toBe(false);
  });

  test('what somebody has saved since stays', async () => {
    const { run, change, value } = await lived();
    const { change: kept } = change(
      { do: 'setValue', field: 'stock', value: 3 },
      { ids: ['pea', 'kale'] },
    );
    const values = { title: 'Pea', stock: 77 };
    done(run('saveEntry', { id: 'pea', type: 'seed', values, seen: 2 }));
    expect(done(run('undoChange', { change: kept! }))).toMatchObject({ done: 1, same: 1 });
    expect(['pea', 'kale'].map((id) => value(id, 'stock'))).toEqual([77, 20]);
  });
});

test('subjects are added and taken away, each once', async () => {
  const loaded = await site({
    ...FILES,
    'subjects/looks.json': {
      key: 'looks',
      kind: 'tags',
      subjects: [
        { key: 'tall', name: 'Tall' },
        { key: 'red', name: 'Red' },
      ],
    },
    'types/seed.json': {
      key: 'seed',
      fields: [
        { key: 'title', kind: 'text' },
        { key: 'tags', kind: 'tags', set: 'looks' },
      ],
    },
    'entries/seed.json': [
      entry('one', 'One', [], {}, { tags: ['tall'] }),
      entry('two', 'Two', [], {}),
    ],
    'listings/in-stock.json': { key: 'in-stock', type: 'seed', address: '/in-stock' },
  });
  const run = running(loaded);
  const tags = (id: string): unknown =>
    entryDetail(loaded.view, ANN, id, NOW + HOUR, NOW + HOUR)!.values.tags;
  const change = (what: Input['what']) =>
    done(run('changeEntries', { what, which: { ids: ['one', 'two'] } }));
  expect(change({ do: 'addSubject', field: 'tags', key: 'tall' })).toMatchObject({
    done: 1,
    same: 1,
  });
  expect(change({ do: 'addSubject', field: 'tags', key: 'red' })).toMatchObject({ done: 2 });
  expect(change({ do: 'takeSubject', field: 'tags', key: 'tall' })).toMatchObject({ done: 2 });
  expect([tags('one'), tags('two')]).toEqual([['red'], ['red']]);
  const unknown = change({ do: 'addSubject', field: 'tags', key: 'none' });
  expect(unknown.refused[0]).toMatchObject({ count: 2, message: expect.stringContaining('none') });
  expect(ids(contentTable(loaded.view, ANN, NOW + HOUR, { type: 'seed' }).rows)).toHaveLength(2);
});
