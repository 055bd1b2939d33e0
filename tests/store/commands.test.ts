import { describe, expect, test } from 'vitest';
import type { Issue, Result } from '@/core/issue.ts';
import type { CommandInput, CommandName } from '@/server/commands/index.ts';
import { runCommand } from '@/server/commands/run.ts';
import type { Actor } from '@/server/permit.ts';
import { DesignStore } from '@/server/store/design-store.ts';
import { type Files, at, loadFiles } from '../helpers/folder.ts';
import { setting } from '../helpers/release.ts';

const BUILDER: Actor = { id: 'ann', name: 'Ann', role: 'builder' };
const LATER = at('2026-07-02');
const note = {
  key: 'note',
  address: '/{title}',
  fields: [
    { key: 'title', kind: 'text', required: true },
    { key: 'tags', kind: 'tags', set: 'traits' },
    { key: 'picture', kind: 'media' },
    { key: 'next', kind: 'reference', types: ['note'] },
    { key: 'words', kind: 'text', many: true },
  ],
};
const FILES: Files = {
  'types/note.yaml': note,
  'subjects/traits.yaml': {
    key: 'traits',
    kind: 'tags',
    subjects: [{ key: 'early', name: 'Early' }],
  },
  'entries/note.yaml': [
    { entry: { id: 'a', saved: '2026-01-01', live: '2026-01-01' }, title: 'First' },
    { entry: { id: 'b', saved: '2026-01-01' }, title: 'Second', next: 'a' },
  ],
};

/** A loaded site, commands on it at growing instants, and what it answers then. */
async function site(files: Files = FILES) {
  const loaded = await loadFiles(files);
  expect(loaded.issues).toEqual([]);
  const { connection, view } = loaded;
  let wallClock = LATER;
  const design = () => new DesignStore(connection).at(wallClock)!.site.design;
  const fields = new Map(design().types[0]!.fields.map((f) => [f.key, f.id]));
  const run = <N extends CommandName>(name: N, input: CommandInput<N>, actor = BUILDER) =>
    runCommand(connection, name, actor, input, { wallClock: (wallClock += 1000) });
  return {
    ...loaded,
    run,
    design,
    /** Values by key, as a form sends them: by field id. */
    values: (values: Record<string, unknown>) =>
      Object.fromEntries(Object.entries(values).map(([key, v]) => [fields.get(key)!, v])),
    status: (path: string, instant = wallClock + 1) => view.render(path, instant)!.status,
    revisions: (id: string) =>
      connection.driver
        .prepare('SELECT count(*) FROM revision WHERE entry = ?')
        .pluck()
        .get(id) as number,
  };
}
const codes = (result: Result<unknown>): string[] =>
  result.ok ? [] : result.issues.map((i: Issue) => i.code);

describe('saving', () => {
  test('makes a revision, and nothing public changes', async () => {
    const s = await site();
    const values = s.values({ title: 'Changed' });
    expect(s.run('saveEntry', { id: 'a', type: 'note', values, seen: 1 })).toMatchObject({
      ok: true,
      value: { revision: 2 },
    });
    expect([s.status('/first'), s.status('/changed')]).toEqual([200, 404]);
  });

  test('refuses subjects, pictures and entries that are not there, and keeps nothing', async () => {
    const s = await site();
    const values = s.values({ title: 'X', tags: ['late'], picture: 'no.png', next: 'zzz' });
    const refused = s.run('saveEntry', { id: 'a', type: 'note', values, seen: 1 });
    expect(codes(refused)).toHaveLength(3);
    expect(s.revisions('a')).toBe(1);
  });

  test('refuses a blank required field where a publication is planned, and where it is new', async () => {
    const s = await site();
    const plan = { entry: 'b', action: 'publish' as const, at: '2026-08-01T00:00', revision: null };
    expect(s.run('planChange', plan).ok).toBe(true);
    const blank = s.values({ title: '' });
    expect(s.run('saveEntry', { id: 'b', type: 'note', values: blank, seen: 1 }).ok).toBe(false);
    expect(s.run('saveEntry', { id: null, type: 'note', values: blank, seen: null }).ok).toBe(
      false,
    );
    expect(s.revisions('b')).toBe(1);
    expect(s.status('/second', at('2026-08-02'))).toBe(200);
  });

  test('over a version that was not seen is refused', async () => {
    const s = await site();
    const save = (title: string) =>
      s.run('saveEntry', { id: 'a', type: 'note', values: s.values({ title }), seen: 1 });
    expect(save('Mine').ok).toBe(true);
    expect(save('Theirs').ok).toBe(false);
    expect(s.revisions('a')).toBe(2);
  });

  test('keeps several texts apart', async () => {
    const s = await site();
    const values = s.values({ title: 'First', words: ['one, two', 'three'] });
    s.run('saveEntry', { id: 'a', type: 'note', values, seen: 1 });
    const stored = s.connection.driver
      .prepare(`SELECT "values" FROM revision WHERE entry = 'a' AND number = 2`)
      .pluck()
      .get() as string;
    expect(stored).toContain('["one, two","three"]');
  });

  test('words for a field that is gone are refused, not dropped', async () => {
    const s = await site();
    const values = { ...s.values({ title: 'First' }), 'gone-field': 'words' };
    expect(codes(s.run('saveEntry', { id: 'a', type: 'note', values, seen: 1 }))).toEqual([
      'field-gone',
    ]);
  });
});

describe('publishing and retiring', () => {
  test('now is public now, retired is gone, and the page comes back where it was', async () => {
    const s = await site();
    const act = (action: 'publish' | 'retire') =>
      s.run('planChange', { entry: 'b', action, at: null, revision: null }).ok;
    expect(act('publish')).toBe(true);
    expect(s.status('/second')).toBe(200);
    expect(act('retire')).toBe(true);
    expect(s.status('/second')).toBe(410);
    expect(act('publish')).toBe(true);
    expect(s.status('/second')).toBe(200);
  });

  test('an entry with a blank required field is not published', async () => {
    const s = await site({
      ...FILES,
      'entries/note.yaml': [{ entry: { id: 'c', saved: '2026-01-01' }, title: '' }],
    });
    const plan = { entry: 'c', action: 'publish' as const, at: null, revision: null };
    expect(s.run('planChange', plan).ok).toBe(false);
  });

  test('nobody loses an address by what another plans', async () => {
    const s = await site({
      'types/note.yaml': { ...note, address: '/t/{title}' },
      'subjects/traits.yaml': FILES['subjects/traits.yaml']!,
      'entries/note.yaml': [
        { entry: { id: 'a', created: '2025-01-01', saved: '2026-01-01' }, title: 'X' },
        {
          entry: { id: 'b', created: '2025-02-01', saved: '2026-01-01', live: '2026-01-01' },
          title: 'X',
        },
      ],
    });
    expect(s.status('/t/x')).toBe(200);
    const january = {
      entry: 'a',
      action: 'publish' as const,
      at: '2027-01-01T00:00',
      revision: null,
    };
    s.run('planChange', january);
    const page = s.view.pages(at('2027-02-01'))!.filter((p) => p.entry === 'b');
    expect(page).toHaveLength(1);
  });

  test('a plan is cancelled by its number, once', async () => {
    const s = await site();
    s.run('planChange', { entry: 'b', action: 'publish', at: '2026-08-01T00:00', revision: null });
    const plan = s.connection.driver
      .prepare(`SELECT max(id) FROM planned_change WHERE entry = 'b'`)
      .pluck()
      .get() as number;
    expect(s.status('/second', at('2026-08-02'))).toBe(200);
    expect(s.run('cancelPlan', { plan }).ok).toBe(true);
    expect(s.status('/second', at('2026-08-02'))).toBe(404);
    expect(s.run('cancelPlan', { plan }).ok).toBe(false);
  });
});

describe('deleting', () => {
  test('takes the page away from now on and leaves the past; restoring undoes it', async () => {
    const s = await site();
    expect(s.run('deleteEntry', { entry: 'a' }).ok).toBe(true);
    expect(s.status('/first')).not.toBe(200);
    expect(s.status('/first', at('2026-06-01'))).toBe(200);
    expect(s.run('restoreEntry', { entry: 'a' }).ok).toBe(true);
    expect(s.status('/first')).toBe(200);
  });
});

describe('releasing', () => {
  const release = (s: Awaited<ReturnType<typeof site>>, address: string, dry = false) => {
    const edit = { steps: setting(s.design(), 'types/note', { address }) };
    return s.run('release', { edit, dry });
  };

  test.each(['/media/{title}', '/../{title}', '//x/{title}', ''])(
    'the pattern "%s", that no address can have, is refused',
    async (address) => {
      const s = await site();
      expect(release(s, address).ok).toBe(false);
      expect(s.status('/first')).toBe(200);
    },
  );

  test('tried only, says how many addresses move, and changes nothing', async () => {
    const s = await site();
    expect(release(s, '/n/{title}', true)).toMatchObject({ ok: true, value: { moved: 1 } });
    expect(s.status('/n/first')).toBe(404);
    expect(release(s, '/n/{title}')).toMatchObject({ ok: true, value: { moved: 1 } });
    expect([s.status('/n/first'), s.status('/first')]).toEqual([200, 308]);
  });

  test('over a release that was not seen holds beside it, and is refused where both set one', async () => {
    const s = await site();
    const opened = s.design();
    const edit = (set: Record<string, unknown>) =>
      s.run('release', { edit: { steps: setting(opened, 'types/note', set) } });
    expect(edit({ address: '/n/{title}' }).ok).toBe(true);
    expect(edit({ description: 'Other.' }).ok).toBe(true);
    expect(codes(edit({ address: '/m/{title}' }))).toEqual(['changed-since']);
    expect(s.design().types[0]).toMatchObject({ address: '/n/{title}', description: 'Other.' });
    expect(s.status('/n/first')).toBe(200);
  });

  test('a reserved first segment out of a value is numbered; below one nothing is free, and that is said', async () => {
    const s = await site();
    const values = s.values({ title: 'Media' });
    const saved = s.run('saveEntry', { id: null, type: 'note', values, seen: null });
    if (!saved.ok) throw new Error('The entry was not saved.');
    const { id } = saved.value;
    const published = s.run('planChange', {
      entry: id,
      action: 'publish',
      at: null,
      revision: null,
    });
    expect(published.ok).toBe(true);
    expect(s.status('/media-2')).toBe(200);
    const refused = release(s, '/{title}/{title}');
    expect(refused.ok ? '' : refused.issues[0]!.message).toMatch(
      /The address \/media\/media is taken: the site keeps it for itself/,
    );
    expect(s.status('/media-2')).toBe(200);
  });

  test('a listing is not put where a live page stands, nor its further pages', async () => {
    const listing = { key: 'all', type: 'note', address: '/all' };
    const third = { entry: { id: 'c', saved: '2026-01-01', live: '2026-01-01' }, title: 'Page-4' };
    const s = await site({
      ...FILES,
      'listings/all.yaml': listing,
      'types/deep.yaml': { key: 'deep', address: '/x/{title}', fields: note.fields.slice(0, 1) },
      'entries/deep.yaml': [third],
    });
    const move = (address: string) => {
      const steps = setting(s.design(), 'listings/all', { address });
      return s.run('release', { edit: { steps } });
    };
    for (const address of ['/first', '/x'])
      expect(move(address)).toMatchObject({
        ok: false,
        issues: [{ code: 'taken-address', path: 'listings/all/address' }],
      });
    expect([s.status('/first'), s.status('/x/page-4'), s.status('/all')]).toEqual([200, 200, 200]);
    expect(move('/second').ok).toBe(true);
    expect([s.status('/second'), s.status('/all')]).toEqual([200, 404]);
  });

  test.each<[string, Record<string, unknown>, number]>([
    ['a description', { description: 'Other.' }, 0],
    ['a SEO rule', { seo: { title: '{title}!' } }, 0],
    ['a pattern that gives the same', { address: '/{title ?? "none"}' }, 1],
  ])('of %s looks at no more entries than it may move', async (_, set, looked) => {
    const s = await site();
    let steps = 0;
    const released = runCommand(
      s.connection,
      'release',
      BUILDER,
      { edit: { steps: setting(s.design(), 'types/note', set) } },
      { wallClock: LATER + 5000, step: () => steps++ },
    );
    expect(released).toMatchObject({ ok: true, value: { moved: 0 } });
    expect(Math.min(steps, 1)).toBe(looked);
  });
});

describe('what a command takes', () => {
  test.each<[CommandName, unknown]>([
    ['planChange', { entry: 'a', action: 'erase', at: null, revision: null }],
    ['planChange', { entry: 'a', action: 'publish', at: 5, revision: null }],
    ['planChange', [[], []]],
    ['saveEntry', { id: 'a' }],
    ['saveEntry', null],
    ['release', { edit: { steps: [] } }],
    ['editDesign', { steps: [{ do: 'set', part: 'site', property: 'id', was: null, now: 'x' }] }],
    ['cancelPlan', { plan: '1; DROP TABLE entry' }],
    ['deleteEntry', { entry: 'x'.repeat(5000) }],
  ])('%s refuses %j', async (name, input) => {
    const s = await site();
    expect(codes(s.run(name, input as never))).toContain('wrong-form');
  });

  test('an instant that is none, or lies past the year 9999, is refused in words', async () => {
    const s = await site();
    for (const instant of ['soon', '99999-01-01T00:00', '2026-02-30T00:00'])
      expect(
        s.run('planChange', { entry: 'b', action: 'publish', at: instant, revision: null }).ok,
      ).toBe(false);
  });

  test('what is not there is refused, not thrown', async () => {
    const s = await site();
    expect(s.run('deleteEntry', { entry: 'zzz' }).ok).toBe(false);
    expect(
      s.run('planChange', { entry: 'zzz', action: 'publish', at: null, revision: null }).ok,
    ).toBe(false);
  });

  test('somebody without the right is turned away, and nothing is written', async () => {
    const s = await site();
    const visitor = { ...BUILDER, role: 'visitor' } as unknown as Actor;
    const values = s.values({ title: 'Theirs' });
    expect(() => s.run('saveEntry', { id: 'a', type: 'note', values, seen: 1 }, visitor)).toThrow();
    expect(s.revisions('a')).toBe(1);
  });
});
