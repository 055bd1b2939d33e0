import fc from 'fast-check';
import { expect, test } from 'vitest';
import { listingSpec, type FilterSpec } from '@/core/design/listing-spec.ts';
import { columnsOf, type ListingRow, rowOf } from '@/core/listing/columns.ts';
import { type Others, evaluateListing, holds } from '@/core/listing/evaluate.ts';
import { resolveFilter } from '@/core/listing/resolve.ts';
import { missesOf } from '@/server/store/list-misses.ts';
import { partsOf } from '@/core/listing/parts.ts';
import { type ListingPlan, namedBy } from '@/core/listing/plan.ts';
import { planPublic } from '@/core/listing/planner.ts';
import { besideIn, placeIn, stretchOf } from '@/core/site/pinned.ts';
import type { SiteReader } from '@/core/site/reader.ts';
import { sortKey } from '@/core/listing/sort-key.ts';
import { covers, Validity } from '@/core/time/interval.ts';
import type { Connection } from '@/server/db/connection.ts';
import { readValues } from '@/server/store/stored-values.ts';
import { hasListingIndex, leadingMember } from '@/server/store/listing-index.ts';
import { loadFiles } from '../helpers/folder.ts';
import { FAMILIES, anyFilter } from '../helpers/random-filters.ts';
import { DESIGN, day, randomSite } from '../helpers/random-site.ts';

/** Which entry it is, which picks it stands in, who wrote it. */
const identity = fc.oneof(
  fc.record({
    field: fc.constant('entry'),
    op: fc.constantFrom('is' as const, 'any-of' as const, 'none-of' as const),
    value: fc.constantFrom('v1', 'p1', 'nobody'),
  }),
  fc
    .record({
      field: fc.constant('entry.author'),
      op: fc.constantFrom('is' as const, 'is-not' as const, 'any-of' as const, 'blank' as const),
      value: fc.constantFrom('Ann', 'Bo'),
    })
    .map(({ op, value, field }) => (op === 'blank' ? { field, op } : { field, op, value })),
  fc.record({
    field: fc.constant('entry.picks'),
    op: fc.constantFrom('is' as const, 'is-not' as const),
    value: fc.constant('shelf'),
  }),
);
const anyOrNone = fc.constantFrom('any', 'none');
/** Some of them are read by one tag. */
const filter = fc.oneof(
  { weight: 2, arbitrary: anyFilter },
  {
    weight: 1,
    arbitrary: anyFilter.map((f): FilterSpec => ({
      all: [{ field: 'traits', op: 'is', value: 'tall' }, f],
    })),
  },
  {
    weight: 1,
    arbitrary: fc
      .tuple(anyOrNone, identity, anyFilter)
      .map(([kind, one, f]) => ({ [kind]: [one, f] }) as unknown as FilterSpec),
  },
);
/** Entries that a condition names stand in the order in which it names them. */
const named = fc
  .tuple(
    fc.constantFrom<FilterSpec>(
      { field: 'entry.picks', op: 'is', value: 'shelf' },
      { field: 'entry', op: 'any-of', value: ['v1', 'p1', 'g0', 'v0', 'nobody', 'p1'] },
    ),
    fc.oneof(anyFilter, fc.constant<FilterSpec>({ all: [] })),
    fc.constantFrom([], ['title'], ['-stock']),
    fc.constantFrom('entry.place', '-entry.place'),
  )
  .map(([by, f, keys, place]) => ({
    ...{ where: { all: [by, f] }, sort: [...keys, place], also: ['grower', 'page'] },
  }));
const DATED: ReadonlySet<string> = new Set([
  'sow',
  'starts',
  'entry.published',
  'entry.updated',
  'entry.created',
  'entry.shownDate',
]);
const sort = fc
  .uniqueArray(
    fc.record({
      field: fc.constantFrom(
        'title',
        'stock',
        'sow',
        'starts',
        'shade',
        'ease',
        'entry.name',
        'entry.published',
        'entry.updated',
        'entry.created',
        'entry.shownDate',
        'entry.chance',
      ),
      isAway: fc.boolean(),
      direction: fc.constantFrom('ascending' as const, 'descending' as const),
      blanks: fc.constantFrom('first' as const, 'last' as const),
    }),
    { selector: (s) => s.field, maxLength: 3 },
  )
  .map((keys) =>
    keys.map(({ isAway, ...key }) =>
      isAway && DATED.has(key.field) ? { ...key, from: 'today' as const } : key,
    ),
  );

const query = fc.oneof(
  { weight: 3, arbitrary: fc.record({ where: filter, sort, also: fc.constant([]) }) },
  {
    weight: 1,
    arbitrary: fc.record({
      ...{ where: filter, sort },
      also: fc.constantFrom(['page'], ['page', 'grower']),
    }),
  },
  { weight: 1, arbitrary: named },
);

function rowsOf({ driver }: Connection): ListingRow[] {
  const sql = `SELECT l.entry, e.type, e.created, e.author, e.published, l.starts AS "from", l.ends AS "to", r."values" AS v FROM live_interval AS l JOIN entry AS e ON e.id = l.entry JOIN revision AS r ON r.entry = l.entry AND r.number = l.revision`;
  return (driver.prepare(sql).all() as (ListingRow & { v: string })[]).map((r) => ({
    ...r,
    updated: r.from,
    values: readValues(r.v, 'en'),
  }));
}

/** Entries that stand first, by which of them, from and to one day or another. */
const pinned = fc.array(fc.record({ which: fc.nat(9), from: day, to: fc.option(day) }), {
  maxLength: 4,
});

/** How many of the first a list leaves out, and how many it has at most. */
const CUTS = [
  { skip: undefined, most: undefined },
  { skip: 1, most: 2 },
  { skip: undefined, most: 1 },
];

/** A list that is read by its members: chance seldom makes many. */
const BY_TAG = { where: { field: 'traits', op: 'is', value: 'tall' }, sort: ['title'] };

const places = (reader: SiteReader, plan: ListingPlan, at: number) => (row: ListingRow) =>
  reader.preceding(plan, row, new Validity(at));

test('a listing in SQL gives what the in-memory evaluator gives, at any instant, on any page, with its own index and without', async () => {
  let compared = 0;
  let led = 0;
  let stoodFirst = 0;
  let [merged, picked] = [0, 0];
  await fc.assert(
    fc.asyncProperty(
      randomSite,
      fc.array(query, { minLength: 12, maxLength: 12 }),
      fc.array(day, { minLength: 2, maxLength: 2 }),
      pinned,
      async (files, queries, days, pins) => {
        const specs = [...queries, BY_TAG].map((asked, i) => ({
          ...{ key: `probe${i}`, type: 'variety', pageSize: 2 },
          ...asked,
        }));
        const { connection, view, result } = await loadFiles({
          ...files,
          ...Object.fromEntries(specs.map((spec) => [`listings/${spec.key}.json`, spec])),
        });
        if (!result.ok) return;
        const rows = rowsOf(connection);
        const live = connection.driver
          .prepare('SELECT entry, starts AS "from", ends AS "to" FROM live_interval')
          .all() as { entry: string; from: number; to: number | null }[];
        const instants = [...days.map((d) => Date.parse(d)), Date.parse('2026-07-02T00:00:00Z')];
        for (const spec of specs) {
          for (const at of instants) {
            const { site, reader } = view.at(at)!;
            const indexed = site.listings.get(spec.key)!;
            for (const part of partsOf(indexed))
              expect(hasListingIndex(connection, part)).toBe(namedBy(part.filter) === null);
            const { plan: unsaved } = planPublic(
              listingSpec.parse({ ...spec, key: 'unsaved' }),
              site.design,
            );
            const others: Others = {
              isLive: (id) => live.some((l) => l.entry === id && covers(l, at)),
              row: (id) => rows.find((r) => r.entry === id && covers(r, at)) ?? null,
            };
            const world = reader.filterWorld(at);
            const expected = evaluateListing(indexed, rows, at, world, others);
            const misses = missesOf(connection, site, indexed, {
              ...{ at, world: reader.filterWorld(at), most: 100 },
            })!;
            const liveRows = rows.filter((r) => covers(r, at));
            const ofTypes = partsOf(indexed).map(({ type }) => type.id);
            expect(misses.live).toBe(liveRows.filter((r) => ofTypes.includes(r.type)).length);
            const asked = partsOf(indexed).flatMap((part) => {
              const filters = part.filter.kind === 'all' ? part.filter.filters : [part.filter];
              return filters.map((filter) => ({ part, filter }));
            });
            expect(misses.counts.map(({ count }) => count)).toEqual(
              asked.map(({ part, filter }) => {
                const resolved = resolveFilter(filter, at, part.zone, reader.filterWorld(at));
                const own = liveRows.filter((r) => r.type === part.type.id);
                return own.filter((r) => !holds(resolved, r, others)).length;
              }),
            );
            expect(new Set([...misses.near, ...expected]).size).toBe(misses.live);
            for (const plan of [indexed, unsaved!]) {
              const all = reader.listing(plan, new Validity(at), 0, 100);
              expect({ spec, at, ...all }).toEqual({
                spec,
                at,
                ids: expected,
                total: expected.length,
              });
              expect(reader.listing(plan, new Validity(at), 1, 2)).toEqual({
                ids: expected.slice(1, 3),
                total: expected.length,
              });
              const entries = reader.liveEntries(expected, new Validity(at));
              const own = pins.map(({ which, from, to }) => ({
                entry: rows[which % rows.length]?.entry ?? 'nobody',
                ...{ from: Date.parse(from), to: to === null ? null : Date.parse(to) },
              }));
              const ahead = own.filter((pin) => covers(pin, at)).map(({ entry }) => entry);
              const first = [...new Set(ahead)].filter((id) => expected.includes(id));
              const order = [...first, ...expected.filter((id) => !first.includes(id))];
              stoodFirst += first.length;
              const withPins = { ...plan, pins: own };
              for (const { skip, most } of plan === indexed ? CUTS : CUTS.slice(0, 1)) {
                const cut = { ...withPins, listing: { ...plan.listing, ...{ skip, most } } };
                const kept = order.slice(skip).slice(0, most);
                for (const [i, id] of [...order, ''].entries()) {
                  const stretch = stretchOf(reader, cut, new Validity(at), i, 2);
                  const expectedStretch = { ids: kept.slice(i, i + 2), total: kept.length };
                  expect({ ...stretch }).toEqual(expectedStretch);
                  const entry = entries.get(id);
                  if (!entry) continue;
                  const place = kept.indexOf(id);
                  const found = placeIn(reader, cut, entry, new Validity(at));
                  expect(found).toBe(place < 0 ? null : place);
                  expect(besideIn(reader, cut, entry, new Validity(at))).toEqual({
                    isIn: place >= 0,
                    before: place < 0 ? null : (kept[place - 1] ?? null),
                    after: place < 0 ? null : (kept[place + 1] ?? null),
                  });
                }
              }
              for (const [i, id] of expected.entries()) {
                const row = rowOf(entries.get(id)!);
                const around = { before: expected[i - 1] ?? null, after: expected[i + 1] ?? null };
                const next = reader.neighbours(plan, row, new Validity(at));
                expect(next).toEqual({ isIn: true, ...around });
                const others = reader.neighbours(plan, row, new Validity(at), [id]);
                expect(others).toEqual({ isIn: false, ...around });
              }
              expect([...entries.values()].map(rowOf).map(places(reader, plan, at))).toEqual(
                [...entries.keys()].map((id) => expected.indexOf(id)),
              );
            }
            compared += expected.length;
            if (leadingMember(indexed) !== null) led += expected.length;
            if (namedBy(indexed.filter)) picked += expected.length;
            else if (indexed.also.length > 0) merged += expected.length;
          }
        }
      },
    ),
    { numRuns: Number(process.env.LONG ?? 40) },
  );
  expect(compared).toBeGreaterThan(150);
  expect(led).toBeGreaterThan(10);
  expect(stoodFirst).toBeGreaterThan(10);
  expect(merged).toBeGreaterThan(40);
  expect(picked).toBeGreaterThan(40);
});

test('every column a filter may name has an operator test above', async () => {
  const { view } = await loadFiles(DESIGN);
  const variety = view.at(Date.now())!.site.types.get('variety')!;
  const named = [...columnsOf(variety).keys()].filter((k) => !k.startsWith('entry.'));
  expect(named.sort()).toEqual(
    Object.keys(FAMILIES)
      .filter((k) => !k.startsWith('entry.'))
      .sort(),
  );
});

test('sort keys: white space < punctuation < digits < letters; accents after letters; lower before upper', () => {
  const ordered = [
    'a b',
    'a-b',
    'a1',
    'a10',
    'a2',
    'aa',
    'ab',
    'Ab',
    'áb',
    'Áb',
    'abc',
    'zoo',
    'ß',
    'я',
  ];
  fc.assert(
    fc.property(fc.shuffledSubarray(ordered, { minLength: ordered.length }), (shuffled) => {
      expect(shuffled.sort((x, y) => (sortKey(x) < sortKey(y) ? -1 : 1))).toEqual(ordered);
    }),
  );
});

test('sort keys compare as bytes in SQLite as they do in memory', async () => {
  const { connection } = await loadFiles({
    'types/t.json': { key: 't', fields: [{ key: 'title', kind: 'text' }] },
  });
  const bySql = connection.driver.prepare('SELECT ? < ?').pluck();
  fc.assert(
    fc.property(fc.string({ unit: 'binary' }), fc.string({ unit: 'binary' }), (a, b) => {
      expect(bySql.get(sortKey(a), sortKey(b)) === 1).toBe(sortKey(a) < sortKey(b));
    }),
    { numRuns: 2000 },
  );
});
