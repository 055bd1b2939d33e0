import { describe, expect, test } from 'vitest';
import { contentTable } from '@/server/queries/content.ts';
import { entryDetail, newEntry } from '@/server/queries/entry.ts';
import { starterDetail, starters } from '@/server/queries/starters.ts';
import { mediaFound, mediumDetail } from '@/server/queries/media.ts';
import { mediaFilters } from '@/core/content/media-filters.ts';
import type { TestSite } from '../helpers/folder.ts';
import { ANN, FILES, NOW, done, running, site } from '../helpers/seeds.ts';

const SEEDS = {
  ...FILES,
  'types/seed.json': {
    key: 'seed',
    label: 'Seed',
    plural: 'Seeds',
    address: '/seeds/{title}',
    fields: [
      { key: 'title', kind: 'text', required: true },
      { key: 'code', kind: 'text', unique: true },
      { key: 'stock', kind: 'number', required: true },
      { key: 'sow', kind: 'date', default: 'today' },
      { key: 'friend', kind: 'reference', types: ['seed', 'grower'] },
      { key: 'photo', kind: 'media' },
    ],
  },
  'listings/in-stock.json': { key: 'in-stock', type: 'seed', address: '/in-stock' },
  'media/pea.svg': '<svg xmlns="http://www.w3.org/2000/svg" width="4" height="2"/>',
  'entries/seed.json': [
    {
      entry: { id: 'pea', created: '2026-01-01', live: ['2026-01-01/'], presets: { author: true } },
      ...{ title: 'Pea', code: 'P1', stock: 9, friend: 'ines', photo: 'pea.svg' },
    },
  ],
};

/** A site with what its commands and forms speak of. */
async function seeds() {
  const loaded = await site(SEEDS);
  expect(loaded.issues).toEqual([]);
  const type = loaded.view.at(NOW)!.site.typesByKey.get('seed')!;
  const idOf = (key: string): string => type.fields.find((f) => f.key === key)!.id;
  return { loaded, run: running(loaded), type, idOf };
}

const begun = ({ view }: TestSite, starter: string) =>
  newEntry(view, ANN, 'seed', NOW, { starter })!;

describe('a starter', () => {
  test('is made of an entry in one go, without what no two may have', async () => {
    const { loaded, run, type, idOf } = await seeds();
    const made = done(run('makeStarter', { entry: 'pea' }));
    expect(made.name).toBe('Pea');
    expect(done(run('makeStarter', { entry: 'pea' })).name).toBe('Pea 2');
    expect(starters(loaded.view, type.id)).toMatchObject([{ name: 'Pea' }, { name: 'Pea 2' }]);
    const { values, like } = begun(loaded, made.id);
    expect(like).toMatchObject({ name: 'Pea' });
    expect(values).toMatchObject({
      [idOf('title')]: 'Pea',
      [idOf('stock')]: 9,
      [idOf('friend')]: 'ines',
      _presets: { author: true },
    });
    expect(values[idOf('code')]).toBeNull();
  });

  test('may leave open what is required, and lets defaults in', async () => {
    const { loaded, run, type, idOf } = await seeds();
    const values = { [idOf('title')]: null, [idOf('stock')]: 3 };
    const saving = { id: null, type: type.id, name: 'Few', values, seen: null };
    const { id } = done(run('saveStarter', saving));
    const now = begun(loaded, id).values;
    expect(now).toMatchObject({ [idOf('title')]: null, [idOf('stock')]: 3 });
    expect(now[idOf('sow')]).toBe('2026-07-01');
    const detail = starterDetail(loaded.view, ANN, { id }, NOW)!;
    expect(detail.values[idOf('sow')]).toBeNull();
    expect(detail.type.fields.filter((f) => f.required)).toEqual([]);
    expect(detail.type.fields.map((f) => f.key)).not.toContain('code');
  });

  test('is no entry: nothing lists, counts or shows it', async () => {
    const { loaded, run } = await seeds();
    const before = contentTable(loaded.view, ANN, NOW, {}).total;
    const { id } = done(run('makeStarter', { entry: 'pea' }));
    expect(contentTable(loaded.view, ANN, NOW + 1e7, {}).total).toBe(before);
    expect(entryDetail(loaded.view, ANN, id, NOW + 1e7, NOW + 1e7)).toBeNull();
    const plan = { entry: id, action: 'publish', at: null, revision: null } as const;
    expect(run('planChange', plan)).toMatchObject({ ok: false });
    const { counts } = contentTable(loaded.view, ANN, NOW, {});
    expect(counts.find((c) => c.type === 'seed')!.starters).toMatchObject([{ id, name: 'Pea' }]);
  });

  test('that is changed leaves what was begun from it as it is', async () => {
    const { loaded, run, type, idOf } = await seeds();
    const { id, at } = done(run('makeStarter', { entry: 'pea' }));
    const { values } = begun(loaded, id);
    const made = done(run('saveEntry', { id: null, type: type.id, values, seen: null }));
    const other = { [idOf('title')]: 'Bean', [idOf('stock')]: 1 };
    const saving = { id, type: type.id, name: 'Beans', values: other, seen: at };
    done(run('saveStarter', saving));
    const later = NOW + 1e7;
    const detail = entryDetail(loaded.view, ANN, made.id, later, later)!;
    expect(detail.values[idOf('title')]).toBe('Pea');
    expect(begun(loaded, id).values[idOf('title')]).toBe('Bean');
  });

  test('saved by somebody else meanwhile is not written over unseen', async () => {
    const { run, type, idOf } = await seeds();
    const { id, at } = done(run('makeStarter', { entry: 'pea' }));
    const values = { [idOf('stock')]: 1 };
    const saving = { id, type: type.id, name: 'Mine', values };
    done(run('saveStarter', { ...saving, seen: at }));
    expect(run('saveStarter', { ...saving, seen: at })).toMatchObject({
      issues: [{ code: 'newer-starter' }],
    });
    done(run('saveStarter', { ...saving, seen: null }));
  });

  test('keeps its pictures used, and is made again after it was deleted', async () => {
    const { loaded, run } = await seeds();
    const filters = mediaFilters.parse({ lacking: 'use' });
    const unused = (): string[] =>
      mediaFound(loaded.view, ANN, { at: null, from: 0, filters }).lines.map(({ id }) => id);
    const { id } = done(run('makeStarter', { entry: 'pea' }));
    done(run('deleteEntry', { entry: 'pea' }));
    expect(unused()).toEqual([]);
    const { use } = mediumDetail(loaded.view, ANN, 'pea.svg', null)!;
    expect(use).toMatchObject({ total: 0, starters: [{ id, name: 'Pea' }] });
    const held = done(run('deleteStarter', { id }));
    expect(unused()).toEqual(['pea.svg']);
    expect(run('deleteStarter', { id })).toMatchObject({ ok: false });
    const { type, name, values } = held;
    const again = done(run('saveStarter', { id: null, type, name, values, seen: null }));
    expect(starterDetail(loaded.view, ANN, again, NOW)!.values).toMatchObject(values);
    const taken = { id: null, type, name, values, seen: null };
    expect(run('saveStarter', taken)).toMatchObject({ issues: [{ code: 'name-taken' }] });
  });
});

test('starters stand in the folder, and what they point at has to be there', async () => {
  const starter = { starter: { name: 'Blue' }, stock: 4 };
  const loaded = await site({ ...SEEDS, 'starters/seed/blue.yaml': starter });
  expect(loaded.issues).toEqual([]);
  expect(begun(loaded, 'blue').like).toMatchObject({ name: 'Blue' });
  const wrong = await site({
    ...SEEDS,
    'starters/seed/a.yaml': { starter: { name: 'A' }, friend: 'nobody' },
    'starters/seed/b.yaml': { starter: { name: 'B', id: 'a' } },
    'starters/seed/c.yaml': { starter: {}, stock: 4 },
    'starters/none/d.yaml': { starter: { name: 'D' } },
    'starters/seed/e.yaml': { starter: { name: 'E', saved: 'soon' }, stok: 4 },
  });
  const found = wrong.issues.map(({ code, path }) => `${code} ${path}`);
  expect(found.sort()).toEqual([
    'doubled-id starters/seed/b.yaml',
    'unknown-entry starters/seed/a.yaml',
    'unknown-field starters/seed/e.yaml',
    'unknown-type starters/none/d.yaml',
    'wrong-form starters/seed/c.yaml',
    'wrong-instant starters/seed/e.yaml',
  ]);
});
