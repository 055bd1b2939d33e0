import fc from 'fast-check';
import { describe, expect, test } from 'vitest';
import type { Connection } from '@/server/db/connection.ts';
import { type Files, loadFiles } from '../helpers/folder.ts';
import { answer, entry, note } from '../helpers/notes.ts';
import { randomSite } from '../helpers/random-site.ts';
import { releaseSet } from '../helpers/release.ts';

const NOW = Date.parse('2026-07-01T12:00:00Z');

interface Address {
  entry: string;
  path: string;
  base: string;
  from: number;
  to: number | null;
  refused: string | null;
}

function addresses({ driver }: Connection): Address[] {
  return driver
    .prepare(
      `SELECT entry, path, base, starts AS "from", ends AS "to",
         (SELECT base FROM refusal AS r WHERE coalesce(ends, 9e15) > ${NOW} AND r.entry = address.entry AND at BETWEEN starts
            AND ${NOW} AND cancelled = 0 AND code <> 'nothing-left'
            ORDER BY at DESC LIMIT 1) AS refused
       FROM address WHERE role = 'current' ORDER BY entry, starts`,
    )
    .all() as Address[];
}

/**
 * Rows that adjoin and say the same as one: where an address was dealt again at once, nothing
 * changed.
 */
function joined(rows: Address[]): Address[] {
  const all: Address[] = [];
  for (const row of rows) {
    const last = all.at(-1);
    const goesOn =
      last?.entry === row.entry &&
      last.path === row.path &&
      last.base === row.base &&
      last.to === row.from;
    if (goesOn) last.to = row.to;
    else all.push({ ...row });
  }
  return all;
}

const iso = (instant: number | null): string | null =>
  instant === null ? null : new Date(instant).toISOString();

/** The files of a site with the addresses that its entries held before an instant. */
function withFacts(files: Files, rows: Address[], until: number): Files {
  return Object.fromEntries(
    Object.entries(files).map(([path, content]) => {
      if (!path.startsWith('entries/')) return [path, content];
      const file = content as { entry: { id: string } };
      const held = rows
        .filter((r) => r.entry === file.entry.id && r.from < until)
        .map(({ path, base, refused, from, to }) => ({
          path,
          base,
          refused,
          from: iso(from),
          to: to !== null && to < until ? iso(to) : null,
        }));
      return [path, { ...file, entry: { ...file.entry, held } }];
    }),
  );
}

test('a saved history and the live one are the same, though the address pattern changed since', async () => {
  let compared = 0;
  await fc.assert(
    fc.asyncProperty(randomSite, async (files) => {
      const live = await loadFiles(files, NOW);
      if (!live.result.ok) return;
      const saved = withFacts(files, addresses(live.connection), NOW + 1);
      const address = '/seeds/{title}';
      const release = releaseSet(live, 'types/variety', { address }, NOW + 1);
      if (!release.ok) return;
      const loaded = await loadFiles(
        {
          ...saved,
          'types/variety.json': { ...(files['types/variety.json'] as object), address },
        },
        NOW + 1,
      );
      expect(loaded.issues).toEqual([]);
      expect(joined(addresses(loaded.connection))).toEqual(joined(addresses(live.connection)));
      compared++;
    }),
    { numRuns: Number(process.env.LONG ?? 40) },
  );
  expect(compared).toBeGreaterThan(8);
});

describe('addresses held so far, as a folder gives them', () => {
  const held = (...facts: object[]): object => ({ held: facts });
  const types: Files = { 'types/note.json': note({ address: '/notes/{title}' }) };
  const load = (...entries: object[]): ReturnType<typeof loadFiles> =>
    loadFiles(
      {
        ...types,
        ...Object.fromEntries(entries.map((e, i) => [`entries/note/${i}.json`, e])),
      },
      NOW,
    );

  test('are where the pages were, and lead on from loading on, when the design gives others', async () => {
    const { view } = await load(
      entry('a', 'Pea', ['2026-01-01/'], held({ path: '/pea', from: '2026-01-01' })),
    );
    expect(answer(view, '/pea', '2026-03-01')).toBe('200');
    expect(answer(view, '/notes/pea', '2026-03-01')).toBe('404');
    expect(answer(view, '/pea', '2026-07-02')).toBe('308 /notes/pea');
    expect(answer(view, '/notes/pea', '2026-07-02')).toBe('200');
  });

  test('keep a number that was dealt while another stood there who is gone', async () => {
    const fact = { path: '/notes/pea-2', base: '/notes/pea', from: '2026-01-01' };
    const { view } = await load(entry('a', 'Pea', ['2026-01-01/'], held(fact)));
    expect(answer(view, '/notes/pea-2', '2026-08-01')).toBe('200');
    expect(answer(view, '/notes/pea', '2026-08-01')).toBe('404');
  });

  test('may have a gap, in which the page had no address', async () => {
    const { view } = await load(
      entry(
        'a',
        'Pea',
        ['2026-01-01/'],
        held(
          { path: '/notes/pea', from: '2026-01-01', to: '2026-02-01' },
          { path: '/notes/pea', from: '2026-03-01' },
        ),
      ),
    );
    expect(answer(view, '/notes/pea', '2026-02-15')).toBe('410');
    expect(answer(view, '/notes/pea', '2026-03-15')).toBe('200');
  });

  test('may stand where a listing stands today, from which they move', async () => {
    const { view, issues } = await loadFiles(
      {
        ...types,
        'listings/all.json': { key: 'all', type: 'note', address: '/all' },
        'entries/note/0.json': entry(
          'a',
          'Pea',
          ['2026-01-01/'],
          held({ path: '/all', from: '2026-01-01' }),
        ),
      },
      NOW,
    );
    expect(issues).toEqual([]);
    expect(answer(view, '/notes/pea', '2026-07-02')).toBe('200');
    expect(view.render('/all', NOW)!.listing).toBe('all');
  });

  test.each([
    ['held while not live', [{ path: '/pea', from: '2025-12-01' }], 'wrong-fact'],
    ['held on after it was retired', [{ path: '/pea', from: '2026-01-01' }], 'wrong-fact', true],
    ['ahead of loading', [{ path: '/pea', from: '2026-08-01' }], 'wrong-fact'],
    [
      'ending before it starts',
      [{ path: '/pea', from: '2026-03-01', to: '2026-02-01' }],
      'wrong-fact',
    ],
    [
      'overlapping',
      [
        { path: '/pea', from: '2026-01-01', to: '2026-04-01' },
        { path: '/bean', from: '2026-03-01' },
      ],
      'overlapping-intervals',
    ],
    ['with a dot segment', [{ path: '/../x', from: '2026-01-01' }], 'wrong-address'],
    ['in no normal form', [{ path: '/Pea/', from: '2026-01-01' }], 'wrong-address'],
    ['with a base that is none', [{ path: '/pea', base: 'pea', from: '2026-01-01' }], 'wrong-form'],
  ])('are refused %s, with the place', async (_, facts, code, retired = false) => {
    const live = retired ? '2026-01-01/2026-05-01' : '2026-01-01/';
    const { issues } = await load(entry('a', 'Pea', [live], held(...facts)));
    expect(issues).toContainEqual(
      expect.objectContaining({ code, path: 'entries/note/0.json', line: expect.any(Number) }),
    );
  });

  test.each(['/pea', '/'])('are refused where two held %s at once', async (path) => {
    const fact = { path, from: '2026-01-01' };
    const { issues } = await load(
      entry('a', 'Pea', ['2026-01-01/'], held(fact)),
      entry('b', 'Bean', ['2026-01-01/'], held(fact)),
    );
    expect(issues[0]).toMatchObject({ code: 'clash', message: expect.stringContaining(path) });
  });
});
