import { describe, expect, test } from 'vitest';
import { versionChanges, versions } from '@/server/queries/versions.ts';
import { ANN, NOW, done, running, site } from '../helpers/seeds.ts';

describe('the versions of an entry', () => {
  test('are listed with person, time, note, and when each was live', async () => {
    const loaded = await site();
    const { view } = loaded;
    const run = running(loaded);
    const type = view.at(NOW)!.site.typesByKey.get('seed')!;
    const idOf = (key: string): string => type.fields.find((f) => f.key === key)!.id;
    const values = { [idOf('title')]: 'Pea, early', [idOf('stock')]: 3 };
    const seen = { id: 'pea', type: type.id, seen: null };
    done(run('saveEntry', { ...seen, values, note: ' Counted anew ' }));
    done(run('planChange', { entry: 'pea', action: 'publish', at: null, revision: null }));
    done(run('saveEntry', { ...seen, values: { ...values, [idOf('stock')]: 2 } }));
    const [newest, counted, first] = versions(view, ANN, 'pea');
    expect([newest!.number, counted!.number, first!.number]).toEqual([3, 2, 1]);
    expect(counted).toMatchObject({ note: 'Counted anew', author: ANN.name });
    expect(newest).toMatchObject({ note: '', live: [] });
    expect(first!.live).toMatchObject([{ to: expect.any(Number) as number }]);
    expect(counted!.live).toMatchObject([{ from: first!.live[0]!.to, to: null }]);
    const asked = { id: 'pea', before: 2, after: 3 };
    const found = versionChanges(view, ANN, asked, NOW)!;
    const stock = type.fields.find(({ key }) => key === 'stock')!;
    expect(found.changes).toEqual([
      {
        field: stock.id,
        label: stock.label,
        as: 'words',
        pieces: [
          { is: 'gone', words: '3' },
          { is: 'new', words: '2' },
        ],
      },
    ]);
    expect(found.values[stock.id]).toBe(3);
    expect(versionChanges(view, ANN, { ...asked, after: 9 }, NOW)).toBeNull();
  });
});
