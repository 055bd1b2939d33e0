import fc from 'fast-check';
import { describe, expect, test } from 'vitest';
import { Validity } from '@/core/time/interval.ts';
import { onPageOf } from '@/core/listing/of-page.ts';
import { withEntries } from '@/server/store/overlay-reader.ts';
import type { EntryView } from '@/core/design/values.ts';
import type { SiteView } from '@/server/queries/site-view.ts';
import { type Files, at, loadFiles } from '../helpers/folder.ts';

const TYPES: Files = {
  'types/boat.json': {
    key: 'boat',
    address: '/{name}',
    fields: [
      { key: 'name', kind: 'text' },
      { key: 'size', kind: 'number' },
      { key: 'owner', kind: 'reference', types: ['sailor', 'club'] },
      { key: 'crew', kind: 'reference', types: ['sailor'], many: true },
    ],
  },
  'types/sailor.json': {
    key: 'sailor',
    fields: [
      { key: 'name', kind: 'text' },
      { key: 'town', kind: 'text' },
      { key: 'joined', kind: 'date' },
      { key: 'likes', kind: 'number' },
      { key: 'signs', kind: 'choice', options: ['red', 'blue'], many: true },
    ],
  },
  'types/club.json': {
    key: 'club',
    fields: [
      { key: 'name', kind: 'text' },
      { key: 'town', kind: 'text' },
    ],
  },
};

interface Sailor {
  town: string | null;
  joined: string | null;
  signs: string[];
  from: string;
  to: string | null;
}
const day = fc.constantFrom('2026-02-01', '2026-04-01', '2026-06-01');
const town = fc.option(fc.constantFrom('Kinvara', 'KINVARA', 'Doolin'));
const run = fc.constantFrom(
  { from: '2026-01-15', to: null },
  { from: '2026-03-01', to: '2026-05-01' },
);
const sailor = fc
  .record({ town, joined: fc.option(day), signs: fc.subarray(['red', 'blue']), run })
  .map(({ run: times, ...own }): Sailor => ({ ...own, ...times }));
const boat = fc.record({
  size: fc.integer({ min: 0, max: 2 }),
  owner: fc.option(fc.constantFrom('s0', 's1', 'c0', 's3')),
  crew: fc.subarray(['s0', 's1', 's2']),
});
type Boat = typeof boat extends fc.Arbitrary<infer B> ? B : never;

const stored = (id: string, live: object[], values: object): object => ({
  entry: { id, created: '2026-01-01', saved: '2026-01-01', live },
  ...Object.fromEntries(Object.entries(values).filter(([, value]) => value !== null)),
});

/** What is asked, and whether one of those led to passes it, for operators that affirm. */
const ASKED = [
  {
    rest: 'town',
    op: 'is',
    value: 'kinvara',
    of: (s: Sailor) => s.town?.toLowerCase() === 'kinvara',
  },
  { rest: 'town', op: 'contains', value: 'oo', of: (s: Sailor) => s.town?.includes('oo') ?? false },
  { rest: 'town', op: 'not-blank', of: (s: Sailor) => s.town !== null },
] as const;
const OF_SAILORS = [
  { rest: 'signs', op: 'any-of', value: ['blue'], of: (s: Sailor) => s.signs.includes('blue') },
  {
    ...{ rest: 'joined', op: 'before', value: 'today' },
    of: (s: Sailor, today: string) => s.joined !== null && s.joined < today,
  },
] as const;
const DENIES = { is: 'is-not', 'not-blank': 'blank', 'any-of': 'none-of' } as const;

const asked = fc.oneof(
  fc.record({
    head: fc.constantFrom('owner', 'crew'),
    what: fc.constantFrom(...ASKED),
    isDenied: fc.boolean(),
  }),
  fc.record({
    head: fc.constant('crew'),
    what: fc.constantFrom(...OF_SAILORS),
    isDenied: fc.boolean(),
  }),
);

test('what is asked of entries that a reference leads to is asked of those that are live', async () => {
  let [held, denied] = [0, 0];
  await fc.assert(
    fc.asyncProperty(
      fc.tuple(sailor, sailor, sailor),
      sailor,
      fc.array(boat, { minLength: 3, maxLength: 6 }),
      fc.array(asked, { minLength: 6, maxLength: 6 }),
      async (sailors, club, boats, conditions) => {
        const all = Object.fromEntries([
          ...sailors.map((s, i) => [`s${i}`, s] as const),
          ['s3', { ...sailors[0], from: '2030-01-01', to: null }] as const,
          ['c0', { ...club, signs: [], joined: null }] as const,
        ]);
        const { view } = await loadFiles({
          ...TYPES,
          ...filesOf(all, boats),
          ...Object.fromEntries(
            conditions.map(({ head, what, isDenied }, i) => {
              const op = isDenied ? (DENIES[what.op as keyof typeof DENIES] ?? what.op) : what.op;
              const value = 'value' in what ? { value: what.value } : {};
              const where = { field: `${head}.${what.rest}`, op, ...value };
              return [
                `listings/l${i}.json`,
                { key: `l${i}`, type: 'boat', where, sort: ['-size'] },
              ];
            }),
          ),
        });
        for (const when of ['2026-02-01', '2026-04-01', '2026-07-01'])
          conditions.forEach(({ head, what, isDenied }, i) => {
            const isOther = isDenied && what.op in DENIES;
            const expected = boats
              .map((own, n) => ({ id: `b${n}`, ...own }))
              .filter((own) => {
                const ids = head === 'owner' ? [own.owner ?? ''] : own.crew;
                const led = ids.flatMap((id) => all[id] ?? []);
                const live = led.filter((s) => s.from <= when && (s.to === null || when < s.to));
                return live.some((s) => what.of(s, when)) !== isOther;
              })
              .sort((a, b) => b.size - a.size)
              .map(({ id }) => id);
            if (isOther) denied += expected.length;
            else held += expected.length;
            const found = listed(view, `l${i}`, when);
            expect({ head, op: what.op, isOther, when, found }).toEqual({
              ...{ head, op: what.op, isOther, when },
              found: expected,
            });
          });
      },
    ),
    { numRuns: Number(process.env['LONG'] ?? 25) },
  );
  expect(Math.min(held, denied)).toBeGreaterThan(0);
});

function filesOf(all: Record<string, Sailor>, boats: Boat[]): Files {
  return {
    ...Object.fromEntries(
      Object.entries(all).map(([id, { from, to, ...values }]) => {
        const type = id.startsWith('c') ? 'club' : 'sailor';
        const { signs: _s, joined: _j, ...ofClub } = values;
        const own = type === 'club' ? ofClub : values;
        return [`entries/${type}/${id}.json`, stored(id, [{ from, to }], { name: id, ...own })];
      }),
    ),
    ...Object.fromEntries(
      boats.map((values, i) => [
        `entries/boat/b${i}.json`,
        stored(`b${i}`, [{ from: '2026-01-01', to: null }], { name: `b${i}`, ...values }),
      ]),
    ),
  };
}

function listed(view: SiteView, key: string, when: string): string[] {
  const { site, reader } = view.at(at(when))!;
  const plan = site.listings.get(key)!;
  const validity = new Validity(at(when));
  const { ids, total } = reader.listing(plan, validity, 0, 100);
  expect(total).toBe(ids.length);
  const later = reader.listing(
    plan,
    new Validity((validity.until ?? at('2027-01-01')) - 1),
    0,
    100,
  );
  expect(later.ids).toEqual(ids);
  return ids;
}

const KINVARA: Sailor = { town: 'Kinvara', joined: null, signs: [], from: '2026-01-01', to: null };
const DOOLIN = { ...KINVARA, town: 'Doolin' };
const loadBoats = (listing: object, more: Files = {}) =>
  loadFiles({
    ...TYPES,
    ...filesOf({ s0: KINVARA, s1: DOOLIN, c0: KINVARA }, [
      { size: 0, owner: 's0', crew: ['s1'] },
      { size: 0, owner: 's0', crew: [] },
      { size: 1, owner: 's1', crew: ['s0', 's1'] },
      { size: 2, owner: 'c0', crew: [] },
    ]),
    'listings/list.json': { key: 'list', type: 'boat', ...listing },
    ...more,
  });

describe('a condition through a reference', () => {
  test('sees what an unsaved entry has that others lead to', async () => {
    const { view } = await loadBoats({ where: { field: 'owner.town', op: 'is', value: 'Doolin' } });
    const { site, reader } = view.at(at('2026-07-01'))!;
    const validity = new Validity(at('2026-07-01'));
    const own = reader.liveEntries(['s0'], validity).get('s0')!;
    const town = own.type.fields.find(({ key }) => key === 'town')!;
    const moved: EntryView = { ...own, values: { ...own.values, [town.id]: 'Doolin' } };
    const seen = withEntries(reader, { entries: [moved], moved: new Map() });
    const plan = site.listings.get('list')!;
    expect(reader.listing(plan, validity, 0, 9).ids).toEqual(['b2']);
    expect(seen.listing(plan, validity, 0, 9)).toEqual({ ids: ['b0', 'b1', 'b2'], total: 3 });
  });

  test.each([
    ['owner.harbour', 'where/field: What Owner leads to has no field "harbour".'],
    ['crew.town.deep', 'where/field: What Crew leads to has no field "town.deep".'],
    ['size.town', 'where/field: Boat has no field "size.town".'],
  ])('that asks of %s is refused', async (field, words) => {
    const { result } = await loadBoats({ where: { field, op: 'not-blank' } });
    const issues = result.ok ? [] : result.issues;
    expect(issues.map(({ path = '', message }) => `${path}: ${message}`).join()).toContain(
      words.split(': ')[1],
    );
  });
});

describe('a listing that compares with what the page’s entry has', () => {
  const others = {
    where: {
      all: [
        { field: 'owner', op: 'is', value: { page: 'owner' } },
        { field: 'entry', op: 'is-not', value: { page: 'entry' } },
      ],
    },
  };
  const on = async (listing: object, id: string | null): Promise<string[]> => {
    const { view, result } = await loadBoats(listing);
    expect(result.ok ? [] : result.issues).toEqual([]);
    const { site, reader } = view.at(at('2026-07-01'))!;
    const validity = new Validity(at('2026-07-01'));
    const entry = id === null ? null : (reader.liveEntries([id], validity).get(id) ?? null);
    return reader.listing(onPageOf(site.listings.get('list')!, entry), validity, 0, 9).ids;
  };

  test.each([
    ['others by the same', others.where, 'b0', ['b1']],
    ['nobody else', others.where, 'b3', []],
    [
      'those that refer to it',
      { field: 'crew', op: 'is', value: { page: 'entry' } },
      's1',
      ['b0', 'b2'],
    ],
    [
      'those it refers to',
      { field: 'owner', op: 'any-of', value: { page: 'crew' } },
      'b2',
      ['b0', 'b1', 'b2'],
    ],
    ['any of one text', { field: 'name', op: 'any-of', value: { page: 'name' } }, 'b0', ['b0']],
    [
      'none of one text',
      { field: 'name', op: 'none-of', value: { page: 'name' } },
      'b0',
      ['b1', 'b2', 'b3'],
    ],
    ['what has it', { field: 'name', op: 'contains', value: { page: 'name' } }, 'b1', ['b1']],
    [
      'what is smaller',
      { field: 'size', op: 'less-than', value: { page: 'size' } },
      'b3',
      ['b0', 'b1', 'b2'],
    ],
    ['of the same town', { field: 'owner.town', op: 'is', value: { page: 'town' } }, 's1', ['b2']],
    [
      'what nothing is compared with',
      { field: 'owner', op: 'is', value: { page: 'owner' } },
      's1',
      [],
    ],
    [
      'all that is not nothing',
      { field: 'owner', op: 'is-not', value: { page: 'owner' } },
      's1',
      ['b0', 'b1', 'b2', 'b3'],
    ],
    ['nothing without a page', { field: 'owner', op: 'is', value: { page: 'owner' } }, null, []],
  ])('has %s', async (_, where, id, expected) => {
    expect(await on({ where }, id)).toEqual(expected);
  });

  test('is drawn on each page with what belongs there, and has no page of its own', async () => {
    const block = { block: 'listing', listing: 'list', heading: 'By the same' };
    const template = { key: 'boat', kind: 'page', type: 'boat', blocks: [block] };
    const boat = { ...(TYPES['types/boat.json'] as object), template: 'boat' };
    const more = { 'templates/boat.json': template, 'types/boat.json': boat };
    const { view } = await loadBoats(others, more);
    const html = (path: string): string => view.render(path, at('2026-07-01'))!.body;
    expect(html('/b0')).toContain('b1');
    expect(html('/b1')).toContain('b0');
    expect(html('/b3')).toContain('Nothing here at the moment.');
    const addressed = await loadBoats({ ...others, address: '/others' });
    expect(addressed.result.ok ? [] : addressed.result.issues.map(({ code }) => code)).toContain(
      'no-page-entry',
    );
  });

  test('is refused where the page’s entries have no such field', async () => {
    const block = { block: 'listing', listing: 'list' };
    const template = { key: 'club', kind: 'page', type: 'club', blocks: [block] };
    const club = { ...(TYPES['types/club.json'] as object), template: 'club' };
    const more = { 'templates/club.json': template, 'types/club.json': club };
    const { result } = await loadBoats(others, more);
    expect(result.ok ? [] : result.issues.map(({ code }) => code)).toContain('no-page-field');
  });
});

test('a condition compares with what the site is called', async () => {
  const where = { field: 'name', op: 'is', value: { site: 'name' } };
  const more = {
    'site.yaml': {
      name: 'B1',
      url: 'https://boats.example',
      zone: 'Europe/Dublin',
      language: 'en',
    },
  };
  const { view } = await loadBoats({ where }, more);
  expect(listed(view, 'list', '2026-07-01')).toEqual(['b1']);
});
