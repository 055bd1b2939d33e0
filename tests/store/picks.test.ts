import { describe, expect, test } from 'vitest';
import type { CommandInput, CommandName, CommandResult } from '@/server/commands/index.ts';
import { runCommand } from '@/server/commands/run.ts';
import { changeInWords, comingChanges } from '@/server/queries/coming.ts';
import { shellDetail } from '@/server/queries/clock.ts';
import { entryDetail } from '@/server/queries/entry.ts';
import { picksDetail } from '@/server/queries/picks.ts';
import { Validity } from '@/core/time/interval.ts';
import { COMMAND_LINE } from '@/server/permit.ts';
import { type Files, SITE, at, loadFiles } from '../helpers/folder.ts';
import { setting } from '../helpers/release.ts';

const NOW = at('2026-07-01T12:00:00Z');
const looking = (instant: number) => ({ at: instant, past: false, seeing: 'published' as const });
const live = { saved: '2026-01-01', live: '2026-01-01' };

const FILES: Files = {
  'site.yaml': { ...SITE, zone: 'UTC' },
  'types/note.yaml': {
    key: 'note',
    address: '/{title}',
    presets: { picks: ['fresh'] },
    fields: [{ key: 'title', kind: 'text' }],
  },
  'types/front.yaml': {
    key: 'front',
    address: '/start',
    template: 'front',
    fields: [{ key: 'title', kind: 'text' }],
  },
  'templates/front.yaml': {
    key: 'front',
    kind: 'page',
    type: 'front',
    blocks: [
      { block: 'heading', text: '{title}', level: 1 },
      { block: 'picks', picks: 'shelf', limit: 3 },
    ],
  },
  'picks/shelf.yaml': {
    key: 'shelf',
    label: 'The shelf',
    members: [
      'c',
      { entry: 'a', from: '2026-06-01', to: '2026-08-01' },
      'gone',
      { entry: 'b', from: '2026-07-10' },
    ],
  },
  'picks/fresh.yaml': { key: 'fresh' },
  'entries/front.yaml': [{ entry: { id: 'start', ...live }, title: 'Start' }],
  'entries/note.yaml': [
    ...['a', 'b', 'c', 'd', 'e'].map((id) => ({ entry: { id, ...live }, title: `Note ${id}` })),
    { entry: { id: 'gone', saved: '2026-01-01', live: '2026-01-01/2026-06-15' }, title: 'Gone' },
  ],
};

async function site(files: Files = FILES) {
  const loaded = await loadFiles(files, NOW);
  expect(loaded.issues).toEqual([]);
  const { connection, view } = loaded;
  let wall = NOW;
  const shown = (instant: string | number): string[] => {
    const page = view.render('/start', typeof instant === 'string' ? at(instant) : instant)!;
    return [...page.body.matchAll(/>Note (.)<|>(Gone)</g)].map((m) => m[1] ?? m[2]!);
  };
  const run = <N extends CommandName>(name: N, input: CommandInput<N>) =>
    runCommand(connection, name, COMMAND_LINE, input, { wallClock: (wall += 60_000) });
  const made = <N extends CommandName>(name: N, input: CommandInput<N>): Given<N> => {
    const result = run(name, input);
    expect(result.ok ? [] : result.issues).toEqual([]);
    return (result as { value: Given<N> }).value;
  };
  const refusal = <N extends CommandName>(name: N, input: CommandInput<N>): string | undefined => {
    const result = run(name, input);
    return result.ok ? undefined : result.issues[0]!.code;
  };
  const idOf = (entry: string): number =>
    connection.driver
      .prepare('SELECT max(id) FROM pick WHERE entry = ?')
      .pluck()
      .get(entry) as number;
  return { ...loaded, shown, made, refusal, idOf, now: () => wall };
}
type Given<N extends CommandName> = Extract<CommandResult<N>, { ok: true }>['value'];

describe('picks show', () => {
  test('who stands in them as of the instant and is live, in their order, up to the limit', async () => {
    const { shown } = await site();
    expect(shown('2026-05-01')).toEqual(['c', 'Gone']);
    expect(shown('2026-06-10')).toEqual(['c', 'a', 'Gone']);
    expect(shown('2026-07-01')).toEqual(['c', 'a']);
    expect(shown('2026-07-10')).toEqual(['c', 'a', 'b']);
    expect(shown('2026-08-01')).toEqual(['c', 'b']);
  });

  test('each for as long as the page says that it stays', async () => {
    const { view } = await site();
    const until = (instant: string): number | null =>
      view.render('/start', at(instant))!.validUntil;
    expect(until('2026-05-01')).toBe(at('2026-06-01'));
    expect(until('2026-06-10')).toBe(at('2026-06-15'));
    expect(until('2026-07-01')).toBe(at('2026-07-10'));
    expect(until('2026-07-10')).toBe(at('2026-08-01'));
  });
});

describe('an entry', () => {
  test('joins, leaves and moves from now on; the past stays as it was', async () => {
    const s = await site();
    s.made('pick', { picks: 'shelf', entry: 'd', before: s.idOf('a') });
    expect(s.shown(s.now())).toEqual(['c', 'd', 'a']);
    s.made('movePick', { id: s.idOf('c'), before: null });
    const joined = s.now();
    expect(s.shown(joined)).toEqual(['d', 'a', 'c']);
    const { was, before } = s.made('unpick', { id: s.idOf('d') });
    expect(s.shown(s.now())).toEqual(['a', 'c']);
    expect(s.shown(joined)).toEqual(['d', 'a', 'c']);
    expect(s.shown(NOW)).toEqual(['c', 'a']);
    s.made('pick', { picks: 'shelf', entry: was.entry, before });
    expect(s.shown(s.now())).toEqual(['d', 'a', 'c']);
  });

  test('stands in them once at a time, within bounds that lie ahead', async () => {
    const s = await site();
    const of = (entry: string, from: string | null, to: string | null) => ({
      ...{ picks: 'shelf', entry, from, to },
    });
    expect(s.refusal('pick', of('a', null, null))).toBe('picked-already');
    expect(s.refusal('pick', of('b', null, '2026-07-11T00:00Z'))).toBe('picked-already');
    expect(s.refusal('pick', of('d', '2026-06-01T00:00Z', null))).toBe('past-instant');
    expect(s.refusal('pick', of('d', '2026-09-02T00:00Z', '2026-09-01T00:00Z'))).toBe(
      'empty-interval',
    );
    expect(s.refusal('pick', { ...of('d', null, null), picks: 'none' })).toBe('unknown-picks');
    expect(s.refusal('pick', of('nobody', null, null))).toBe('unknown-entry');
    s.made('pick', of('b', null, '2026-07-10T00:00Z'));
    s.made('pick', of('a', '2026-08-01T00:00Z', null));
    expect(s.shown('2026-07-10')).toEqual(['c', 'a', 'b']);
    expect(s.shown('2026-08-01')).toEqual(['c', 'b', 'a']);
  });

  test('leaves later or earlier than was planned, and joins later while it has not joined', async () => {
    const s = await site();
    const until = (id: number, to: string | null, from: string | null = null) => ({ id, from, to });
    s.made('changePick', until(s.idOf('a'), '2026-07-02T00:00Z'));
    expect(s.shown('2026-07-03')).toEqual(['c']);
    s.made('changePick', until(s.idOf('b'), null, '2026-07-20T00:00Z'));
    expect([s.shown('2026-07-19'), s.shown('2026-07-20')]).toEqual([['c'], ['c', 'b']]);
    expect(s.refusal('changePick', until(s.idOf('a'), null, '2026-07-20T00:00Z'))).toBe(
      'past-instant',
    );
    const id = s.idOf('b');
    s.made('unpick', { id });
    expect(s.shown('2026-07-20')).toEqual(['c']);
    expect(s.refusal('unpick', { id })).toBe('pick-gone');
  });

  test('finds a place between neighbours, however often', async () => {
    const s = await site();
    for (let i = 0; i < 70; i++)
      s.made('movePick', { id: s.idOf(i % 2 ? 'a' : 'c'), before: s.idOf(i % 2 ? 'c' : 'a') });
    expect(s.shown(s.now())).toEqual(['a', 'c']);
    const places = s.connection.driver
      .prepare('SELECT count(*), count(DISTINCT position) FROM pick WHERE ends IS NULL OR ends > ?')
      .raw()
      .get(s.now()) as number[];
    expect(places[1]).toBe(places[0]);
    expect(s.shown(NOW)).toEqual(['c', 'a']);
  });
});

describe('people are told', () => {
  test('who joins and leaves, not who moves', async () => {
    const s = await site();
    s.made('movePick', { id: s.idOf('b'), before: s.idOf('c') });
    s.made('movePick', { id: s.idOf('a'), before: null });
    const coming = comingChanges(s.view, NOW, at('2026-08-02'));
    expect(coming.map((change) => [change.at, changeInWords(change)])).toEqual([
      [at('2026-07-10'), 'Note b joins The shelf'],
      [at('2026-08-01'), 'Note a leaves The shelf'],
    ]);
    const { ticks } = shellDetail(s.view, COMMAND_LINE, s.now());
    expect(ticks.filter((tick) => tick.at > s.now()).map((tick) => tick.at)).toEqual([
      at('2026-07-10'),
      at('2026-08-01'),
    ]);
  });

  test('who stands there, since when without a gap, and what uses the picks', async () => {
    const s = await site();
    s.made('movePick', { id: s.idOf('a'), before: s.idOf('c') });
    const detail = picksDetail(s.view, COMMAND_LINE, 'shelf', looking(s.now()))!;
    expect(detail.lines.map((l) => [l.entry, l.from, l.to, l.isIn, l.isLive])).toEqual([
      ['a', at('2026-06-01'), at('2026-08-01'), true, true],
      ['c', null, null, true, true],
      ['gone', null, null, true, false],
      ['b', at('2026-07-10'), null, false, true],
    ]);
    expect(detail.uses.map(({ label }) => label)).toEqual(['The template Front shows them']);
    expect(detail.cards).toMatch(/Note a.*Note c/s);
    const then = picksDetail(s.view, COMMAND_LINE, 'shelf', { ...looking(NOW), past: true })!;
    expect(then.lines.map(({ entry }) => entry)).toEqual(['c', 'a', 'gone']);
    const { picks } = entryDetail(s.view, COMMAND_LINE, 'a', s.now(), s.now())!;
    expect(picks.map((p) => [p.picks.key, p.isPreset, p.stretches.length])).toEqual([
      ['fresh', true, 0],
      ['shelf', false, 1],
    ]);
  });
});

test('of very many the first are shown, and what is behind the last of them is known', async () => {
  const many = Array.from({ length: 502 }, (_, i) => `n${i}`);
  const s = await site({
    ...FILES,
    'picks/fresh.yaml': { key: 'fresh', members: many },
    'entries/note.yaml': [
      ...(FILES['entries/note.yaml'] as object[]),
      ...many.map((id) => ({ entry: { id, ...live }, title: id })),
    ],
  });
  const detail = picksDetail(s.view, COMMAND_LINE, 'fresh', looking(s.now()))!;
  expect([detail.lines.length, detail.total]).toEqual([500, 502]);
  s.made('movePick', { id: detail.lines[0]!.id, before: detail.beyond });
  const after = picksDetail(s.view, COMMAND_LINE, 'fresh', looking(s.now()))!;
  expect(after.lines.at(-1)!.entry).toBe('n0');
});

describe('a new entry', () => {
  test('joins the picks that its type presets, last, and can be taken out', async () => {
    const s = await site();
    const first = s.made('saveEntry', {
      id: null,
      type: 'note',
      values: { title: 'X' },
      seen: null,
    });
    s.made('saveEntry', { id: first.id, type: 'note', values: { title: 'Y' }, seen: null });
    const second = s.made('saveEntry', {
      id: null,
      type: 'note',
      values: { title: 'Z' },
      seen: null,
    });
    const { reader } = s.view.at(s.now())!;
    const picked = (): string[] => reader.picked('fresh', new Validity(s.now()), 0, 10);
    expect(picked()).toEqual([first.id, second.id]);
    s.made('unpick', { id: s.idOf(first.id) });
    expect(picked()).toEqual([second.id]);
  });

  test('joins none after the type presets none', async () => {
    const s = await site();
    const { design } = s.view.at(NOW)!.site;
    const edit = {
      steps: setting(design, 'types/note', { presets: { author: false, date: 'none' } }),
    };
    s.made('release', { edit });
    const { id } = s.made('saveEntry', {
      ...{ id: null, type: 'note', values: { title: 'X' }, seen: null },
    });
    expect(s.idOf(id)).toBeNull();
  });
});

describe('a folder is refused', () => {
  test.each([
    [['nobody'], 'unknown-entry', /no entry "nobody"/],
    [[{ entry: 'a', from: 'soon' }], 'wrong-instant', /"soon" is no instant/],
    [[{ entry: 'a', from: '2026-02-02', to: '2026-02-01' }], 'empty-interval', /leaves/],
    [['a', { entry: 'a', from: '2026-02-01' }], 'doubled-pick', /twice at once/],
  ])('with members %j', async (members, code, message) => {
    const { issues } = await loadFiles({ ...FILES, 'picks/shelf.yaml': { key: 'shelf', members } });
    expect(issues).toEqual([
      expect.objectContaining({
        ...{ code, path: 'picks/shelf.yaml', line: 1 },
        message: expect.stringMatching(message),
      }),
    ]);
  });

  test('where picks are named that are not there', async () => {
    const files = { ...FILES };
    delete files['picks/shelf.yaml'];
    delete files['picks/fresh.yaml'];
    const { issues } = await loadFiles(files);
    expect(issues.map(({ code, path }) => [code, path])).toEqual([
      ['unknown-name', 'types/note.yaml'],
      ['unknown-picks', 'templates/front.yaml'],
    ]);
  });
});
