import { expect, test } from 'vitest';
import { sortKey } from '@/core/listing/sort-key.ts';
import { compareCodePoints } from '@/core/text.ts';
import { Validity } from '@/core/time/interval.ts';
import { at, loadFiles } from '../helpers/folder.ts';
import { entry, note } from '../helpers/notes.ts';

const NOW = at('2026-07-01');
const COUNT = 2600;

/** When a note is live: most are, some not yet, some no longer or until soon, some twice. */
function live(n: number): [from: string, to: string][] {
  const at = n % 13 === 0 ? Math.floor(n / 13) : 0;
  if (at % 11 === 1) return [['2026-08-01', '']];
  if (at % 11 === 2) return [['2026-01-01', '2026-08-10']];
  if (at % 22 === 3)
    return [
      ['2026-01-01', '2026-08-05'],
      ['2026-09-01', ''],
    ];
  return [['2026-01-01', '']];
}

const notes = Array.from({ length: COUNT }, (_, n) => ({
  id: `n${(n * 7919) % COUNT}`,
  title: `Note ${n % 97}`,
  stock: n % 5 === 0 ? null : n % 40,
  live: live(n),
}));
type Note = (typeof notes)[number];

const FILES = {
  'types/note.json': note({
    fields: [
      { key: 'title', kind: 'text' },
      { key: 'stock', kind: 'number' },
      { key: 'tags', kind: 'tags', set: 'tags' },
    ],
  }),
  'subjects/tags.json': { key: 'tags', kind: 'tags', subjects: [{ key: 'one', name: 'One' }] },
  'listings/all.json': { key: 'all', type: 'note', address: '/all', sort: ['-stock', 'title'] },
  'listings/tagged.json': {
    ...{ key: 'tagged', type: 'note', address: '/tagged', sort: ['title'] },
    where: { field: 'tags', op: 'is', value: 'one' },
  },
  'entries/note.json': notes.map(({ id, title, stock, live }) =>
    entry(
      id,
      title,
      live.map(([from, to]) => `${from}/${to}`),
      {},
      { tags: ['one'], ...(stock === null ? {} : { stock }) },
    ),
  ),
};

const byTitle = (a: Note, b: Note): number =>
  compareCodePoints(sortKey(a.title), sortKey(b.title)) || compareCodePoints(a.id, b.id);
const byStock = (a: Note, b: Note): number => (b.stock ?? -1) - (a.stock ?? -1) || byTitle(a, b);

test('a page far within a list holds whom a list of all that are live has there', async () => {
  const { view, issues } = await loadFiles(FILES, NOW);
  expect(issues).toEqual([]);
  for (const day of ['2026-07-01', '2026-08-02', '2026-08-07', '2026-08-20', '2026-10-01']) {
    const now = at(day);
    const isLive = ({ live }: Note): boolean =>
      live.some(([from, to]) => at(from) <= now && (to === '' || at(to) > now));
    for (const [key, order] of [
      ['all', byStock],
      ['tagged', byTitle],
    ] as const) {
      const ids = notes
        .filter(isLive)
        .sort(order)
        .map(({ id }) => id);
      const { site, reader } = view.at(now)!;
      const plan = site.listings.get(key)!;
      for (let offset = 960; offset < ids.length - 960; offset += 11) {
        const page = reader.listing(plan, new Validity(now), offset, 12);
        expect({ day, key, offset, ...page }).toEqual({
          ...{ day, key, offset, ids: ids.slice(offset, offset + 12), total: ids.length },
        });
      }
    }
  }
});
