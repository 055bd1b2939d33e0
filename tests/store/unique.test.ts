import { expect, test } from 'vitest';
import type { CommandInput, CommandName } from '@/server/commands/index.ts';
import { runCommand } from '@/server/commands/run.ts';
import { COMMAND_LINE } from '@/server/permit.ts';
import { at, loadFiles } from '../helpers/folder.ts';
import { releaseSet } from '../helpers/release.ts';

const FIELDS = [
  { key: 'title', kind: 'text' },
  { key: 'number', kind: 'number', unique: true },
  { key: 'sign', kind: 'text', unique: true },
];
const FILES = {
  'types/boat.json': { key: 'boat', address: '/{title}', fields: FIELDS },
  'types/oar.json': { key: 'oar', fields: FIELDS.map(({ unique: _, ...field }) => field) },
  'entries/boat.json': [
    { entry: { id: 'swift', live: '2026-01-01/' }, title: 'Swift', number: 1, sign: "S'" },
    { entry: { id: 'heron', live: '2026-01-01/' }, title: 'Heron', number: 2 },
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
    save: (id: string | null, values: object, type = 'boat') =>
      run('saveEntry', { id, type, values: { title: 'Boat', ...values }, seen: null }),
    set: (path: string, set: Record<string, unknown>) =>
      releaseSet(loaded, path, set, (wall += 1000)),
  };
}
const taken = (path: string, name: string) => ({
  ok: false,
  issues: [{ code: 'not-unique', path, message: expect.stringContaining(`“${name}”`) }],
});

test('a value that another entry of the type has is refused where it stands', async () => {
  const s = await site();
  expect(s.save(null, { number: 1 })).toMatchObject(taken('number', 'Swift'));
  expect(s.save('heron', { number: 2, sign: "S'" })).toMatchObject(taken('sign', 'Swift'));
  expect(s.save('swift', { number: 1, sign: "S'" }).ok).toBe(true);
  expect(s.save(null, { number: 1 }, 'oar').ok).toBe(true);
  expect(s.save(null, {}).ok).toBe(true);
  expect(s.save(null, {}).ok).toBe(true);
});

test('a value is free again when its entry has another, or is deleted, until that comes back', async () => {
  const s = await site();
  expect(s.save('swift', { number: 7 }).ok).toBe(true);
  expect(s.save('heron', { number: 1 }).ok).toBe(true);
  expect(s.run('deleteEntry', { entry: 'swift' }).ok).toBe(true);
  expect(s.save(null, { number: 7, title: 'New' }).ok).toBe(true);
  expect(s.run('restoreEntry', { entry: 'swift' })).toMatchObject(taken('number', 'New'));
});

test('a field becomes unique only where no two have the same, and says which have', async () => {
  const s = await site();
  const fields = s.view.at(at('2026-07-03'))!.site.typesByKey.get('oar')!.fields;
  const unique = fields.map((f) => (f.key === 'number' ? { ...f, unique: true } : f));
  for (const title of ['A', 'B']) expect(s.save(null, { title, number: 4 }, 'oar').ok).toBe(true);
  expect(s.set('types/oar', { fields: unique })).toMatchObject(
    taken('types/oar/fields/number', 'A'),
  );
  expect(s.save(null, { number: 4 }, 'oar').ok).toBe(true);
});

test('values that were converted count as what they are now', async () => {
  const s = await site();
  const { fields } = s.view.at(at('2026-07-03'))!.site.typesByKey.get('oar')!;
  expect(s.save(null, { title: 'A', sign: '12' }, 'oar').ok).toBe(true);
  const now = { ...fields[2]!, id: 'sign2', kind: 'number', translated: false, unique: true };
  const replaces = { field: 'sign', kind: 'text', many: false };
  expect(s.set('types/oar', { fields: [...fields.slice(0, 2), { ...now, replaces }] }).ok).toBe(
    true,
  );
  const values = { title: 'B', sign2: 12 };
  expect(s.run('saveEntry', { id: null, type: 'oar', values, seen: null })).toMatchObject(
    taken('sign', 'A'),
  );
});

test('a folder with doubles is refused, each by file', async () => {
  const { issues } = await site({ 'entries/boat/third.json': { title: 'C', number: 2 } });
  expect(issues).toMatchObject([{ code: 'not-unique', path: 'entries/boat/third.json' }]);
});

test('only single texts, numbers, days and instants can be unique', async () => {
  const fields = [
    { key: 'title', kind: 'text' },
    { key: 'is', kind: 'yesno', unique: true },
    { key: 'names', kind: 'text', many: true, unique: true },
  ];
  const { issues } = await site({ 'types/oar.json': { key: 'oar', fields } });
  expect(issues.map(({ code }) => code)).toEqual(['wrong-unique', 'wrong-unique']);
});
