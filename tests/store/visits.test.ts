import fc from 'fast-check';
import { expect, test } from 'vitest';
import type { EntryView } from '@/core/design/values.ts';
import { rowOf } from '@/core/listing/columns.ts';
import { countedAs, countedTogether } from '@/core/listing/counted.ts';
import { evaluateListing } from '@/core/listing/evaluate.ts';
import { type Visit, visited } from '@/core/listing/visit.ts';
import { withEntries } from '@/server/store/overlay-reader.ts';
import { Validity } from '@/core/time/interval.ts';
import { type Files, loadFiles } from '../helpers/folder.ts';
import { day, randomSite } from '../helpers/random-site.ts';

const NARROWED = {
  ...{ key: 'narrowed', type: 'variety', also: ['page'], address: '/narrowed', pageSize: 2 },
  sort: ['title'],
  visitor: {
    filters: ['ease', 'shade', 'traits', 'family', 'grower'],
    search: ['title'],
    orders: [{ key: 'most', sort: ['-stock', 'entry.name'] }],
  },
};
/** Of one type, searched by words besides its names, some of which it is not called by. */
const WORDED = {
  ...{ key: 'worded', type: 'variety', address: '/worded', pageSize: 2, sort: ['-stock'] },
  where: { field: 'shade', op: 'is-not', value: true },
  visitor: {
    filters: ['ease', 'traits', 'grower'],
    search: ['said'],
    orders: [{ key: 'most', sort: ['sow', 'entry.name'] }],
  },
};
const BOTH = {
  ...{
    key: 'both',
    type: 'variety',
    address: '/both',
    pageSize: 2,
    sort: [{ field: 'sow', from: 'today' }],
  },
  visitor: { ...NARROWED.visitor, search: ['said', 'title'] },
};
/** A type with more words, some of them those of its title. */
const withWords = (files: Files): Files => {
  const type = files['types/variety.json'] as { fields: object[] };
  const said = { key: 'said', kind: 'text' };
  const all: Files = {
    ...files,
    'types/variety.json': { ...type, fields: [...type.fields, said] },
  };
  const entries = Object.entries(files).filter(([path]) => path.startsWith('entries/variety/'));
  entries.forEach(([path, entry], i) => {
    const { title } = entry as { title: string };
    all[path] = { ...(entry as object), said: i % 2 === 0 ? `Easy ${title}` : 'Peas, easy' };
  });
  return all;
};
const one = (name: string, ...values: string[]): fc.Arbitrary<[string, string[]]> =>
  fc.subarray(values, { minLength: 1 }).map((some) => [name, some]);
const wanted = fc.uniqueArray(
  fc.oneof(
    one('ease', 'easy', 'hard', 'nothing'),
    one('shade', 'yes', 'no'),
    one('traits', 'tall', 'early'),
    one('family', 'legumes', 'beans', 'peas'),
    one('grower', 'g0', 'g1'),
  ),
  { maxLength: 2, selector: ([name]) => name },
);
const visit: fc.Arbitrary<Visit> = fc.record({
  wanted: wanted.map((w) => new Map(w)),
  search: fc.oneof(
    { weight: 2, arbitrary: fc.constant('') },
    {
      weight: 3,
      arbitrary: fc.constantFrom('pea', 'PÉ', 'b', '"blue bean"', 'bean blue', 'easy'),
    },
    { weight: 1, arbitrary: fc.constantFrom('"lue bean"', 'pea bean', '"zebra 1"', 'a') },
  ),
  order: fc.constantFrom(null, 'most'),
});

test('a list is what a visitor wants of it, counted by value, at any instant', async () => {
  let [found, counted] = [0, 0];
  const tried = new Set<string>();
  await fc.assert(
    fc.asyncProperty(
      randomSite,
      fc.array(visit, { minLength: 10, maxLength: 10 }),
      fc.tuple(day, day),
      fc.constantFrom(NARROWED, WORDED, BOTH),
      async (files, visits, days, listing) => {
        const { view, result } = await loadFiles({
          ...withWords(files),
          [`listings/${listing.key}.json`]: listing,
        });
        if (!result.ok) return;
        tried.add(listing.key);
        const instants = [...days.map((d) => Date.parse(d)), Date.parse('2026-07-02T00:00:00Z')];
        for (const at of instants) {
          const { site, reader } = view.at(at)!;
          const validity = new Validity(at);
          const all = site.listings.get(listing.key)!;
          const { ids } = reader.listing(all, validity, 0, 100);
          const rows = [...reader.liveEntries(ids, validity).values()].map(rowOf);
          const isLive = (id: string): boolean => reader.liveEntries([id], validity).has(id);
          const world = {
            ...reader.filterWorld(at),
            subjectsOf: (set: string) => reader.subjectsOf(set, validity),
            isLive,
          };
          const shown = [...reader.liveEntries(ids.slice(0, 2), validity).values()].map(
            (entry): EntryView => ({
              ...entry,
              values: { ...entry.values, title: 'Blue pea', traits: ['tall'], ease: 'hard' },
            }),
          );
          const seen = withEntries(reader, { entries: shown, moved: new Map() });
          const rowsSeen = rows.map((row) =>
            rowOf(
              shown.find((e) => e.id === row.entry) ?? {
                ...reader.liveEntries([row.entry], validity).get(row.entry)!,
              },
            ),
          );
          for (const asked of visits) {
            const plan = visited(all, asked);
            for (const [read, from] of [
              [reader, rows],
              [seen, rowsSeen],
            ] as const) {
              const expected = evaluateListing(plan, from, at, world, {
                ...world,
                row: () => null,
              });
              const told = { asked: [...asked.wanted], search: asked.search, at };
              expect({ ...told, ...read.listing(plan, validity, 0, 100) }).toEqual({
                ...told,
                ids: expected,
                total: expected.length,
              });
              expect(read.listing(plan, validity, 1, 2).ids).toEqual(expected.slice(1, 3));
              found += asked.search === '' ? 0 : expected.length;
              const inIt = from.filter(({ entry }) => expected.includes(entry));
              for (const { name } of plan.visitor!.filters) {
                const counts = countedTogether(
                  inIt.map((row) => countedAs(plan, name, row, world)),
                );
                const got = read.counts(plan, name, validity);
                expect({ ...told, name, got: [...got].sort() }).toEqual({
                  ...told,
                  name,
                  got: [...counts].sort(),
                });
                counted += counts.size;
                // A count is how many there are where that is wanted besides.
                for (const [value, count] of counts) {
                  if (asked.wanted.has(name)) continue;
                  const more = visited(all, {
                    ...asked,
                    wanted: new Map([...asked.wanted, [name, [value]]]),
                  });
                  expect(read.listing(more, validity, 0, 1).total).toBe(count);
                }
              }
            }
          }
        }
      },
    ),
    { numRuns: Number(process.env.LONG ?? 40) },
  );
  expect([...tried].sort()).toEqual(['both', 'narrowed', 'worded']);
  expect(found).toBeGreaterThan(50);
  expect(counted).toBeGreaterThan(100);
});
