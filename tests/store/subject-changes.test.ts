import { describe, expect, test } from 'vitest';
import type { SubjectChange } from '@/core/design/subject-change.ts';
import type { CommandInput, CommandName } from '@/server/commands/index.ts';
import { runCommand } from '@/server/commands/run.ts';
import { COMMAND_LINE } from '@/server/permit.ts';
import { subjectsDetail } from '@/server/queries/subjects.ts';
import { at, loadFiles } from '../helpers/folder.ts';
import { derivedRows, rebuild } from '../helpers/snapshot.ts';

const FILES = {
  'subjects/family.json': {
    key: 'family',
    kind: 'tree',
    subjects: [
      { key: 'boats', name: 'Boats', below: [{ key: 'fours', name: 'Fours' }] },
      { key: 'oars', name: 'Oars' },
    ],
  },
  'subjects/traits.json': {
    key: 'traits',
    kind: 'tags',
    subjects: [
      { key: 'fast', name: 'Fast' },
      { key: 'quick', name: 'Quick' },
      { key: 'old', name: 'Old' },
    ],
  },
  'types/boat.json': {
    key: 'boat',
    address: '/{class.parent.slug ?? "none"}/{class.slug ?? "none"}/{title}',
    fields: [
      { key: 'title', kind: 'text' },
      { key: 'class', kind: 'category', set: 'family' },
      { key: 'traits', kind: 'tags', set: 'traits' },
    ],
    template: 'boat',
  },
  'templates/boat.json': {
    key: 'boat',
    kind: 'page',
    type: 'boat',
    blocks: [
      { block: 'subjects', field: 'traits' },
      { block: 'text', text: '{title}: {traits.name}' },
    ],
  },
  'templates/line.json': {
    key: 'line',
    kind: 'card',
    type: 'boat',
    blocks: [{ block: 'text', text: '{title}' }],
  },
  'listings/fast.json': {
    key: 'fast',
    type: 'boat',
    address: '/fast',
    card: 'line',
    where: { field: 'traits', op: 'is', value: 'fast' },
  },
  'listings/plain.json': {
    key: 'plain',
    type: 'boat',
    address: '/plain',
    card: 'line',
    where: { field: 'traits', op: 'blank' },
  },
  'entries/boat.json': [
    { entry: { id: 'a', live: '2026-01-01/' }, title: 'A', class: 'fours', traits: ['fast'] },
    { entry: { id: 'b', live: '2026-01-01/' }, title: 'B', class: 'boats', traits: ['quick'] },
    { entry: { id: 'c', live: '2026-01-01/' }, title: 'C', traits: ['fast', 'quick', 'old'] },
    { entry: { id: 'd', live: '2027-01-01/' }, title: 'D', class: 'fours', traits: ['quick'] },
  ],
};

async function site() {
  const loaded = await loadFiles(FILES, at('2026-07-01'));
  expect(loaded.issues).toEqual([]);
  let wall = at('2026-07-02');
  const { connection, view } = loaded;
  const run = <N extends CommandName>(name: N, input: CommandInput<N>) =>
    runCommand(connection, name, COMMAND_LINE, input, { wallClock: (wall += 1000) });
  const change = (set: string, wanted: SubjectChange) => {
    const done = run('changeSubjects', { set, change: wanted });
    return done.ok ? done.value : { refused: done.issues.map(({ code }) => code) };
  };
  const page = (path: string, then = wall + 1) => view.render(path, then)!;
  const members = (path: string, then = wall + 1): string =>
    ['A', 'B', 'C', 'D'].filter((name) => page(path, then).body.includes(`>${name}<`)).join('');
  const looking = () => ({ at: wall + 1, past: false, seeing: 'published' as const });
  return {
    run,
    change,
    page,
    members,
    now: () => wall + 1,
    detail: (set: string) => subjectsDetail(view, COMMAND_LINE, set, looking())!,
    text: (path: string, then = wall + 1): string =>
      /[A-D]: [^<]*/.exec(page(path, then).body)?.[0] ?? '',
    expectRebuilt: () => {
      const rows = derivedRows(connection);
      rebuild(connection, view);
      expect(derivedRows(connection)).toEqual(rows);
    },
  };
}

type Site = Awaited<ReturnType<typeof site>>;
const lines = (s: Site, set: string): string[] =>
  s
    .detail(set)
    .subjects.map(
      ({ key, depth, own, used, unused }) =>
        `${' '.repeat(depth)}${key} ${own}/${used}${unused ? ' unused' : ''}`,
    );

describe('another word in addresses', () => {
  test('moves what is built on it, what stands below too, and leads on from the old', async () => {
    const s = await site();
    const before = s.now();
    expect(s.page('/boats/fours/a').status).toBe(200);
    const done = s.change('family', { do: 'set', key: 'boats', slug: 'hulls', name: 'Hulls' });
    expect(done).toMatchObject({ moved: 2, sentence: 'Boats renamed to Hulls' });
    expect(s.page('/boats/fours/a')).toMatchObject({ status: 308 });
    expect(s.page('/hulls/fours/a').status).toBe(200);
    expect(s.page('/none/hulls/b').status).toBe(200);
    expect(s.page('/boats/fours/a', before).status).toBe(200);
    // What goes live later does so at its new address.
    expect(s.page('/hulls/fours/d', at('2027-02-01')).status).toBe(200);
    s.expectRebuilt();
  });

  test('is refused where another one beside it is so, and where it is no word', async () => {
    const s = await site();
    const codes = (change: object) => s.change('family', { do: 'set', key: 'oars', ...change });
    expect(codes({ slug: 'boats' })).toEqual({ refused: ['slug-taken'] });
    expect(codes({ slug: 'Not a slug' })).toEqual({ refused: ['wrong-slug'] });
    expect(codes({ slug: '' })).toEqual({ refused: ['wrong-slug'] });
    expect(codes({ picture: 'none.jpg' })).toEqual({ refused: ['unknown-picture'] });
    expect(s.change('family', { do: 'set', key: 'nobody', name: 'x' })).toEqual({
      refused: ['unknown-subject'],
    });
  });

  test('says what would move, and changes nothing, where it is only tried', async () => {
    const s = await site();
    const change = { do: 'set', key: 'fours', slug: 'quads' } as const;
    const done = s.run('changeSubjects', { set: 'family', change, dry: true });
    expect(done).toMatchObject({
      ok: true,
      value: { moved: 1, examples: [{ from: '/boats/fours/a', to: '/boats/quads/a' }] },
    });
    expect(s.page('/boats/fours/a').status).toBe(200);
  });
});

describe('a subject merged into another', () => {
  test('is that one from then on, for lists, pages and what is written of it', async () => {
    const s = await site();
    const before = s.now();
    expect(s.members('/fast')).toBe('AC');
    s.change('traits', { do: 'merge', keys: ['quick'], into: 'fast' });
    expect(s.members('/fast')).toBe('ABC');
    expect(s.members('/fast', before)).toBe('AC');
    expect(s.members('/fast', at('2027-02-01'))).toBe('ABCD');
    expect(s.text('/none/none/c')).toBe('C: Fast, Old');
    expect(s.text('/none/none/c', before)).toBe('C: Fast, Quick, Old');
    expect(s.page('/none/none/c').body).toMatch(
      /class="subjects"><ul>(<li>((?!<li>).)*<\/li>){2}<\/ul>/,
    );
    expect(lines(s, 'traits')).toEqual(['fast 3/3', 'old 1/1']);
    s.expectRebuilt();
  });

  test('is one of its own again when that is undone, while another stays merged', async () => {
    const s = await site();
    const first = s.change('traits', { do: 'merge', keys: ['quick'], into: 'old' });
    const second = s.change('traits', { do: 'merge', keys: ['old'], into: 'fast' });
    const undo = (done: typeof first): boolean =>
      s.run('undoSubjects', { set: 'traits', at: (done as { at: number }).at }).ok;
    expect(s.members('/fast')).toBe('ABC');
    const during = s.now();
    expect(undo(second)).toBe(true);
    expect(s.members('/fast')).toBe('AC');
    expect(s.members('/fast', during)).toBe('ABC');
    expect(lines(s, 'traits')).toEqual(['fast 2/2', 'old 2/2']);
    expect(undo(first)).toBe(true);
    expect(lines(s, 'traits')).toEqual(['fast 2/2', 'quick 2/2', 'old 1/1']);
    s.expectRebuilt();
  });

  test('takes what stands below it along, and not into what stands below it', async () => {
    const s = await site();
    expect(s.change('family', { do: 'merge', keys: ['boats'], into: 'fours' })).toEqual({
      refused: ['under-itself'],
    });
    expect(s.change('family', { do: 'merge', keys: ['boats'], into: 'oars' })).toMatchObject({
      moved: 2,
    });
    expect(lines(s, 'family')).toEqual(['oars 1/2', ' fours 1/1']);
    expect(s.page('/oars/fours/a').status).toBe(200);
    expect(s.page('/none/oars/b').status).toBe(200);
    expect(s.page('/none/boats/b').status).toBe(308);
    s.expectRebuilt();
  });

  test('is what its name means when it is written again', async () => {
    const s = await site();
    s.change('traits', { do: 'merge', keys: ['quick'], into: 'old' });
    s.change('traits', { do: 'merge', keys: ['old'], into: 'fast' });
    const done = s.run('addSubjects', { set: 'traits', names: ['quick', 'Slow'] });
    expect(done).toMatchObject({ ok: true, value: { added: [{ key: 'fast' }, { key: 'slow' }] } });
  });
});

describe('a subject that is deleted', () => {
  test('is had by nothing from then on, and the past keeps it', async () => {
    const s = await site();
    const before = s.now();
    const done = s.change('traits', { do: 'delete', keys: ['quick'] }) as { at: number };
    expect(s.text('/none/none/c')).toBe('C: Fast, Old');
    expect(s.text('/none/none/c', before)).toBe('C: Fast, Quick, Old');
    expect([s.members('/plain', before), s.members('/plain')]).toEqual(['', 'B']);
    const save = { id: 'b', type: 'boat', values: { title: 'B', traits: ['quick'] }, seen: null };
    expect(s.run('saveEntry', save).ok).toBe(true);
    const publish = { entry: 'b', action: 'publish', at: null, revision: null } as const;
    expect(s.run('planChange', publish).ok).toBe(true);
    s.run('undoSubjects', { set: 'traits', at: done.at });
    expect(s.members('/plain')).toBe('');
    s.expectRebuilt();
  });

  test('leaves what stands below it where it stood itself', async () => {
    const s = await site();
    expect(s.change('family', { do: 'delete', keys: ['boats'] })).toMatchObject({ moved: 2 });
    expect(lines(s, 'family')).toEqual(['fours 1/1', 'oars 0/0 unused']);
    expect(s.page('/none/fours/a').status).toBe(200);
  });

  test('keeps its key for good', async () => {
    const s = await site();
    s.change('traits', { do: 'delete', keys: ['quick'] });
    const done = s.run('addSubjects', { set: 'traits', names: ['Quick'] });
    expect(done).toMatchObject({ ok: true, value: { added: [{ key: 'quick2' }] } });
    expect(s.detail('traits').subjects.at(-1)).toMatchObject({ slug: 'quick', unused: true });
    expect(s.text('/none/none/c')).toBe('C: Fast, Old');
  });
});

test('a category moves below another, before a third, and not below itself', async () => {
  const s = await site();
  const move = { do: 'move', key: 'oars', parent: 'boats', before: 'fours' } as const;
  expect(s.change('family', move)).toMatchObject({ sentence: 'Oars moved below Boats' });
  expect(lines(s, 'family')).toEqual(['boats 1/2', ' oars 0/0 unused', ' fours 1/1']);
  const below = { do: 'move', key: 'boats', parent: 'fours', before: null } as const;
  expect(s.change('family', below)).toEqual({ refused: ['under-itself'] });
  const tag = { do: 'move', key: 'old', parent: 'fast', before: null } as const;
  expect(s.change('traits', tag)).toEqual({ refused: ['no-tree'] });
  s.expectRebuilt();
});

test('undoing is refused where a subject was changed again, or is in use', async () => {
  const s = await site();
  const undo = (then: unknown) => {
    const done = s.run('undoSubjects', { set: 'traits', at: (then as { at: number }).at });
    return done.ok ? 'done' : done.issues[0]!.code;
  };
  const first = s.change('traits', { do: 'set', key: 'old', name: 'Aged' });
  const second = s.change('traits', { do: 'set', key: 'old', name: 'Antique' });
  expect(undo(first)).toBe('overtaken');
  expect(undo({ at: 5 })).toBe('overtaken');
  expect(undo(second)).toBe('done');
  const added = s.run('addSubjects', { set: 'traits', names: ['Slow'] });
  const slow = { id: 'b', type: 'boat', values: { title: 'B', traits: ['slow'] }, seen: null };
  s.run('saveEntry', slow);
  expect(added.ok && undo(added.value)).toBe('subject-in-use');
  expect(s.detail('traits').deeds.map(({ sentence }) => sentence)).toEqual([
    'Slow added',
    'Antique renamed to Aged',
    'Aged renamed to Antique',
    'Old renamed to Aged',
  ]);
});

test('a history in which one subject stood as two at once is refused, with its file', async () => {
  const about = { set: 'traits', key: 'fast', name: 'Fast', slug: 'fast', description: '' };
  const codes = async (...subjects: object[]) => {
    const history = {
      until: '2026-06-01T00:00:00Z',
      design: { number: 1, author: 'ann', saved: '2026-01-01T00:00:00Z' },
      people: {},
      subjects,
    };
    const { issues } = await loadFiles({ ...FILES, 'history.yaml': history } as never);
    return issues.map(({ code, path }) => `${code} ${path}`);
  };
  const wrong = 'wrong-history history.yaml';
  expect(await codes({ ...about, to: '2026-02-01T00:00:00Z' })).toContain(wrong);
  expect(
    await codes({
      ...about,
      set: 'gone',
      from: '2026-03-01T00:00:00Z',
      to: '2026-02-01T00:00:00Z',
    }),
  ).toContain(wrong);
  expect(await codes({ ...about, set: 'gone' })).not.toContain(wrong);
});
