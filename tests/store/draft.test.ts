import fc from 'fast-check';
import { describe, expect, test } from 'vitest';
import type { SiteReader } from '@/core/site/reader.ts';
import { render } from '@/core/site/render.ts';
import { Validity } from '@/core/time/interval.ts';
import type { CommandName } from '@/server/commands/index.ts';
import { runCommand } from '@/server/commands/run.ts';
import type { Actor } from '@/server/permit.ts';
import { readerSeeing } from '@/server/queries/drafts.ts';
import { type Files, at, loadFiles } from '../helpers/folder.ts';
import { entry, note } from '../helpers/notes.ts';
import { randomSite } from '../helpers/random-site.ts';

const ANN: Actor = { id: 'ann', name: 'Ann', role: 'builder' };
const WRITTEN = at('2026-07-02');
const SEEN = at('2026-07-20T00:00:00Z');

/** Runs commands on a site at growing instants; says whether each went through. */
function running(connection: Parameters<typeof runCommand>[0]) {
  let wallClock = WRITTEN;
  return (name: CommandName, input: unknown): boolean =>
    runCommand(connection, name, ANN, input, { wallClock: (wallClock += 1000) }).ok;
}

/** Drafts of all types; titles nobody else has, so that no address is numbered. */
const drafts = fc.record({
  variety: fc.constantFrom('v0', 'v1', 'v2'),
  grower: fc.constantFrom('g0', 'g1'),
  rename: fc.boolean(),
  values: fc.record({
    stock: fc.option(fc.integer({ min: 0, max: 3 })),
    sow: fc.constantFrom(null, '2026-07-21', '2026-12-01'),
    traits: fc.subarray(['tall', 'early']),
    family: fc.constantFrom(null, 'beans'),
  }),
});

test('with my drafts of several types, lists and cards are what publishing them all would give', async () => {
  let compared = 0;
  await fc.assert(
    fc.asyncProperty(randomSite, drafts, async (files, { variety, grower, rename, values }) => {
      const { connection, view, result } = await loadFiles(files);
      if (!result.ok) return;
      const run = running(connection);
      const save = (id: string, type: string, given: object): boolean =>
        run('saveEntry', { id, type, values: given, seen: null });
      const saved = [
        save(variety, 'variety', { title: 'Quite new', grower, ...values }) ? variety : null,
        save(grower, 'grower', { title: rename ? 'Cleo' : 'Ana' }) ? grower : null,
      ].filter((id) => id !== null);
      const { site, reader } = view.at(SEEN)!;
      const seen = readerSeeing(view, { actor: ANN, at: SEEN, seeing: 'draft' }, { site, reader });
      const paths = ['/all', '/now', '/tall'];
      const lists = (of: SiteReader): unknown =>
        [...site.listings.values()].map((plan) => of.listing(plan, new Validity(SEEN), 0, 50));
      const cards = (of: SiteReader): unknown =>
        paths.map((path) => cardsOf(render(site, of, { path, at: SEEN }).body));
      const before = [lists(seen), cards(seen)];
      const published = saved.map((id) =>
        run('planChange', {
          entry: id,
          action: 'publish',
          at: new Date(SEEN).toISOString(),
          revision: null,
        }),
      );
      if (!published.every(Boolean)) return;
      const after = view.at(SEEN)!.reader;
      expect(before).toEqual([lists(after), cards(after)]);
      compared++;
    }),
    { numRuns: Number(process.env.LONG ?? 40) },
  );
  expect(compared).toBeGreaterThan(8);
});

/** The links and words of a page's cards. */
function cardsOf(body: string): string[] {
  return body.match(/<ul class="cards">.*?<\/ul>/gs) ?? [];
}

describe('a live entry that refers to my unpublished draft', () => {
  const files: Files = {
    'types/note.json': note(),
    'listings/friends.json': {
      key: 'friends',
      type: 'note',
      address: '/friends',
      where: { field: 'about', op: 'not-blank' },
    },
    'entries/note/a.json': entry('a', 'A', ['2026-01-01/'], {}, { about: 'b' }),
    'entries/note/b.json': entry('b', 'B', []),
  };

  test('is in a list of what refers to something, as it would be were it published', async () => {
    const { connection, view } = await loadFiles(files);
    const run = running(connection);
    const listed = (seeing: 'published' | 'draft'): unknown => {
      const { site, reader } = view.at(SEEN)!;
      const seen = readerSeeing(view, { actor: ANN, at: SEEN, seeing }, { site, reader });
      return seen.listing(site.listings.get('friends')!, new Validity(SEEN), 0, 9);
    };
    expect(run('saveEntry', { id: 'b', type: 'note', values: { title: 'B2' }, seen: 1 })).toBe(
      true,
    );
    expect(listed('published')).toEqual({ ids: [], total: 0 });
    expect(listed('draft')).toEqual({ ids: ['a'], total: 1 });
  });

  test('is not with the draft of somebody else', async () => {
    const { connection, view } = await loadFiles(files);
    running(connection)('saveEntry', { id: 'b', type: 'note', values: { title: 'B2' }, seen: 1 });
    const { site, reader } = view.at(SEEN)!;
    const other = { ...ANN, id: 'bo', name: 'Bo' };
    const seen = readerSeeing(view, { actor: other, at: SEEN, seeing: 'draft' }, { site, reader });
    expect(seen.listing(site.listings.get('friends')!, new Validity(SEEN), 0, 9).total).toBe(0);
  });
});
