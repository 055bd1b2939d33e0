import { describe, expect, test } from 'vitest';
import { entryDetail, newEntry } from '@/server/queries/entry.ts';
import { entryOutcome, retireReach, whereSeen } from '@/server/queries/entry-outcome.ts';
import { listingOutcome } from '@/server/queries/listing.ts';
import { proposedConditions } from '@/server/queries/proposed.ts';
import { findEntries } from '@/server/queries/offers.ts';
import { at } from '../helpers/folder.ts';
import { ANN, FILES, NOW, ids, site } from '../helpers/seeds.ts';
import { setting } from '../helpers/release.ts';

describe('a listing', () => {
  const ask = async (set: Record<string, unknown> = {}, find = '') => {
    const { view } = await site();
    const { design } = view.at(NOW)!.site;
    const input = { id: 'in-stock', steps: setting(design, 'listings/in-stock', set), find };
    return listingOutcome(view, ANN, input, { at: NOW, past: false, seeing: 'published' })!;
  };

  test('tells of pins: until when who stands first does, and who is still to come in', async () => {
    const to = '2026-07-09T10:00:00Z';
    const all = { all: [{ field: 'stock', op: 'more-than', value: 8 }] };
    const outcome = await ask({ where: all, pins: [{ entry: 'pea', to }, 'kale', 'bean'] });
    expect(outcome.entries.map(({ id, pinned }) => [id, pinned])).toEqual([
      ['pea', { until: at(to) }],
      ['bean', { until: null }],
      ['ecole', null],
    ]);
    const kept = outcome.leftOut.map(({ id, isPinned }) => [id, isPinned]);
    expect(kept).toContainEqual(['kale', true]);
    expect(kept).toContainEqual(['draft', false]);
    const { view } = await site({
      ...FILES,
      'listings/in-stock.json': { ...(FILES['listings/in-stock.json'] as object), pins: ['ecole'] },
    });
    const seen = { id: 'ecole', type: 'seed', values: null };
    expect(entryOutcome(view, ANN, seen, NOW, 'published')!.listed).toMatchObject([
      { label: 'In stock', place: 1, isPinned: true },
    ]);
  });

  test('says who is in, and of those left out the value that keeps them out', async () => {
    const outcome = await ask();
    expect(ids(outcome.entries)).toEqual(['ecole']);
    const words = (id: string): string[] =>
      outcome.leftOut
        .find((e) => e.id === id)!
        .reasons.map((r) => (r.actual === null ? r.words : `${r.words}: ${r.actual}`));
    expect(words('pea')).toEqual(['stock is more than 10: it is 9']);
    expect(words('bean')).toEqual(['sow is on or before today: it is 1 Aug 2026']);
    expect(words('draft')).toEqual([
      'not live at this instant',
      'stock is more than 10: it is blank',
      'sow is on or before today: it is blank',
    ]);
  });

  test('says when those left out come in, where that is true', async () => {
    const { leftOut } = await ask();
    const appears = (id: string) => leftOut.find((e) => e.id === id)!.appears;
    expect(appears('kale')).toBeNull(); // live on 2 July, sown from 4 July: neither alone brings it in
    expect(appears('bean')).toBeNull(); // retired before it is sown
    expect(appears('pea')).toBeNull();
  });

  test('counts what each condition keeps out, the most first, and puts near misses first', async () => {
    const { counts, leftOut, leftOutTotal } = await ask();
    expect(counts.map((c) => c.count)).toEqual(
      [...counts.map((c) => c.count)].sort((a, b) => b - a),
    );
    expect(leftOutTotal).toBe(6);
    const lengths = leftOut.map((e) => e.reasons.length);
    expect(lengths).toEqual([...lengths].sort((a, b) => a - b));
  });

  test('finds one of those left out by name', async () => {
    expect(ids((await ask({}, 'pea')).leftOut)).toEqual(['pea']);
  });

  test('follows its sentence while it is edited, and says what is wrong in it', async () => {
    const wider = await ask({ where: { field: 'stock', op: 'more-than', value: 5 } });
    expect(ids(wider.entries)).toEqual(['bean', 'ecole', 'pea']);
    const broken = await ask({ where: { field: 'stok', op: 'is', value: 5 } });
    expect(broken.issues).toMatchObject([{ code: 'unknown-field' }]);
    const zero = await ask({ pageSize: 0 });
    expect(zero.issues[0]!.message).toContain('a whole number from 1 to 500');
  });
});

describe('an entry', () => {
  test('is shown as of an instant: the revision of then, the newest for what lies ahead', async () => {
    const { view } = await site();
    expect(entryDetail(view, ANN, 'draft', at('2026-06-22'), NOW)).toMatchObject({
      name: 'Draft',
      state: 'draft',
      path: null,
    });
    expect(entryDetail(view, ANN, 'bean', NOW, NOW)).toMatchObject({
      state: 'live',
      path: '/seeds/bean',
      plans: [{ at: at('2026-07-03T09:00:00Z'), action: 'retire' }],
    });
    expect(entryDetail(view, ANN, 'nobody', NOW, NOW)).toBeNull();
    expect(entryDetail(view, ANN, 'constructor', NOW, NOW)).toBeNull();
  });

  test('has the names of those it points at, and searches for others by their types', async () => {
    const { view } = await site();
    const { type } = entryDetail(view, ANN, 'pea', NOW, NOW)!;
    expect(type.fields.find((f) => f.key === 'friend')).toMatchObject({
      names: { ines: 'Inés' },
      entryTypes: ['seed', 'grower'],
    });
    const find = (words: string, types: string[] | null, without: string | null = null) =>
      ids(findEntries(view, ANN, { types, words, without }, NOW));
    expect(find('ines', null)).toEqual(['ines']);
    expect(find('ines', ['seed'])).toEqual([]);
    expect(find('pea', ['seed'], 'pea')).toEqual([]);
  });

  test('whose form holds something else shows that, and says what publishing it would move', async () => {
    const { view } = await site();
    const form = (title: string, seeing: 'published' | 'draft' = 'published') =>
      entryOutcome(
        view,
        ANN,
        { id: 'ecole', type: 'seed', values: { title, stock: 12, sow: '2026-03-01' } },
        NOW,
        seeing,
      )!;
    const same = form('École');
    expect([same.path, same.warnings, same.status]).toEqual(['/seeds/ecole', [], 'Live page']);
    const other = form('Lycée');
    expect(other.path).toBe('/seeds/lycee');
    expect(other.warnings.join(' ')).toMatch(/\/seeds\/ecole.*\/seeds\/lycee/);
    expect(other.html).toContain('Lycée');
    expect(form('Pea, early').path).toBe('/seeds/pea-early-2');
    expect(form('').warnings.join(' ')).toMatch(/blank/);
    expect(other.listed).toMatchObject([{ label: 'In stock', place: 1 }]);
  });

  test('is said to be where it can be seen', async () => {
    const { view } = await site();
    expect(whereSeen(view, ANN, 'ecole', NOW)).toBe('Live at /seeds/ecole, first in In stock.');
    expect(whereSeen(view, ANN, 'draft', NOW)).toBe('Draft is not public at the moment.');
  });

  test('that is to be retired says what goes, what leads on, and who points at it', async () => {
    const { view } = await site();
    expect(retireReach(view, ANN, 'ines', NOW)).toMatchObject({
      path: '/growers/ines',
      answers: 'leads to /growers',
      referring: [{ id: 'pea', name: 'Pea, early' }],
      referringTotal: 1,
    });
    expect(retireReach(view, ANN, 'ecole', NOW)).toMatchObject({
      answers: 'answers 410: gone',
      listed: ['In stock'],
      referringTotal: 0,
    });
  });

  test('that is new has the defaults of its type', async () => {
    const { view } = await site();
    expect(newEntry(view, ANN, 'seed', NOW)).toMatchObject({ id: null, state: 'not yet written' });
    expect(newEntry(view, ANN, 'nothing', NOW)).toBeNull();
    const like = newEntry(view, ANN, 'seed', NOW, { entry: 'pea', fields: null })!;
    expect([like.like, like.values]).toMatchObject([
      { name: 'Pea, early', blank: [] },
      { title: 'Pea, early', stock: 9, friend: 'ines' },
    ]);
    const some = newEntry(view, ANN, 'seed', NOW, { entry: 'pea', fields: ['stock'] })!;
    expect(some.values).toMatchObject({ title: null, stock: 9, friend: null });
    const other = newEntry(view, ANN, 'seed', NOW, { entry: 'ines', fields: null })!;
    expect([other.like, other.values.title]).toEqual([null, null]);
  });
});

describe('conditions from entries', () => {
  const propose = async (...entries: string[]) => {
    const { view } = await site();
    const looking = { at: NOW, past: false, seeing: 'published' as const };
    return proposedConditions(view, ANN, { id: 'in-stock', steps: [], entries }, looking);
  };

  test('are those that leave fewest others, with who else they let in', async () => {
    expect(await propose('ecole', 'pea')).toMatchObject({
      conditions: [{ field: 'stock', op: 'between', value: [9, 12] }],
      words: ['stock is between 9 and 12'],
      ...{ total: 2, others: [] },
    });
    // What all that are live have as well says nothing.
    expect(await propose('pea', 'bean')).toMatchObject({ conditions: [], total: 3 });
  });

  test('are none where one is not live, or of another type', async () => {
    expect(await propose('pea', 'kale')).toBeNull();
    expect(await propose('ines')).toBeNull();
  });
});
