import fc from 'fast-check';
import { drawing } from './drawings.ts';
import type { Files } from './folder.ts';
import { inGerman, someInGerman } from './random-languages.ts';
import { LISTINGS } from './random-listings.ts';
import { RICH_FILES, RICH_TYPES } from './rich-site.ts';

/** Days of 2026 as ISO instants; few enough that bounds coincide often. */
export const day = fc
  .integer({ min: 0, max: 11 })
  .map((m) => `2026-${String(m + 1).padStart(2, '0')}-01T00:00:00Z`);

const title = fc.constantFrom(
  'Pea',
  'pea',
  'Péa',
  'Bean',
  'Blue Bean',
  '★',
  'Build',
  'Zebra 10',
  'Zebra 9',
);
const interval = fc
  .tuple(day, fc.option(day))
  .map(([a, b]) =>
    b === null || a === b ? { from: a, to: null } : a < b ? { from: a, to: b } : { from: b, to: a },
  );

/** Written intervals that do not overlap: those that would are left out. */
const intervals = (maxLength: number): fc.Arbitrary<{ from: string; to: string | null }[]> =>
  fc.array(interval, { maxLength }).map((all) => {
    const kept: { from: string; to: string | null }[] = [];
    for (const next of [...all].sort((a, b) => (a.from < b.from ? -1 : 1))) {
      const last = kept.at(-1);
      if (!last || (last.to !== null && last.to <= next.from)) kept.push(next);
    }
    return kept;
  });

/** Who stands in picks when, in any order. */
const members = fc
  .tuple(intervals(2), intervals(2), intervals(1))
  .map((all) =>
    all.flatMap((own, i) =>
      own.map(({ from, to }) => ({ entry: ['g0', 'p1', 'g1'][i], from, ...(to ? { to } : {}) })),
    ),
  )
  .chain((all) => fc.shuffledSubarray(all));

const grower = fc.record({
  title: fc.constantFrom('Ana', 'Bo'),
  live: intervals(2),
});
const variety = fc.record({
  title,
  early: title,
  stock: fc.option(fc.integer({ min: 0, max: 3 })),
  sow: fc.option(day.map((d) => d.slice(0, 10))),
  starts: fc.option(day),
  shade: fc.option(fc.boolean()),
  ease: fc.option(fc.constantFrom('easy', 'hard')),
  traits: fc.subarray(['tall', 'early']),
  family: fc.option(fc.constantFrom('legumes', 'beans', 'peas')),
  grower: fc.option(fc.constantFrom('g0', 'g1')),
  photo: fc.option(fc.constantFrom('pea.svg', 'bean.svg')),
  listed: fc.option(fc.boolean(), { freq: 2 }),
  revised: fc.boolean(),
  live: intervals(3),
  byHand: fc.option(
    fc.constantFrom(
      { path: '/hand', from: '2026-03-01T00:00:00Z', to: '2026-06-01T00:00:00Z' },
      { path: '/other', from: '2026-02-01T00:00:00Z', to: null },
    ),
  ),
});
const byHandAt = (...paths: string[]): fc.Arbitrary<object | null> =>
  fc.option(
    fc.record({
      path: fc.constantFrom(...paths),
      from: fc.constantFrom('2026-01-01T00:00:00Z', '2026-03-01T00:00:00Z'),
      to: fc.constantFrom(null, '2026-06-01T00:00:00Z'),
    }),
    { freq: 3 },
  );
const event = fc.record({
  title: fc.constantFrom('Swap', 'Fair', 'Walk'),
  early: fc.constantFrom('Swap', 'Fair', 'Walk'),
  live: intervals(1),
});
const part = fc.record({ live: intervals(2), byHand: byHandAt('/part') });
const story = fc.record({
  title: fc.constantFrom('Frost', 'Rain', 'Sun'),
  body: fc.constantFrom(
    'A *short* one.',
    '## Head\n\n- one\n- two',
    'Drawn: ![](media/pea.svg) ![So](media/bean.svg)',
    'See [her](entry:g0) and **[it](entry:p1 "There")**, :style[softly]{name=soft}.',
    '::entry[p0]\n\n:::style[lead]\n:underline[First] words.\n:::',
    ':::part[box]{title="A box" who="g1"}\n::::field[said]\n# Of [Bo](entry:g1)\n\n::entry[g0]\n::::\n:::',
  ),
  about: fc.option(fc.constantFrom('g0', 'g1', 'p1', 's0')),
  traits: fc.subarray(['tall', 'early']),
  family: fc.option(fc.constantFrom('legumes', 'beans')),
  when: fc.option(day.map((d) => d.slice(0, 10))),
  see: fc.option(
    fc.constantFrom({ entry: 'g0' }, { entry: 'p1', words: 'There' }, { to: '/now', words: 'Now' }),
  ),
  parts: fc.array(
    fc.record(
      {
        name: title,
        who: fc.constantFrom('g0', 'g1'),
        marks: fc.subarray(['tall', 'early']),
        on: day.map((d) => d.slice(0, 10)),
        inner: fc.constantFrom({ see: { entry: 'p0' } }, { see: '/now' }, {}),
      },
      { requiredKeys: [] },
    ),
    { maxLength: 2 },
  ),
  live: intervals(2),
});
const page = fc.record({
  title: fc.constantFrom('Home', 'About', 'Team'),
  early: fc.constantFrom('Home', 'About', 'Team'),
  revised: fc.boolean(),
  created: fc.constantFrom('2026-01-01', '2026-01-02'),
  within: fc.option(fc.constantFrom('p0', 'p1', 'p2')),
  byHand: byHandAt('/by-hand', '/about', '/home'),
  live: intervals(3),
});

export const DESIGN: Files = {
  'subjects/family.json': {
    key: 'family',
    kind: 'tree',
    subjects: [
      {
        key: 'legumes',
        name: 'Legumes',
        below: [
          { key: 'beans', name: 'Beans' },
          { key: 'peas', name: 'Peas' },
        ],
      },
    ],
  },
  'subjects/traits.json': {
    key: 'traits',
    kind: 'tags',
    subjects: [
      { key: 'tall', name: 'Tall' },
      { key: 'early', name: 'Early' },
    ],
  },
  'media/pea.svg': drawing('green'),
  'media/bean.svg': drawing('brown'),
  'media/alt.yaml': { 'pea.svg': 'A pea', 'bean.svg': { caption: 'Beans', focus: [10, 90] } },
  'types/grower.json': {
    key: 'grower',
    address: '/growers/{title}',
    fields: [{ key: 'title', kind: 'text' }],
  },
  'types/variety.json': {
    key: 'variety',
    address: '/{grower.title ?? "seeds"}/{title}',
    fields: [
      { key: 'title', kind: 'text' },
      { key: 'stock', kind: 'number' },
      { key: 'sow', kind: 'date' },
      { key: 'starts', kind: 'datetime' },
      { key: 'shade', kind: 'yesno' },
      { key: 'ease', kind: 'choice', options: ['easy', 'hard'] },
      { key: 'traits', kind: 'tags', set: 'traits' },
      { key: 'family', kind: 'category', set: 'family' },
      { key: 'grower', kind: 'reference', types: ['grower'], otherSide: 'varieties' },
      { key: 'photo', kind: 'media' },
    ],
  },
  'types/page.json': {
    key: 'page',
    address: '[{within.path}]/{title}',
    fields: [
      { key: 'title', kind: 'text' },
      { key: 'inside', kind: 'reference', types: ['page'], sitsWithin: true },
    ],
  },
  'types/event.json': {
    key: 'event',
    address: '/events/{title}',
    clash: 'refuse',
    fields: [{ key: 'title', kind: 'text' }],
  },
  'types/part.json': {
    key: 'part',
    fields: [
      { key: 'title', kind: 'text' },
      { key: 'place', kind: 'number', position: true },
    ],
  },
  'picks/shelf.json': { key: 'shelf', id: 'on-the-shelf', label: 'Shelf' },
  ...LISTINGS,
  'templates/variety.json': {
    key: 'variety',
    kind: 'page',
    type: 'variety',
    blocks: [
      { block: 'heading', text: '{title} by {grower.title ?? "nobody"}', level: 1 },
      { block: 'listing', listing: 'now', limit: 2 },
      { block: 'picture', field: 'photo', ratio: '1:1', caption: true },
      { block: 'cards', field: 'grower' },
      { block: 'months', from: 'sow', until: 'sow' },
      { block: 'beside', listing: 'all' },
      { block: 'listing', listing: 'beside', limit: 2 },
      {
        block: 'condition',
        where: {
          any: [
            { field: 'sow', op: 'before', value: 'today - 3' },
            {
              all: [
                { field: 'starts', op: 'on-or-before', value: 'now + PT5H' },
                { field: 'grower', op: 'not-blank' },
              ],
            },
            { field: 'family', op: 'is', value: 'beans' },
          ],
        },
        blocks: [{ block: 'text', text: 'In' }],
        otherwise: [{ block: 'number', field: 'stock' }],
      },
      {
        block: 'condition',
        from: '2026-03-10T08:00',
        until: '2026-05-02',
        blocks: [{ block: 'text', text: 'In season' }],
      },
    ],
  },
};

/** What a variety has otherwise than its type: whether lists show it, and the date it shows. */
const ownOf = (listed: boolean | null, i: number): object => ({
  ...(listed === null ? {} : { listed }),
  ...(i % 2 === 0 ? {} : { date: (['published', 'none', 'updated'] as const)[(i >> 1) % 3] }),
});

/** A small random site as the files of its folder, in its plain form or any. */
const siteOf = (isRich: fc.Arbitrary<boolean>): fc.Arbitrary<Files> =>
  fc
    .record({
      growers: fc.array(grower, { minLength: 2, maxLength: 2 }),
      varieties: fc.array(variety, { maxLength: 6 }),
      pages: fc.array(page, { minLength: 3, maxLength: 4 }),
      events: fc.array(event, { maxLength: 2 }),
      parts: fc.array(part, { maxLength: 1 }),
      stories: fc.array(story, { maxLength: 3 }),
      isRich,
      listed: fc.option(fc.boolean()),
      shelf: members,
      front: fc.constantFrom({}, { front: { entry: 'p0' } }, { front: { listing: 'all' } }),
    })
    .map(({ growers, varieties, pages, events, parts, stories, isRich, listed, shelf, front }) => {
      const files: Files = {
        ...DESIGN,
        ...(isRich ? RICH_FILES : {}),
        'site.yaml': {
          name: 'Random',
          url: 'https://random.example',
          zone: 'Europe/Dublin',
          language: 'en',
          ...front,
          ...(isRich ? { frame: 'frame' } : {}),
        },
      };
      const variety = DESIGN['types/variety.json'] as object;
      const date = listed === true ? { date: 'updated' } : {};
      const presets = listed === null ? {} : { presets: { listed, ...date } };
      files['types/variety.json'] = { ...variety, ...presets, template: 'variety' };
      if (isRich)
        for (const [path, more] of Object.entries(RICH_TYPES))
          files[path] = { ...(files[path] as object), ...more };
      files['picks/shelf.json'] = { ...(files['picks/shelf.json'] as object), members: shelf };
      if (isRich)
        stories.forEach(({ live, title: t, ...values }, i) => {
          files[`entries/story/s${i}.json`] = {
            entry: { id: `s${i}`, created: '2026-01-01', saved: '2026-01-01', live },
            title: t,
            ...Object.fromEntries(Object.entries(values).filter(([, value]) => value !== null)),
          };
        });
      growers.forEach(
        ({ live, ...g }, i) =>
          (files[`entries/grower/g${i}.json`] = {
            entry: { id: `g${i}`, created: '2026-01-01', saved: '2026-01-01', live },
            ...g,
          }),
      );
      pages.forEach(
        ({ live, within, title: t, early, revised, created, byHand }, i) =>
          (files[`entries/page/p${i}.json`] = {
            entry: {
              id: `p${i}`,
              created,
              saved: revised ? '2026-04-01' : '2026-01-01',
              live,
              ...(revised
                ? {
                    revisions: [{ saved: '2026-01-01', values: { title: early } }],
                    plans: [{ at: '2026-04-15', do: 'publish' }],
                  }
                : {}),
              ...(byHand && i < 2 ? { address: [byHand] } : {}),
            },
            title: t,
            ...(within === null || within >= `p${i}` ? {} : { inside: within }),
          }),
      );
      events.forEach(
        ({ live, title: t, early }, i) =>
          (files[`entries/event/e${i}.json`] = {
            entry: {
              id: `e${i}`,
              created: '2026-01-01',
              saved: '2026-04-01',
              live,
              plans: live.length === 0 ? [] : [{ at: '2026-05-01T00:00:00Z', do: 'publish' }],
              revisions: [{ saved: '2026-01-01', values: { title: early } }],
            },
            title: t,
          }),
      );
      parts.forEach(
        ({ live, byHand }, i) =>
          (files[`entries/part/t${i}.json`] = {
            entry: {
              id: `t${i}`,
              created: '2026-01-01',
              saved: '2026-01-01',
              live,
              ...(byHand ? { address: [byHand] } : {}),
            },
            title: 'Part',
          }),
      );
      varieties.forEach(({ live, early, revised, byHand, listed: own, ...v }, i) => {
        const revisions = revised ? [{ saved: '2026-01-01', values: { title: early } }] : [];
        const plans = revised ? [{ at: '2026-04-15', do: 'publish' }] : [];
        files[`entries/variety/v${i}.json`] = {
          entry: {
            id: `v${i}`,
            created: `2026-01-0${1 + (i % 3)}`,
            saved: revised ? '2026-04-01' : '2026-01-01',
            live: live.map((l) => ({ ...l, revision: null })),
            plans,
            ...(i % 3 === 0 ? {} : { author: i % 3 === 1 ? 'Ann' : 'Bo' }),
            revisions,
            ...(own === null && i % 2 === 0 ? {} : { presets: ownOf(own, i) }),
            ...(byHand && i === 0 ? { address: [byHand] } : {}),
          },
          ...Object.fromEntries(Object.entries(v).filter(([, value]) => value !== null)),
        };
      });
      return files;
    });

/** A small random site as the files of its folder. */
export const randomSite = someInGerman(siteOf(fc.boolean()));
/** One that is in German, too. */
export const germanSite = inGerman(siteOf(fc.boolean()));
/** One whose types have the addresses that every site has, and no redirects by hand. */
export const plainSite = siteOf(fc.constant(false));
