import fc from 'fast-check';
import { FIELD_KINDS } from '@/core/design/kinds/index.ts';

const entry = fc.constantFrom('v0', 'v1', 'v2', 'g0', 'g1', 'p0', 'p1', 's0', 's1', 't0');
const minutes = fc.integer({ min: 0, max: 200_000 });
const step = fc.oneof(
  fc.record({
    do: fc.constant('save' as const),
    entry,
    title: fc.constantFrom('Pea', 'Bean', 'Moved', '★'),
  }),
  fc.record({
    do: fc.constantFrom('publish' as const, 'retire' as const),
    entry,
    after: fc.option(minutes),
  }),
  fc.record({ do: fc.constant('cancel' as const) }),
  fc.record({
    do: fc.constant('by hand' as const),
    entry: fc.constantFrom('g0', 'p0', 'v0'),
    path: fc.constantFrom('/hand', '/other', '/growers/ana'),
    after: fc.option(minutes),
    end: fc.option(minutes),
    ends: fc.boolean(),
  }),
  fc.record({
    do: fc.constant('bring in' as const),
    names: fc.array(fc.constantFrom('Pea', 'Bean', 'Oat', ''), { minLength: 1, maxLength: 3 }),
    publish: fc.constantFrom('no' as const, 'yes' as const),
  }),
  fc.record({
    do: fc.constant('refer' as const),
    entry: fc.constantFrom('v0', 'v1', 'v2'),
    target: fc.constantFrom('g0', 'g1', 'p0'),
    leads: fc.boolean(),
  }),
  fc.record({ do: fc.constantFrom('delete' as const, 'save again' as const), entry }),
  fc.record({ do: fc.constantFrom('restore' as const, 'desk' as const), entry }),
  fc.record({ do: fc.constant('purge' as const), entry }),
  fc.record({ do: fc.constant('starter' as const), entry, keep: fc.boolean() }),
  fc.record({ do: fc.constant('place' as const), entry: fc.constantFrom('t0', 't0', 'v0') }),
  fc.record({
    do: fc.constant('many' as const),
    entries: fc.uniqueArray(entry, { minLength: 1, maxLength: 4 }),
    what: fc.constantFrom(
      { do: 'publish', at: null },
      { do: 'retire', at: null },
      { do: 'setValue', field: 'title', value: 'Many' },
      { do: 'addSubject', field: 'traits', key: 'tall' },
      { do: 'takeSubject', field: 'traits', key: 'tall' },
      { do: 'give', author: 'command-line' },
      { do: 'remove' },
    ),
    undo: fc.boolean(),
  }),
  fc.record({ do: fc.constant('fields' as const), without: fc.constantFrom('shade', 'none') }),
  fc.record({
    do: fc.constant('address' as const),
    pattern: fc.constantFrom(
      '/{title}',
      '/{grower.title ?? "seeds"}/{title}',
      '/x/{stock ?? 0}/{title}',
      '/{family.slug ?? "none"}/{title}',
      '/{family.parent.slug ?? "top"}/{traits.slug ?? "plain"}/{title}',
    ),
  }),
);

/** What changes who stands in picks, where, and when. */
const picking = fc.oneof(
  fc.record({
    do: fc.constant('pick' as const),
    entry: fc.constantFrom('g0', 'g1', 'p0', 'p1', 's0', 'v0'),
    after: fc.option(minutes),
    until: fc.option(minutes),
    which: fc.nat(),
  }),
  fc.record({
    do: fc.constantFrom('unpick' as const, 'pick until' as const, 'move pick' as const),
    until: fc.option(minutes),
    which: fc.nat(),
    other: fc.nat(),
  }),
);

/** What makes media other than they were. */
const media = fc.record({
  do: fc.constantFrom(
    'add medium' as const,
    'change medium' as const,
    'replace medium' as const,
    'delete medium' as const,
    'restore medium' as const,
  ),
  which: fc.nat(),
  other: fc.nat({ max: 3 }),
});

/** What puts edits on the bench, takes them off it, and releases them, at once or later. */
const bench = fc.oneof(
  fc.record({
    do: fc.constant('edit' as const),
    part: fc.constantFrom(
      'types/variety',
      'types/page',
      'types/event',
      'types/story',
      'types/variety/fields/ease/options/hard',
      'types/story/fields/parts/fields/on',
      'listings/all',
      'listings/stories',
      'picks/on-the-shelf',
    ),
    set: fc.constantFrom(
      { address: '/{title}' },
      { address: '/s/{title}' },
      { address: '/{grower.title ?? "seeds"}/{title}' },
      { clash: 'refuse' },
      { presets: { author: true, date: 'updated', picks: ['shelf'] } },
      { presets: { author: false, date: 'none', listed: true } },
      { presets: { author: false, date: 'none', listed: false } },
      { description: 'Other.' },
      { label: 'Other' },
      { address: '/bean' },
      { timing: [{ do: 'retire', from: 'entry.published', after: 'P9D' }] },
      { timing: [{ do: 'publish', from: 'entry.created', after: 'P200D' }] },
      { sort: ['-stock'] },
    ),
  }),
  fc.record({
    do: fc.constant('rename' as const),
    field: fc.constantFrom(
      ['variety', 'stock'],
      ['variety', 'grower'],
      ['grower', 'title'],
      ['story', 'parts', 'who'],
    ),
  }),
  fc.record({
    do: fc.constant('release' as const),
    count: fc.integer({ min: 1, max: 3 }),
    draft: fc.option(entry),
    after: fc.option(minutes),
  }),
  fc.record({ do: fc.constantFrom('undo' as const, 'redo' as const, 'discard' as const) }),
  fc.record({ do: fc.constantFrom('rebase' as const, 'take back' as const) }),
  fc.record({
    do: fc.constantFrom('subject' as const, 'no subject' as const),
    name: fc.constantFrom('Slow', 'Pea', 'Bean', '2'),
    set: fc.constantFrom('traits', 'family'),
  }),
  fc.record({
    do: fc.constantFrom('slug' as const, 'merge' as const, 'move' as const, 'drop' as const),
    set: fc.constantFrom('traits', 'family'),
    which: fc.nat(),
    other: fc.nat(),
  }),
  fc.record({
    do: fc.constant('undo subjects' as const),
    set: fc.constantFrom('traits', 'family'),
  }),
  fc.record({
    do: fc.constant('kind' as const),
    field: fc.oneof(
      fc
        .constantFrom('title', 'stock', 'sow', 'shade', 'ease', 'grower')
        .map((f) => ['variety', f]),
      fc.constantFrom('name', 'who', 'marks', 'on').map((f) => ['story', 'parts', f]),
    ),
    kind: fc.constantFrom(...FIELD_KINDS.map(({ kind }) => kind), null, null),
    many: fc.boolean(),
  }),
);

/** What is said in German, and whether the site is in it. */
const speaking = fc.oneof(
  fc.record({
    do: fc.constant('speak' as const),
    entry,
    title: fc.constantFrom('Erbse', 'Bohne', 'Pea', ''),
    then: fc.constantFrom('publish' as const, 'retire' as const, null),
    after: fc.option(minutes),
  }),
  fc.record({
    do: fc.constant('languages' as const),
    set: fc.constantFrom(
      { label: 'Deutsch' },
      { fallback: true },
      { fallback: false },
      { path: 'deutsch' },
      { texts: { 'types/variety': { address: '/sorten/{title}' } } },
      { texts: { 'listings/all': { address: '/alles' } } },
    ),
    after: fc.option(minutes),
  }),
);

const anyWrite = fc.oneof(
  { weight: 2, arbitrary: step },
  { weight: 2, arbitrary: bench },
  { weight: 1, arbitrary: picking },
  { weight: 1, arbitrary: media },
  { weight: process.env.LONG === undefined ? 0 : 1, arbitrary: speaking },
);

/** Something that somebody does to a random site, and the minutes that pass before it. */
export const randomWrites = fc.array(fc.tuple(anyWrite, minutes), {
  maxLength: 14,
});
/** The same, where much is said in German. */
export const languageWrites = fc.array(
  fc.tuple(
    fc.oneof({ weight: 2, arbitrary: anyWrite }, { weight: 1, arbitrary: speaking }),
    minutes,
  ),
  { minLength: 7, maxLength: 12 },
);
/** One such thing. */
export type Write = (typeof randomWrites extends fc.Arbitrary<(infer W)[]> ? W : never)[0];

/** What random writes seldom get to do: each once, where the site has what it takes. */
export const SELDOM: readonly Write[] = [
  { do: 'save', entry: 'g0', title: 'Moved' },
  { do: 'publish', entry: 'g0', after: 100_000 },
  { do: 'languages', set: { path: 'deutsch' }, after: null },
  { do: 'speak', entry: 'g0', title: 'Erbse', then: 'publish', after: null },
  { do: 'languages', set: { fallback: true }, after: null },
  { do: 'speak', entry: 'g0', title: 'Bohne', then: 'publish', after: null },
  { do: 'cancel' },
  { do: 'by hand', entry: 'g0', path: '/hand', after: null, end: null, ends: true },
  { do: 'bring in', names: ['Oat'], publish: 'yes' },
  { do: 'refer', entry: 'v0', target: 'g0', leads: true },
  { do: 'desk', entry: 'v0' },
  { do: 'many', entries: ['g0'], what: { do: 'give', author: 'command-line' }, undo: true },
  { do: 'place', entry: 't0' },
  { do: 'pick', entry: 'g0', after: null, until: null, which: 0 },
  { do: 'pick', entry: 'p0', after: null, until: null, which: 0 },
  { do: 'move pick', until: null, which: 0, other: 1 },
  { do: 'pick until', until: 1000, which: 0, other: 1 },
  { do: 'unpick', until: null, which: 1, other: 0 },
  { do: 'add medium', which: 0, other: 1 },
  { do: 'change medium', which: 0, other: 2 },
  { do: 'replace medium', which: 0, other: 3 },
  { do: 'delete medium', which: 0, other: 0 },
  { do: 'restore medium', which: 0, other: 0 },
  { do: 'delete', entry: 'g0' },
  { do: 'restore', entry: 'g0' },
  { do: 'edit', part: 'types/event', set: { description: 'Other.' } },
  { do: 'release', count: 1, draft: null, after: null },
  { do: 'take back' },
  { do: 'starter', entry: 'g1', keep: true },
  { do: 'starter', entry: 'p0', keep: false },
  { do: 'purge', entry: 'g0' },
];
