import { expect, test } from 'vitest';
import type { CommandInput, CommandName } from '@/server/commands/index.ts';
import { runCommand } from '@/server/commands/run.ts';
import { COMMAND_LINE } from '@/server/permit.ts';
import { ORDER } from '@/core/design/other-order.ts';
import { leadingHere, referenceExample } from '@/server/queries/leading-here.ts';
import { at, loadFiles } from '../helpers/folder.ts';
import { releaseSet } from '../helpers/release.ts';

const BOAT = { key: 'boat', kind: 'reference', types: ['boat'], otherSide: 'crews' };
const FILES = {
  'types/boat.json': {
    key: 'boat',
    address: '/{title}',
    fields: [{ key: 'title', kind: 'text' }],
    seo: { title: '{title}[: {crews}]' },
  },
  'types/crew.json': { key: 'crew', fields: [{ key: 'title', kind: 'text' }, BOAT] },
  'entries/boat.json': ['swift', 'heron'].map((id) => ({
    entry: { id, live: '2026-01-01/' },
    title: id,
  })),
  'entries/crew.json': [
    { entry: { id: 'a', live: '2026-01-01/2026-08-01' }, title: 'A', boat: 'swift' },
    { entry: { id: 'b', live: '2026-09-01/' }, title: 'B', boat: 'swift' },
  ],
};

async function site(files: object = {}) {
  const loaded = await loadFiles({ ...FILES, ...files } as never, at('2026-07-01'));
  let wall = at('2026-07-02');
  const run = <N extends CommandName>(name: N, input: CommandInput<N>) =>
    runCommand(loaded.connection, name, COMMAND_LINE, input, { wallClock: (wall += 1000) });
  return {
    ...loaded,
    run,
    now: () => wall + 1,
    save: (id: string | null, title: string, boat: unknown) =>
      run('saveEntry', { id, type: 'crew', values: { title, boat }, seen: null }),
    title: (path: string, instant = wall + 1) =>
      /<title>(.*)<\/title>/.exec(loaded.view.render(path, instant)!.body)?.[1],
    set: (path: string, set: Record<string, unknown>) =>
      releaseSet(loaded, path, set, (wall += 1000)),
  };
}

test('who leads to an entry is told as of each instant, and until when', async () => {
  const s = await site();
  expect(s.issues).toEqual([]);
  expect(s.title('/swift')).toBe('swift: A');
  expect(s.view.render('/swift', s.now())!.validUntil).toBeLessThanOrEqual(at('2026-08-01'));
  expect(s.title('/swift', at('2026-08-15'))).toBe('swift');
  expect(s.title('/swift', at('2026-09-01'))).toBe('swift: B');
  expect(s.title('/heron')).toBe('heron');
});

test('what is published elsewhere is seen there at once', async () => {
  const s = await site();
  expect(s.save('a', 'A', 'heron').ok).toBe(true);
  expect(s.title('/swift')).toBe('swift: A');
  const publish = { entry: 'a', action: 'publish', at: null, revision: null } as const;
  expect(s.run('planChange', publish).ok).toBe(true);
  expect([s.title('/swift'), s.title('/heron')]).toEqual(['swift', 'heron: A']);
});

test('what belongs to one entry only is not given to a second', async () => {
  const fields = [FILES['types/crew.json'].fields[0], { ...BOAT, unique: true }];
  const one = (more: object) => ({
    'types/crew.json': { key: 'crew', fields },
    'entries/crew.json': [FILES['entries/crew.json'][0], more],
  });
  const s = await site(one({ entry: { id: 'b', live: '2026-01-01/' }, title: 'B' }));
  expect(s.issues).toEqual([]);
  expect(s.save('b', 'B', 'swift')).toMatchObject({
    ok: false,
    issues: [
      { code: 'partner-taken', path: 'boat', message: expect.stringMatching(/swift.*of “A”/) },
    ],
  });
  expect(s.save('a', 'A', 'swift').ok).toBe(true);
  expect(s.save('a', 'A', null).ok).toBe(true);
  expect(s.save('b', 'B', 'swift').ok).toBe(true);
  const twice = await site(one({ title: 'B', boat: 'swift' }));
  expect(twice.issues.map(({ code }) => code)).toEqual(['not-unique']);
});

test('of lists of entries each belongs to one list only', async () => {
  const s = await site({
    'types/crew.json': {
      key: 'crew',
      fields: [FILES['types/crew.json'].fields[0], { ...BOAT, many: true, unique: true }],
    },
  } as never);
  expect(s.issues.map(({ code }) => code)).toEqual(['not-unique']);
  const crews = [{ entry: { id: 'a', live: '2026-01-01/' }, title: 'A', boat: ['swift', 'heron'] }];
  const many = await site({
    'types/crew.json': {
      key: 'crew',
      fields: [FILES['types/crew.json'].fields[0], { ...BOAT, many: true, unique: true }],
    },
    'entries/crew.json': crews,
  });
  expect([many.title('/swift'), many.title('/heron')]).toEqual(['swift: A', 'heron: A']);
  expect(many.save(null, 'C', ['heron'])).toMatchObject({
    ok: false,
    issues: [{ code: 'partner-taken' }],
  });
});

test('a reference comes to belong to one only where none belongs to two', async () => {
  const s = await site();
  const fields = s.view.at(s.now())!.site.typesByKey.get('crew')!.fields;
  const unique = [fields[0], { ...fields[1], unique: true }];
  expect(s.set('types/crew', { fields: unique })).toMatchObject({
    ok: false,
    issues: [{ code: 'not-unique' }],
  });
  expect(s.save('b', 'B', 'heron').ok).toBe(true);
  expect(s.set('types/crew', { fields: unique })).toMatchObject({ ok: true });
});

test('an entry is led to from its own side: the other is saved, with all else it holds', async () => {
  const s = await site();
  const lead = (entry: string, leads: boolean, target = 'heron') =>
    s.run('setReference', { entry, field: 'boat', target, leads });
  const leading = () =>
    leadingHere(s.view, COMMAND_LINE, 'heron', s.now()).map(({ total, entries }) => [
      total,
      ...entries.map(({ name, live }) => `${name} ${live}`),
    ]);
  expect(leading()).toEqual([[0]]);
  expect(lead('a', true)).toMatchObject({ ok: true, value: { id: 'a', revision: 2 } });
  expect(lead('b', true).ok).toBe(true);
  expect(leading()).toEqual([[2, 'A true', 'B false']]);
  expect(s.title('/heron')).toBe('heron');
  const publish = { entry: 'a', action: 'publish', at: null, revision: null } as const;
  expect(s.run('planChange', publish).ok).toBe(true);
  expect(s.title('/heron')).toBe('heron: A');
  expect(lead('a', false).ok).toBe(true);
  expect(leading()).toEqual([[1, 'B false']]);
  expect(lead('a', true, 'a')).toMatchObject({ ok: false, issues: [{ code: 'wrong-type' }] });
  expect(lead('a', true, 'none')).toMatchObject({ ok: false });
  expect(
    s.run('setReference', { entry: 'a', field: 'title', target: 'heron', leads: true }),
  ).toEqual(expect.objectContaining({ ok: false }));
});

test('what only one may lead to is taken away from another when that is asked for', async () => {
  const fields = [FILES['types/crew.json'].fields[0], { ...BOAT, unique: true }];
  const s = await site({
    'types/crew.json': { key: 'crew', fields },
    'entries/crew.json': [
      FILES['entries/crew.json'][0],
      { entry: { id: 'b', live: '2026-01-01/' }, title: 'B' },
    ],
  });
  const save = (takeOver: boolean) =>
    s.run('saveEntry', {
      id: 'b',
      type: 'crew',
      values: { title: 'B', boat: 'swift' },
      seen: null,
      takeOver,
    });
  const example = () =>
    referenceExample(s.view, COMMAND_LINE, { type: 'crew', field: 'boat' }, s.now());
  expect(save(false)).toMatchObject({ ok: false, issues: [{ code: 'partner-taken' }] });
  expect(example()).toEqual({ from: 'A', to: ['swift'], back: 1 });
  expect(save(true)).toMatchObject({ ok: true, value: { id: 'b', revision: 2 } });
  expect(example()).toEqual({ from: 'B', to: ['swift'], back: 1 });
  // Nothing public changes until both are published.
  expect(s.title('/swift')).toBe('swift: A');
});

test('links, and what leads on within groups, are told where they lead', async () => {
  const s = await site({
    'types/note.json': {
      key: 'note',
      fields: [
        { key: 'title', kind: 'text' },
        { key: 'see', kind: 'link' },
        {
          key: 'rows',
          kind: 'group',
          many: true,
          fields: [{ key: 'in', kind: 'reference', types: ['boat'] }],
        },
      ],
    },
    'entries/note.json': [
      { title: 'N', see: { entry: 'swift' }, rows: [{ in: 'swift' }, { in: 'heron' }] },
    ],
  });
  expect(s.issues).toEqual([]);
  const ways = leadingHere(s.view, COMMAND_LINE, 'swift', s.now()).map(
    ({ type, field, isEditable, total }) => [type.key, field.label, isEditable, total],
  );
  expect(ways).toEqual([
    ['crew', 'Boat', true, 2],
    ['note', 'See', false, 1],
    ['note', 'In', false, 1],
  ]);
});

test('those that lead to an entry stand there in the order that it gives them', async () => {
  const s = await site({
    'entries/crew.json': ['a', 'b', 'c'].map((id) => ({
      entry: { id, live: '2026-01-01/' },
      title: id.toUpperCase(),
      boat: 'swift',
    })),
    'entries/boat.json': [
      {
        entry: { id: 'swift', live: '2026-01-01/', order: { 'crew/boat': ['c', 'gone', 'a'] } },
        title: 'swift',
      },
      { entry: { id: 'heron', live: '2026-01-01/' }, title: 'heron' },
    ],
  });
  expect(s.issues).toEqual([]);
  expect(s.title('/swift')).toBe('swift: C, A, B');
  const values = { title: 'swift', [ORDER]: { 'crew/boat': ['b', 'c'] } };
  const saved = s.run('saveEntry', { id: 'swift', type: 'boat', values, seen: null });
  expect(saved.ok).toBe(true);
  expect(s.title('/swift')).toBe('swift: C, A, B');
  s.run('planChange', { entry: 'swift', action: 'publish', at: null, revision: null });
  expect(s.title('/swift')).toBe('swift: B, C, A');
});
