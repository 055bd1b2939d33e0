import fc from 'fast-check';
import { describe, expect, test } from 'vitest';
import { contentColumns } from '@/core/content/columns.ts';
import { conditionSpecs } from '@/core/design/listing-spec.ts';
import { type ListingRow, sortCell } from '@/core/listing/columns.ts';
import { holds } from '@/core/listing/evaluate.ts';
import { planFilter } from '@/core/listing/condition-planner.ts';
import { resolveFilter } from '@/core/listing/resolve.ts';
import { compareCodePoints } from '@/core/text.ts';
import { stateAt } from '@/core/publication/state.ts';
import { mostUsed } from '@/server/queries/filter-columns.ts';
import { contentRows, contentTable } from '@/server/queries/content.ts';
import { foundBy } from '@/server/store/newest/content-filters.ts';
import { valuesOfType } from '@/server/store/stored-values.ts';
import { type TestSite, at, loadFiles } from '../helpers/folder.ts';
import { entry } from '../helpers/notes.ts';
import { anyFilter } from '../helpers/random-filters.ts';
import { randomSite } from '../helpers/random-site.ts';
import { ANN, FILES, NOW, done, ids, running, site } from '../helpers/seeds.ts';

const RUNS = { numRuns: Number(process.env.LONG ?? 60) };

/** The entries that filters find, by id. */
function found({ connection, view }: TestSite, filters: object, when = NOW): string[] {
  const subjects = view.subjects(when);
  const numbers = foundBy(connection, view.at(when)!.site, filters, { at: when, subjects });
  const id = connection.driver.prepare('SELECT entry FROM newest WHERE id = ?').pluck();
  return numbers.map((number) => id.get(number) as string);
}

/** The newest revisions of varieties, as listings read rows. */
function newestOf({ connection, view }: TestSite, when: number): ListingRow[] {
  const { site: compiled } = view.at(when)!;
  const type = compiled.typesByKey.get('variety')!;
  const rows = connection.driver
    .prepare(
      `SELECT e.id, r."values" AS v FROM entry AS e
         JOIN revision AS r ON r.entry = e.id AND r.number = e.newest
         WHERE e.type = ? AND (e.deleted IS NULL OR e.deleted > ?)`,
    )
    .all(type.id, when) as { id: string; v: string }[];
  return rows.map(({ id, v }) => {
    const values = valuesOfType(type, v, compiled.design.site);
    const times = { created: 0, published: 0, updated: 0, from: 0, to: null };
    return { entry: id, type: type.id, ...times, values };
  });
}

test('conditions find what going through all newest revisions finds, in the order asked for', async () => {
  const sorts = fc.constantFrom('title', '-title', 'stock', '-stock', 'sow', 'shade', '-ease');
  await fc.assert(
    fc.asyncProperty(randomSite, anyFilter, sorts, async (files, where, sort) => {
      fc.pre(conditionSpecs(where).every(({ field }) => !field.startsWith('entry.')));
      const loaded = await loadFiles(files, NOW);
      if (!loaded.result.ok) return;
      const { site: compiled } = loaded.view.at(NOW)!;
      const columns = contentColumns(compiled.typesByKey.get('variety')!);
      const { filter, issues } = planFilter(where, columns, { label: '', zone: 'Europe/Dublin' });
      expect(issues).toEqual([]);
      const resolved = resolveFilter(
        filter!,
        NOW,
        'Europe/Dublin',
        loaded.view.at(NOW)!.reader.filterWorld(NOW),
      );
      const rows = newestOf(loaded, NOW);
      const expected = rows.filter((row) =>
        holds(resolved, row, { isLive: () => true, row: () => null }),
      );
      const got = found(loaded, { type: 'variety', where, sort });
      expect([...got].sort()).toEqual(expected.map((row) => row.entry).sort());
      const column = columns.get(sort.replace('-', ''))!;
      const keys = got.map((id) =>
        sortCell(
          rows.find((r) => r.entry === id)!,
          column,
        ),
      );
      expect(keys).toEqual([...keys].sort(byKey(sort.startsWith('-'))));
    }),
    RUNS,
  );
});

/** Blanks last, whatever the direction. */
function byKey(descending: boolean) {
  return (a: string | number | null, b: string | number | null): number => {
    if (a === null || b === null) return Number(a === null) - Number(b === null);
    const order = typeof a === 'string' ? compareCodePoints(a, b as string) : a - (b as number);
    return descending ? -order : order;
  };
}

test('states are those that each entry has at the instant, whichever that is', async () => {
  const when = fc.integer({ min: at('2025-06-01'), max: at('2027-06-01') });
  await fc.assert(
    fc.asyncProperty(randomSite, fc.array(when, { minLength: 3 }), async (files, instants) => {
      const loaded = await loadFiles(files, NOW);
      if (!loaded.result.ok) return;
      const { driver } = loaded.connection;
      const all = driver.prepare('SELECT entry FROM newest ORDER BY entry').pluck().all();
      for (const instant of instants)
        for (const state of ['draft', 'live', 'live with newer draft', 'scheduled', 'retired']) {
          const expected = (all as string[]).filter((id) => stateOf(loaded, id, instant) === state);
          expect(found(loaded, { state }, instant).sort()).toEqual(expected);
        }
    }),
    { ...RUNS, numRuns: RUNS.numRuns / 2 },
  );
});

function stateOf({ connection: { driver } }: TestSite, id: string, instant: number): string {
  const revisions = driver.prepare('SELECT number, saved FROM revision WHERE entry = ?').all(id);
  const intervals = driver
    .prepare('SELECT starts AS "from", ends AS "to", revision FROM live_interval WHERE entry = ?')
    .all(id);
  return stateAt({ revisions, intervals } as Parameters<typeof stateAt>[0], instant).state;
}

const TEXTS = {
  ...FILES,
  'entries/seed.json': [
    entry('one', 'Tall pea', [], {}, { about: 'Climbs on strings; wants a wind-break.' }),
    entry('two', 'Wind-break bean', [], {}, { about: 'Grows beside Péa people.' }),
    entry('three', 'Straße', [], {}, { about: 'Nothing of the sort.' }),
  ],
};

describe('searching', () => {
  test.each([
    ['pea', ['one', 'two']],
    ['PÉA', ['one', 'two']],
    ['wind break', ['two', 'one']],
    ['"wind break"', ['two', 'one']],
    ['"break wind"', []],
    ['stri cli', ['one']],
    ['pea-people', ['two']],
    ['-', []],
    ['" AND NEAR(', []],
    ['name: pea*', []],
    ['   ', ['one', 'three', 'two']],
  ])('by %s: words by their beginnings, those in names first', async (search, expected) => {
    const loaded = await site(TEXTS);
    const got = found(loaded, { type: 'seed', search });
    expect(search.trim() === '' ? [...got].sort() : got).toEqual(expected);
  });

  test('shows where the words stand, and finds what was saved last', async () => {
    const loaded = await site(TEXTS);
    const { rows } = contentTable(loaded.view, ANN, NOW, { search: 'strings' });
    expect(rows.map(({ id, hit }) => [id, hit])).toEqual([
      ['one', 'Climbs on \u0002strings\u0003; wants a wind-break.'],
    ]);
    done(
      running(loaded)('saveEntry', { id: 'one', type: 'seed', values: { title: 'Rope' }, seen: 1 }),
    );
    expect(found(loaded, { search: 'strings' })).toEqual([]);
    expect(found(loaded, { search: 'rope' })).toEqual(['one']);
  });
});

describe('the table', () => {
  test('gives rows by their places, and the exact number of all', async () => {
    const many = Array.from({ length: 250 }, (_, i) => entry(`s${i}`, `Seed ${i}`, []));
    const { view } = await site({ ...FILES, 'entries/seed.json': many });
    const filters = { type: 'seed', sort: '@name' };
    const table = contentTable(view, ANN, NOW, filters);
    expect([table.total, table.rows.length]).toEqual([250, 100]);
    const third = contentRows(view, ANN, { at: NOW, filters, from: 200 });
    expect([third.total, third.rows.length]).toEqual([250, 50]);
    const all = [0, 100, 200].flatMap((from) =>
      ids(contentRows(view, ANN, { at: NOW, filters, from }).rows),
    );
    expect(new Set(all).size).toBe(250);
  });

  test('finds what refers to something not live, and what has unpublished changes', async () => {
    const loaded = await site();
    const where = (field: string, value: boolean): object => ({
      where: { field, op: 'is', value },
    });
    expect(found(loaded, where('@changed', true)).sort()).toEqual(['draft', 'late']);
    expect(found(loaded, where('@broken', true))).toEqual([]);
    const retire = { entry: 'ines', action: 'retire', at: null, revision: null } as const;
    done(running(loaded)('planChange', retire));
    expect(found(loaded, where('@broken', true), NOW + 3_600_000)).toEqual(['pea']);
    expect(
      found(loaded, { type: 'seed', ...where('@broken', false) }, NOW + 3_600_000),
    ).not.toContain('pea');
  });

  test('offers the values that are in use, with how many have each', async () => {
    const { view } = await site();
    const where = { field: '@type', op: 'is', value: 'seed' } as const;
    const { asked } = contentTable(view, ANN, NOW, { where });
    const type = asked.columns.find(({ name }) => name === '@type')!;
    expect(type.options.map(({ label }) => label)).toEqual(['Growers (1)', 'Seeds (7)']);
  });

  test('completes texts, numbers and days by those that most have, without what is deleted', async () => {
    const loaded = await site({
      ...FILES,
      'entries/seed.json': ['Pea', 'Bean', 'Kale', 'Oat'].map((title, i) => ({
        entry: { id: title, created: '2026-01-01', saved: '2026-01-01' },
        ...{ title, stock: i < 2 ? 4 : 10 + i, sow: '2026-03-01' },
      })),
    });
    done(running(loaded)('deleteEntry', { entry: 'Oat' }));
    const type = loaded.view.at(NOW)!.site.typesByKey.get('seed')!;
    const used = (key: string): string[] =>
      mostUsed(loaded.view, ANN, { type: 'seed', field: idOf(key) }, NOW + 1e7).map(
        ({ label }) => label,
      );
    const idOf = (key: string): string => type.fields.find((f) => f.key === key)!.id;
    expect(used('stock')).toEqual(['4 (2)', '12 (1)']);
    expect(used('sow')).toEqual(['2026-03-01 (3)']);
    expect(used('title')).toEqual(['Bean (1)', 'Kale (1)', 'Pea (1)']);
    expect(used('friend')).toEqual([]);
  });

  test('says what is wrong with a condition, and leaves it out', async () => {
    const { view } = await site();
    const where = { field: 'no such', op: 'is', value: 1 } as const;
    const { issues, total } = contentTable(view, ANN, NOW, { where });
    expect([issues.length, total]).toEqual([1, 8]);
  });
});
