import { describe, expect, test } from 'vitest';
import { runCommand } from '@/server/commands/run.ts';
import { NotPermitted, type Actor } from '@/server/permit.ts';
import { type AddressKind, addressRows } from '@/server/queries/addresses.ts';
import { tryAddress } from '@/server/queries/try-address.ts';
import { readClock, shellDetail } from '@/server/queries/clock.ts';
import { changeInWords, comingChanges } from '@/server/queries/coming.ts';
import { contentTable } from '@/server/queries/content.ts';
import { entryDetail, newEntry } from '@/server/queries/entry.ts';
import { entryOutcome, retireReach, whereSeen } from '@/server/queries/entry-outcome.ts';
import { listingOutcome } from '@/server/queries/listing.ts';
import { findEntries } from '@/server/queries/offers.ts';
import { todayDetail } from '@/server/queries/today.ts';
import { at } from '../helpers/folder.ts';
import { entry } from '../helpers/notes.ts';
import { setting } from '../helpers/release.ts';
import { ANN, FILES, NOW, ids, site } from '../helpers/seeds.ts';

test('nothing unpublished is told to a visitor', async () => {
  const { view } = await site();
  const visitor: Actor = { ...ANN, role: 'visitor' };
  for (const ask of [
    () => todayDetail(view, visitor, NOW),
    () => contentTable(view, visitor, NOW, {}),
    () => addressRows(view, visitor, { at: NOW, seeing: 'published' }, EVERY_ADDRESS),
    () => tryAddress(view, visitor, '/', NOW, 'draft'),
    () => entryDetail(view, visitor, 'draft', NOW, NOW),
    () => newEntry(view, visitor, 'seed', NOW),
    () => entryOutcome(view, visitor, { id: 'draft', type: 'seed', values: null }, NOW, 'draft'),
    () =>
      listingOutcome(
        view,
        visitor,
        { id: 'in-stock', steps: [], find: '' },
        { at: NOW, past: false, seeing: 'draft' },
      ),
    () => findEntries(view, visitor, { types: null, words: '', without: null }, NOW),
    () => whereSeen(view, visitor, 'pea', NOW),
    () => retireReach(view, visitor, 'pea', NOW),
    () => shellDetail(view, visitor, NOW),
  ])
    expect(ask).toThrow(NotPermitted);
});

describe('today', () => {
  test('names drafts, what went live, and what changes in two days', async () => {
    const { view } = await site();
    const today = todayDetail(view, ANN, NOW)!;
    expect(ids(today.drafts)).toEqual(['late', 'draft']);
    expect(today.draftsTotal).toBe(2);
    expect(today.wentLive.map((c) => c.entry)).toEqual(['ecole']);
    expect(today.coming.map(changeInWords)).toEqual([
      'Kale goes live at /seeds/kale',
      'Bean leaves /seeds/bean',
    ]);
    expect(today.frontChosen).toBe(false);
  });

  test('as of an instant of the past names what was a draft by then', async () => {
    const { view } = await site();
    expect(ids(todayDetail(view, ANN, at('2026-06-22'))!.drafts)).toEqual(['draft']);
    expect(todayDetail(view, ANN, at('2026-06-01'))!.drafts).toEqual([]);
  });

  test('a finding goes once it is mended', async () => {
    const { view, connection } = await site({
      ...FILES,
      'entries/star.json': [
        {
          entry: { id: 'star', type: 'seed', saved: '2026-01-01', live: '2026-01-01' },
          title: '★',
        },
      ],
    });
    expect(todayDetail(view, ANN, NOW)!.findings).toMatchObject([{ entry: 'star' }]);
    let wallClock = NOW;
    const run = (name: 'saveEntry' | 'planChange', input: unknown) =>
      runCommand(connection, name, ANN, input, { wallClock: (wallClock += 60_000) });
    const values = { title: 'Star' };
    expect(run('saveEntry', { id: 'star', type: 'seed', values, seen: 1 }).ok).toBe(true);
    const publish = { entry: 'star', action: 'publish', at: null, revision: null };
    expect(run('planChange', publish).ok).toBe(true);
    expect(todayDetail(view, ANN, wallClock + 1)!.findings).toEqual([]);
  });
});

describe('the content table', () => {
  test.each([
    ['ecole', ['ecole']],
    ['ÉCOLE', ['ecole']],
    ['ines', ['ines']],
    ['pea, e', ['pea']],
    ['zzz', []],
  ])('finds by "%s"', async (search, expected) => {
    const { view } = await site();
    const { rows, total } = contentTable(view, ANN, NOW, { search });
    expect(ids(rows)).toEqual(expected);
    expect(total).toBe(expected.length);
  });

  test.each([
    ['@name', ['bean', 'draft', 'ecole', 'ines', 'kale', 'late', 'lost', 'pea']],
    ['-@name', ['pea', 'lost', 'late', 'kale', 'ines', 'ecole', 'draft', 'bean']],
    ['-@saved', ['late', 'draft', 'pea', 'lost', 'kale', 'ecole', 'bean', 'ines']],
    ['constructor', ['late', 'draft', 'pea', 'lost', 'kale', 'ecole', 'bean', 'ines']],
  ])('is sorted by %s', async (sort, expected) => {
    const { view } = await site();
    expect(ids(contentTable(view, ANN, NOW, { sort }).rows)).toEqual(expected);
  });

  test.each([
    ['live', ['bean', 'ecole', 'ines', 'pea']],
    ['scheduled', ['kale']],
    ['retired', ['lost']],
    ['draft', ['draft', 'late']],
    ['no such state', []],
  ])('keeps those that are %s', async (state, expected) => {
    const { view } = await site();
    const { rows, total } = contentTable(view, ANN, NOW, { state, sort: '@name' });
    expect(ids(rows)).toEqual(expected);
    expect(total).toBe(expected.length);
  });

  test('of one type has its columns, with values as people read them', async () => {
    const { view } = await site();
    const { rows, columns, total } = contentTable(view, ANN, NOW, { type: 'seed', search: 'pea' });
    expect(columns.filter((c) => c.shown).map((c) => [c.label, c.numeric])).toEqual([
      ['Stock', true],
      ['Sow', false],
    ]);
    expect(rows[0]!.cells).toEqual({ stock: '9', sow: '1 Mar 2026' });
    expect(total).toBe(1);
    expect(contentTable(view, ANN, NOW, {}).counts).toMatchObject([
      { type: 'grower', count: 1 },
      { type: 'seed', count: 7 },
    ]);
  });

  test('as of an instant keeps all rows: what is made later is not yet written', async () => {
    const { view } = await site();
    const { rows } = contentTable(view, ANN, at('2026-06-22'), { search: 'late' });
    expect(rows[0]!.state).toBe('not yet written');
  });
});

describe('the clock', () => {
  test.each(['x', '99999999999999999', '0000-01-01T00:00:00Z', '2026-13-01', ''])(
    'says that "%s" is no instant, and stands at now',
    async (given) => {
      const { view } = await site();
      const clock = readClock(view, { at: given });
      expect([clock.tense, clock.at === clock.now]).toEqual(['now', true]);
      expect(clock.problem).toContain('is no instant');
    },
  );

  test('reads instants of the years 1 to 9999, local ones in the site’s zone', async () => {
    const { view } = await site();
    expect(readClock(view, { at: '2026-07-01T12:00' }).at).toBe(at('2026-07-01T11:00:00Z'));
    expect(readClock(view, { at: '0001-01-01T00:00:00Z' }).tense).toBe('past');
    expect(readClock(view, { at: '9999-12-31T00:00:00Z' }).tense).toBe('future');
    expect(readClock(view, { at: ['2026-07-01', 'x'] }).tense).toBe('now');
  });

  test('has a tick for each instant, with names whole', async () => {
    const { view } = await site();
    const { ticks } = shellDetail(view, ANN, NOW);
    const first = ticks.find((t) => t.at === at('2026-01-01'))!;
    expect(first.count).toBe(4);
    expect(first.names).toContain('Bean');
    expect(ticks.flatMap((t) => t.names).every((name) => name !== ' early')).toBe(true);
    expect(first.names.join('|')).toMatch(/Pea, early|Inés|Lost/);
  });

  test('has ticks ahead, however many changes the past year had', async () => {
    const { 'entries/grower.json': growers } = FILES;
    const many = Array.from({ length: 2100 }, (_, i) =>
      entry(`n${i}`, `N ${i}`, [`${new Date(at('2026-01-01') + i * 60_000).toISOString()}/`]),
    );
    const { view } = await site({
      ...FILES,
      'entries/grower.json': [...(growers as object[]), ...many],
    });
    const { ticks } = shellDetail(view, ANN, NOW);
    expect(ticks.filter((t) => t.at > NOW).map((t) => t.at)).toEqual([
      at('2026-07-02T08:00:00Z'),
      at('2026-07-03T09:00:00Z'),
    ]);
    expect(ticks.filter((t) => t.at <= NOW).length).toBeGreaterThan(1000);
  });

  test('changes are told with their entries, in order', async () => {
    const { view } = await site();
    const changes = comingChanges(view, at('2025-12-31'), at('2026-03-01'));
    expect(changes.map((c) => `${c.entry} ${c.what}`)).toEqual([
      'bean live',
      'ines live',
      'lost live',
      'pea live',
      'lost retired',
    ]);
  });
});

const EVERY_ADDRESS = { search: '', kind: null, type: null };

/** Paths that show something, in their order. */
function pathsShown(rows: readonly { path: string; kind: AddressKind }[]): string[] {
  return rows
    .filter(({ kind }) => kind === 'page' || kind === 'list')
    .map(({ path }) => path)
    .sort();
}

describe('addresses', () => {
  test('are found by path or name, accents or not; former ones too', async () => {
    const { view } = await site();
    const rows = (search: string, kind: AddressKind | null = null) => {
      const asked = { ...EVERY_ADDRESS, search, kind };
      return addressRows(view, ANN, { at: NOW, seeing: 'published' }, asked).rows;
    };
    const found = (search: string): string[] => pathsShown(rows(search));
    expect(found('ecole')).toEqual(['/seeds/ecole']);
    expect(found('INES')).toEqual(['/growers/ines']);
    expect(found('stock')).toEqual(['/in-stock']);
    expect(found('')).toEqual([
      '/',
      '/growers/ines',
      '/in-stock',
      '/seeds/bean',
      '/seeds/ecole',
      '/seeds/pea-early',
    ]);
    expect(rows('lost', 'former')).toMatchObject([{ path: '/seeds/lost', shows: 'Gone (410)' }]);
    expect(rows('', 'redirect')).toMatchObject([
      { path: '/out', title: 'https://elsewhere.example/' },
    ]);
    expect(rows('kale', 'coming')).toMatchObject([
      { path: '/seeds/kale', from: Date.parse('2026-07-02T08:00:00Z') },
    ]);
  });

  test('are those of the working design and of all drafts, seen with the whole bench', async () => {
    const { connection, view } = await site();
    const { design } = view.at(NOW)!.site;
    const steps = setting(design, 'types/seed', { address: '/s/{title}' });
    const done = runCommand(connection, 'editDesign', ANN, { steps }, { wallClock: NOW + 1 });
    expect(done.ok).toBe(true);
    const seen = (seeing: 'published' | 'draft' | 'bench', search = ''): string[] =>
      pathsShown(
        addressRows(view, ANN, { at: NOW + 2, seeing }, { ...EVERY_ADDRESS, search }).rows,
      );
    expect(seen('published', 'ecole')).toEqual(['/seeds/ecole']);
    expect(seen('bench', 'ecole')).toEqual(['/s/ecole']);
    expect(seen('bench')).toEqual([
      '/',
      '/growers/ines',
      '/in-stock',
      '/s/bean',
      '/s/draft',
      '/s/ecole',
      '/s/kale',
      '/s/late',
      '/s/pea-early',
    ]);
    const tried = tryAddress(view, ANN, '/s/draft', NOW + 2, 'bench');
    expect([tried!.status, tried!.html?.includes('Draft')]).toEqual([200, true]);
  });

  test.each([
    ['/in-stock?page=2', 200, '/in-stock'],
    ['https://test.example/seeds/ecole#top', 200, '/seeds/ecole'],
    ['seeds/ecole', 200, '/seeds/ecole'],
    ['/seeds/lost', 410, '/seeds/lost'],
    ['/out', 308, '/out'],
    ['https://other.example/seeds/ecole', null, '/seeds/ecole'],
    ['/build/today', null, '/build/today'],
    ['/api/session', null, '/api/session'],
    ['/media/abc/160.webp', null, '/media/abc/160.webp'],
    ['', 200, '/'],
    ['/%ff', 400, '/%ff'],
  ])('trying "%s" answers %s for %s', async (given, status, path) => {
    const { view } = await site();
    const tried = tryAddress(view, ANN, given, NOW, 'published')!;
    expect([tried.status, tried.path]).toEqual([status, path]);
    expect(tried.steps.filter((s) => s.matched)).toHaveLength(1);
  });

  test('of what goes live later say when, in words without ids', async () => {
    const { view } = await site();
    const { steps, status } = tryAddress(view, ANN, '/seeds/kale', NOW, 'published')!;
    expect(status).toBe(404);
    expect(steps.at(-1)!.words).toBe(
      'Nobody stood here by then; “Kale” will from 2 Jul 2026, 09:00.',
    );
    const shown = tryAddress(view, ANN, '/seeds/ecole', NOW, 'published')!;
    expect(shown.steps.at(-1)!.words).toBe('“École” stands here.');
  });
});
