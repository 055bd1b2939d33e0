import { describe, expect, test } from 'vitest';
import { contentTable } from '@/server/queries/content.ts';
import { goneEntry, purgeLoss } from '@/server/queries/purge.ts';
import type { Files, TestSite } from '../helpers/folder.ts';
import { at } from '../helpers/folder.ts';
import { ANN, FILES, NOW, done, ids, running, site } from '../helpers/seeds.ts';

const LATER = NOW + 86_400_000;
const PAST = at('2026-06-30T12:00:00Z');

/** Pages that sit within each other, two of them live since the spring. */
const PAGES: Files = {
  'types/page.json': {
    key: 'page',
    address: '[{within.path}]/{title}',
    fields: [
      { key: 'title', kind: 'text' },
      { key: 'inside', kind: 'reference', types: ['page'], sitsWithin: true },
    ],
  },
  'entries/page.json': ['Club', 'House'].map((title, i) => ({
    entry: { id: `p${i}`, created: '2026-01-01', live: ['2026-03-01/'] },
    ...{ title, ...(i === 0 ? {} : { inside: 'p0' }) },
  })),
};

const statusOf = ({ view }: TestSite, path: string, when: number): number =>
  view.render(path, when)!.status;

describe('purging an entry', () => {
  test('takes its past away as well: lists are without it, its paths answer 410', async () => {
    const loaded = await site();
    const run = running(loaded);
    expect(statusOf(loaded, '/seeds/pea-early', PAST)).toBe(200);
    expect(loaded.view.render('/in-stock', NOW)!.body).toContain('École');
    done(run('purgeEntry', { entry: 'ecole' }));
    done(run('purgeEntry', { entry: 'pea' }));
    for (const when of [PAST, NOW, LATER])
      expect([when, statusOf(loaded, '/seeds/pea-early', when)]).toEqual([when, 410]);
    expect(statusOf(loaded, '/seeds/pea-early', at('2025-12-31'))).toBe(404);
    expect(loaded.view.render('/in-stock', NOW)!.body).not.toContain('École');
    expect(ids(contentTable(loaded.view, ANN, LATER, {}).rows)).not.toContain('pea');
  });

  test('leaves 410 even where its type leads elsewhere from what is retired', async () => {
    const loaded = await site();
    const run = running(loaded);
    done(run('deleteEntry', { entry: 'ines' }));
    expect(loaded.view.render('/growers/ines', LATER)).toMatchObject({ status: 308 });
    done(run('purgeEntry', { entry: 'ines' }));
    expect(statusOf(loaded, '/growers/ines', LATER)).toBe(410);
  });

  test('leaves nothing of its words in any table', async () => {
    const loaded = await site();
    const run = running(loaded);
    const type = loaded.view.at(NOW)!.site.typesByKey.get('seed')!.id;
    const values = { title: 'Quillwort', about: 'Zanzibar words', stock: 20, sow: '2026-01-01' };
    done(run('saveEntry', { id: 'pea', type, values, seen: null, note: 'Zanzibar note' }));
    done(run('planChange', { entry: 'pea', action: 'publish', at: null, revision: null }));
    done(run('purgeEntry', { entry: 'pea' }));
    const { driver } = loaded.connection;
    const held = driver.serialize().toString('latin1');
    for (const word of ['Zanzibar', 'zanzibar', 'Quillwort', 'Pea, early'])
      expect([word, held.includes(word)]).toEqual([word, false]);
    // Its addresses stay, to say that they lead nowhere.
    expect(held).toContain('/seeds/quillwort');
    expect(
      driver.prepare("SELECT rowid FROM newest_words WHERE newest_words MATCH 'zanz*'").all(),
    ).toEqual([]);
  });

  test('moves what was built on its address, and lets others have its path', async () => {
    const loaded = await site({ ...FILES, ...PAGES });
    const run = running(loaded);
    expect(statusOf(loaded, '/club/house', NOW)).toBe(200);
    done(run('deleteEntry', { entry: 'p0' }));
    expect(statusOf(loaded, '/club/house', LATER)).toBe(200);
    done(run('purgeEntry', { entry: 'p0' }));
    expect(loaded.view.render('/club/house', LATER)).toMatchObject({
      status: 308,
      headers: { location: '/house' },
    });
    const type = loaded.view.at(NOW)!.site.typesByKey.get('page')!.id;
    const made = done(run('saveEntry', { id: null, type, values: { title: 'Club' }, seen: null }));
    done(run('planChange', { entry: made.id, action: 'publish', at: null, revision: null }));
    expect(statusOf(loaded, '/club', LATER)).toBe(200);
    expect(statusOf(loaded, '/club', PAST)).toBe(410);
  });

  test('cannot be undone, nor done twice', async () => {
    const loaded = await site();
    const run = running(loaded);
    done(run('purgeEntry', { entry: 'pea' }));
    for (const name of ['restoreEntry', 'purgeEntry', 'deleteEntry'] as const)
      expect(run(name, { entry: 'pea' })).toMatchObject({ ok: false });
    expect(run('purgeEntry', { entry: 'nobody' })).toMatchObject({ ok: false });
    const what = { id: 'pea', type: 'seed', values: { title: 'Again' }, seen: null };
    expect(run('saveEntry', what)).toMatchObject({ ok: false });
  });

  test('says first what is lost', async () => {
    const loaded = await site();
    const { view } = loaded;
    expect(purgeLoss(view, ANN, 'ines')).toEqual({
      ...{ name: 'Inés', versions: 1, live: 1, since: at('2026-01-01') },
      ...{ paths: ['/growers/ines'], pathsTotal: 1 },
      ...{ referring: ['Pea, early'], referringTotal: 1, media: [], mediaTotal: 0 },
    });
    done(running(loaded)('purgeEntry', { entry: 'ines' }));
    expect(purgeLoss(view, ANN, 'ines')).toBeNull();
  });
});

describe('deleted entries', () => {
  test('are found where they are asked for, and say since when they are gone', async () => {
    const loaded = await site();
    const run = running(loaded);
    const { at: when } = done(run('deleteEntry', { entry: 'pea' }));
    const table = contentTable(loaded.view, ANN, LATER, { state: 'deleted' });
    expect(table.rows).toMatchObject([{ id: 'pea', state: 'deleted' }]);
    expect(contentTable(loaded.view, ANN, PAST, { state: 'deleted' }).rows).toEqual([]);
    const gone = { id: 'pea', name: 'Pea, early', deleted: when, purged: null, last: when - 1 };
    expect(goneEntry(loaded.view, ANN, 'pea', LATER)).toMatchObject(gone);
    expect(goneEntry(loaded.view, ANN, 'pea', PAST)).toBeNull();
    const { at: then } = done(run('purgeEntry', { entry: 'pea' }));
    expect(goneEntry(loaded.view, ANN, 'pea', LATER)).toMatchObject({ name: null, purged: then });
    expect(contentTable(loaded.view, ANN, LATER, { state: 'deleted' }).rows).toEqual([]);
  });
});
