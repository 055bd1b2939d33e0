import { describe, expect, test } from 'vitest';
import type { CommandInput, CommandName, CommandResult } from '@/server/commands/index.ts';
import { runCommand } from '@/server/commands/run.ts';
import { entryDetail } from '@/server/queries/entry.ts';
import { type Reach, reachSoFar } from '@/server/queries/reach.ts';
import { typeOutcome } from '@/server/queries/type.ts';
import { typesDetail } from '@/server/queries/types.ts';
import { COMMAND_LINE } from '@/server/permit.ts';
import { type Files, SITE, at, loadFiles } from '../helpers/folder.ts';
import { setting } from '../helpers/release.ts';
import { derivedRows, rebuild } from '../helpers/snapshot.ts';

const NOW = at('2026-07-01T12:00:00Z');

const swap = {
  key: 'swap',
  address: '/{title}',
  fields: [
    { key: 'title', kind: 'text', required: true },
    { key: 'ends', kind: 'datetime' },
    { key: 'day', kind: 'date' },
    { key: 'kind', kind: 'choice', options: ['open', 'closed'] },
  ],
};
const RETIRES = { id: 'over', do: 'retire', from: 'ends', after: 'PT2H' };

async function site(timing: object[], entries: object[], more: Files = {}) {
  const loaded = await loadFiles(
    {
      'site.yaml': SITE,
      'types/swap.yaml': { ...swap, ...(timing.length > 0 ? { timing } : {}) },
      'entries/swap.yaml': entries,
      ...more,
    },
    NOW,
  );
  expect(loaded.issues).toEqual([]);
  const { connection, view } = loaded;
  let wall = NOW;
  const run = <N extends CommandName>(name: N, input: CommandInput<N>): CommandResult<N> =>
    runCommand(connection, name, COMMAND_LINE, input, { wallClock: (wall += 60_000) });
  const made = <N extends CommandName>(name: N, input: CommandInput<N>): void => {
    const result = run(name, input);
    expect(result.ok ? [] : result.issues).toEqual([]);
  };
  /** When an entry is live, as ISO minutes. */
  const live = (id: string): string[] =>
    (
      connection.driver
        .prepare('SELECT starts, ends FROM live_interval WHERE entry = ? ORDER BY starts')
        .raw()
        .all(id) as [number, number | null][]
    ).map((bounds) => bounds.map((b) => b && new Date(b).toISOString().slice(0, 16)).join('/'));
  const set = (properties: Record<string, unknown>): void => {
    const { design } = view.at(wall)!.site;
    made('release', { edit: { steps: setting(design, 'types/swap', properties) } });
  };
  const save = (id: string | null, values: object): void =>
    made('saveEntry', { id, type: 'swap', values: { ...values }, seen: null });
  const publish = (entry: string, when: string | null): void =>
    made('planChange', { entry, action: 'publish', at: when, revision: null });
  return { ...loaded, run, live, set, save, publish, now: () => wall };
}

/** Somebody has it leave before its rule does. */
const PLANNED = {
  entry: {
    ...{ id: 'sooner', created: '2026-06-01', saved: '2026-06-01' },
    live: '2026-06-01/2026-07-03T10:00:00Z',
  },
};

const entry = (id: string, live: string, values: object): object => ({
  entry: { id, created: '2026-06-01', saved: '2026-06-01', live },
  title: id,
  ...values,
});

describe('a rule that retires', () => {
  test('does so when its time has come, in the version that is live', async () => {
    const s = await site(
      [RETIRES],
      [
        entry('past', '2026-06-01', { ends: '2026-06-20T10:00:00Z' }),
        entry('ahead', '2026-06-01', { ends: '2026-07-05T10:00:00Z' }),
        entry('blank', '2026-06-01', {}),
        entry('late', '2026-06-25', { ends: '2026-06-20T10:00:00Z' }),
      ],
    );
    expect(s.live('past')).toEqual(['2026-05-31T23:00/2026-06-20T12:00']);
    expect(s.live('ahead')).toEqual(['2026-05-31T23:00/2026-07-05T12:00']);
    expect(s.live('blank')).toEqual(['2026-05-31T23:00/']);
    expect(s.live('late')).toEqual(['2026-06-24T23:00/']);
    expect(s.view.render('/ahead', at('2026-07-05T11:59:00Z'))!.status).toBe(200);
    expect(s.view.render('/ahead', at('2026-07-05T12:00:00Z'))!.status).toBe(410);
    // A draft moves nothing; once it is public, its time counts.
    s.save('ahead', { title: 'ahead', ends: '2026-07-09T10:00' });
    expect(s.live('ahead')).toEqual(['2026-05-31T23:00/2026-07-05T12:00']);
    s.publish('ahead', '2026-07-03T08:00:00Z');
    expect(s.live('ahead')).toEqual([
      '2026-05-31T23:00/2026-07-03T08:00',
      '2026-07-03T08:00/2026-07-09T11:00',
    ]);
    expect(derivedRows(s.connection)).toEqual(
      (rebuild(s.connection, s.view), derivedRows(s.connection)),
    );
  });

  test('counts from the first publication, on the calendar of the site', async () => {
    const s = await site(
      [{ do: 'retire', from: 'entry.published', after: 'P14D' }],
      [entry('a', '2026-06-20', {}), entry('b', '2026-10-20T08:00', {})],
    );
    expect(s.live('a')).toEqual(['2026-06-19T23:00/2026-07-03T23:00']);
    // The clocks go back on 25 October: the same time of day, an hour more.
    expect(s.live('b')).toEqual(['2026-10-20T07:00/2026-11-03T08:00']);
  });

  test('acts where its condition holds then', async () => {
    const where = { all: [{ field: 'kind', op: 'is', value: 'open' }] };
    const s = await site(
      [{ ...RETIRES, where }],
      [
        entry('a', '2026-06-01', { ends: '2026-07-05T10:00:00Z', kind: 'open' }),
        entry('b', '2026-06-01', { ends: '2026-07-05T10:00:00Z', kind: 'closed' }),
      ],
    );
    expect([s.live('a'), s.live('b')]).toEqual([
      ['2026-05-31T23:00/2026-07-05T12:00'],
      ['2026-05-31T23:00/'],
    ]);
  });

  test('holds from its release on, and not before; taken back, what lies ahead is as before', async () => {
    const s = await site(
      [],
      [
        entry('past', '2026-06-01', { ends: '2026-06-20T10:00:00Z' }),
        entry('ahead', '2026-06-01', { ends: '2026-07-05T10:00:00Z' }),
      ],
    );
    s.set({ timing: [RETIRES] });
    expect(s.live('past')).toEqual(['2026-05-31T23:00/']);
    expect(s.live('ahead')).toEqual(['2026-05-31T23:00/2026-07-05T12:00']);
    s.set({ timing: [{ ...RETIRES, after: 'P1D' }] });
    expect(s.live('ahead')).toEqual(['2026-05-31T23:00/2026-07-06T10:00']);
    s.set({ timing: null });
    expect(s.live('ahead')).toEqual(['2026-05-31T23:00/']);
  });

  test('of a design that takes over later acts in its time alone', async () => {
    const s = await site(
      [],
      [
        entry('a', '2026-06-01', { ends: '2026-07-05T10:00:00Z' }),
        entry('b', '2026-06-01', { ends: '2026-07-20T10:00:00Z' }),
      ],
    );
    const { design } = s.view.at(NOW)!.site;
    const edit = { steps: setting(design, 'types/swap', { timing: [RETIRES] }) };
    expect(s.run('release', { edit, at: '2026-07-10T00:00:00Z' }).ok).toBe(true);
    expect([s.live('a'), s.live('b')]).toEqual([
      ['2026-05-31T23:00/'],
      ['2026-05-31T23:00/2026-07-20T12:00'],
    ]);
  });
});

describe('before a rule is released', () => {
  test('its reach says which live entries leave at another time', async () => {
    const s = await site(
      [RETIRES],
      [
        entry('past', '2026-06-25', { ends: '2026-06-20T10:00:00Z' }),
        entry('ahead', '2026-06-01', { ends: '2026-07-05T10:00:00Z' }),
        { ...entry('sooner', '2026-06-01', { ends: '2026-07-05T10:00:00Z' }), ...PLANNED },
      ],
    );
    const { design } = s.view.at(NOW)!.site;
    const steps = setting(design, 'types/swap', { timing: [{ ...RETIRES, after: 'P2D' }] });
    let reach: Reach | null = null;
    while (!reach?.done)
      reach = reachSoFar(s.view, COMMAND_LINE, { at: NOW, steps, edits: [], drafts: [] });
    expect(reach.retimed).toEqual({
      total: 1,
      first: [
        {
          ...{ entry: 'ahead', name: 'ahead' },
          ...{ was: at('2026-07-05T12:00:00Z'), leaves: at('2026-07-07T10:00:00Z') },
        },
      ],
    });
  });

  test('the entry says what its rules will do, and the type what they do to a specimen', async () => {
    const s = await site([RETIRES], [entry('a', '2026-06-01', { ends: '2026-07-05T10:00:00Z' })]);
    const leaves = at('2026-07-05T12:00:00Z');
    const detail = entryDetail(s.view, COMMAND_LINE, 'a', NOW, NOW)!;
    expect(detail.byRules).toEqual([{ at: leaves, action: 'retire' }]);
    const looking = { at: NOW, past: false, seeing: 'published' as const };
    const input = { id: 'swap', steps: [], specimen: 'a' };
    expect(typeOutcome(s.view, COMMAND_LINE, input, looking)!.timing).toEqual({ over: leaves });
    const { types } = typesDetail(s.view, COMMAND_LINE, looking)!;
    expect(types[0]!.timing).toEqual(['retires 2 hours after Ends']);
  });
});

describe('a rule that publishes', () => {
  test('takes the newest version that is saved by then, where it is whole', async () => {
    const s = await site(
      [{ do: 'publish', from: 'day', after: '-P2D' }],
      [
        {
          entry: { id: 'a', created: '2026-06-01', saved: '2026-06-01' },
          title: 'a',
          day: '2026-07-10',
        },
        {
          entry: { id: 'gone', created: '2026-06-01', saved: '2026-06-01' },
          title: 'gone',
          day: '2026-06-10',
        },
      ],
    );
    expect(s.live('a')).toEqual(['2026-07-07T23:00/']);
    expect(s.live('gone')).toEqual(['2026-06-07T23:00/']);
    s.save('a', { title: 'a', day: '2026-07-12' });
    expect(s.live('a')).toEqual(['2026-07-09T23:00/']);
    s.save('a', { title: '', day: '2026-07-12' });
    expect(s.live('a')).toEqual([]);
  });

  test('may do so at once for new entries, and retire them again', async () => {
    const s = await site(
      [
        { do: 'publish', from: 'entry.created' },
        { do: 'retire', from: 'entry.published', after: 'P1D' },
      ],
      [],
    );
    s.save(null, { title: 'New' });
    const [id] = s.connection.driver.prepare('SELECT id FROM entry').pluck().all() as string[];
    expect(s.live(id!)).toEqual(['2026-07-01T12:01/2026-07-02T12:01']);
    expect(s.view.render('/new', s.now())!.status).toBe(200);
  });
});

describe('a rule is refused', () => {
  test.each([
    [{ do: 'retire', from: 'end' }, /no field "end"/],
    [{ do: 'retire', from: 'title' }, /counts from a single date, and Title is none/],
    [{ do: 'publish', from: 'entry.published' }, /cannot count from when it was published/],
    [
      { do: 'retire', from: 'ends', after: 'two days' },
      /no duration .ISO 8601. of at most 100 years/,
    ],
    [{ do: 'retire', from: 'ends', after: 'P200Y' }, /no duration .ISO 8601. of at most 100 years/],
    [{ do: 'hide', from: 'ends' }, /publish/],
    [{ do: 'retire', from: 'ends', where: { field: 'size', op: 'is', value: 1 } }, /"size"/],
    [{ do: 'retire', from: 'ends', where: { field: 'mates', op: 'not-blank' } }, /Mates is none/],
  ])('as %j', async (rule, message) => {
    const mates = { key: 'mates', kind: 'reference', types: ['swap'] };
    const { issues } = await loadFiles({
      'types/swap.yaml': { ...swap, fields: [...swap.fields, mates], timing: [rule] },
    });
    expect(issues).toHaveLength(1);
    expect(issues[0]).toMatchObject({
      path: 'types/swap.yaml',
      message: expect.stringMatching(message),
    });
  });
});

test('a rule does not publish what was deleted before its time came', async () => {
  const rule = { id: 'opens', do: 'publish', from: 'day', after: 'P0D' };
  const s = await site(
    [rule],
    [entry('ahead', '', { day: '2026-07-05' })].map((e) => ({
      ...e,
      entry: { id: 'ahead', created: '2026-06-01', saved: '2026-06-01', live: [] },
    })),
  );
  expect(s.live('ahead')).toEqual(['2026-07-04T23:00/']);
  const done = s.run('deleteEntry', { entry: 'ahead' });
  expect(done.ok).toBe(true);
  expect(s.live('ahead')).toEqual([]);
  expect(s.run('restoreEntry', { entry: 'ahead' }).ok).toBe(true);
  expect(s.live('ahead')).toEqual(['2026-07-04T23:00/']);
});
