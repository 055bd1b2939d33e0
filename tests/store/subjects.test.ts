import { describe, expect, test } from 'vitest';
import type { CommandInput, CommandName } from '@/server/commands/index.ts';
import { runCommand } from '@/server/commands/run.ts';
import { COMMAND_LINE } from '@/server/permit.ts';
import { subjectsDetail } from '@/server/queries/subjects.ts';
import { at, loadFiles } from '../helpers/folder.ts';
import { kindSteps } from '../helpers/random-edits.ts';
import { derivedRows, rebuild } from '../helpers/snapshot.ts';

const FILES = {
  'subjects/family.json': {
    key: 'family',
    kind: 'tree',
    subjects: [{ key: 'boats', name: 'Boats', below: [{ key: 'fours', name: 'Fours' }] }],
  },
  'subjects/traits.json': {
    key: 'traits',
    kind: 'tags',
    subjects: [{ key: 'fast', name: 'Fast' }],
  },
  'types/boat.json': {
    key: 'boat',
    address: '/{class.slug ?? "none"}/{title}',
    fields: [
      { key: 'title', kind: 'text' },
      { key: 'class', kind: 'category', set: 'family' },
      { key: 'traits', kind: 'tags', set: 'traits' },
      { key: 'colour', kind: 'text' },
    ],
  },
  'entries/boat.json': [
    { entry: { id: 'a', live: '2026-01-01/' }, title: 'Swift', class: 'fours', traits: ['fast'] },
    { entry: { id: 'b', live: '2026-01-01/' }, title: 'Heron', class: 'boats', colour: 'Dark red' },
    { entry: { id: 'c' }, title: 'Draft', traits: ['fast'] },
  ],
};

async function site() {
  const loaded = await loadFiles(FILES, at('2026-07-01'));
  expect(loaded.issues).toEqual([]);
  let wall = at('2026-07-02');
  const { connection, view } = loaded;
  return {
    connection,
    view,
    now: () => wall + 1,
    run: <N extends CommandName>(name: N, input: CommandInput<N>) =>
      runCommand(connection, name, COMMAND_LINE, input, { wallClock: (wall += 1000) }),
    lines: (set: string) => {
      const looking = { at: wall + 1, past: false, seeing: 'published' as const };
      const { subjects } = subjectsDetail(view, COMMAND_LINE, set, looking)!;
      return subjects.map(({ key, depth, used }) => `${'  '.repeat(depth)}${key} ${used}`);
    },
  };
}

describe('a subject set', () => {
  test('is told in its order, with the live entries of each and of all below it', async () => {
    const s = await site();
    expect(s.lines('family')).toEqual(['boats 2', '  fours 1']);
    expect(s.lines('traits')).toEqual(['fast 1']);
  });

  test('takes new ones, once each, with keys of their own', async () => {
    const s = await site();
    const done = s.run('addSubjects', { set: 'traits', names: ['Slow', 'fast', 'Slów', 'Slow'] });
    expect(done).toMatchObject({
      ok: true,
      value: { added: [{ key: 'slow' }, { key: 'fast' }, { key: 'slow2' }, { key: 'slow' }] },
    });
    s.run('addSubjects', { set: 'family', names: ['Pairs'], parent: 'boats' });
    expect(s.lines('family')).toEqual(['boats 2', '  fours 1', '  pairs 0']);
    expect(s.lines('traits')).toEqual(['fast 1', 'slow 0', 'slow2 0']);
  });

  test('refuses what has no place, and what is no name', async () => {
    const s = await site();
    const codes = (input: object): string[] => {
      const done = s.run('addSubjects', { set: 'traits', names: ['x'], ...input });
      return done.ok ? [] : done.issues.map(({ code }) => code);
    };
    expect(codes({ set: 'nothing' })).toEqual(['unknown-set']);
    expect(codes({ parent: 'fast' })).toEqual(['unknown-subject']);
    expect(codes({ set: 'family', parent: 'nothing' })).toEqual(['unknown-subject']);
    expect(codes({ names: [' '] })).toHaveLength(1);
    expect(codes({ names: [] })).toHaveLength(1);
  });

  test('that is on the bench takes subjects before it is released', async () => {
    const s = await site();
    const part = { id: 'crews', key: 'crews', label: 'Crews', kind: 'tags' };
    const steps = [{ do: 'add', within: '', list: 'subjectSets', after: null, part }] as const;
    expect(s.run('editDesign', { steps: [...steps] }).ok).toBe(true);
    expect(s.run('addSubjects', { set: 'crews', names: ['Juniors'] }).ok).toBe(true);
    expect(s.lines('crews')).toEqual(['juniors 0']);
  });
});

test('a text that became a category moves to its address when its subject is there', async () => {
  const s = await site();
  const { design } = s.view.at(s.now())!.site;
  const wanted = { kind: 'category', many: false };
  const steps = kindSteps(design, 'types/boat/fields/colour', wanted);
  const pattern = '/{colour.slug ?? "none"}/{title}';
  const { address: was } = design.types.find(({ key }) => key === 'boat')!;
  const address = { do: 'set', part: 'types/boat', property: 'address', was: was!, now: pattern };
  const edit = { steps: [...steps, address as never] };
  expect(s.run('release', { edit })).toMatchObject({ ok: true });
  expect(s.view.render('/none/heron', s.now())!.status).toBe(200);
  expect(s.run('addSubjects', { set: 'family', names: ['Dark red'] }).ok).toBe(true);
  expect(s.view.render('/dark-red/heron', s.now())!.status).toBe(200);
  expect(s.view.render('/none/heron', s.now())!.status).toBe(308);
  const rows = derivedRows(s.connection);
  rebuild(s.connection, s.view);
  expect(derivedRows(s.connection)).toEqual(rows);
});
