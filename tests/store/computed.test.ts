import { expect, test } from 'vitest';
import type { CommandInput, CommandName } from '@/server/commands/index.ts';
import { runCommand } from '@/server/commands/run.ts';
import { COMMAND_LINE } from '@/server/permit.ts';
import { at, loadFiles } from '../helpers/folder.ts';
import { setting } from '../helpers/release.ts';
import { derivedRows, rebuild } from '../helpers/snapshot.ts';

const FIELDS = [
  { key: 'first', kind: 'text' },
  { key: 'last', kind: 'text' },
  { key: 'name', kind: 'computed', pattern: '{first} {last}', column: true },
];
const FILES = {
  'types/rower.json': { key: 'rower', address: '/{name}', naming: 'name', fields: FIELDS },
  'listings/all.json': { key: 'all', type: 'rower', address: '/all', sort: ['name'] },
  'entries/rower.json': [
    { entry: { id: 'a', live: '2026-01-01/' }, first: 'Ann', last: 'Zane' },
    { entry: { id: 'b', live: '2026-01-01/' }, first: 'Bo', last: 'Adair' },
  ],
};

async function site(files: object = {}) {
  const loaded = await loadFiles({ ...FILES, ...files } as never, at('2026-07-01'));
  let wall = at('2026-07-02');
  const run = <N extends CommandName>(name: N, input: CommandInput<N>) =>
    runCommand(loaded.connection, name, COMMAND_LINE, input, { wallClock: (wall += 1000) });
  const names = (instant = wall + 1): string[] =>
    [...loaded.view.render('/all', instant)!.body.matchAll(/<h3[^>]*><a[^>]*>(.*?)<\/a>/g)].map(
      ([, name]) => name!,
    );
  const release = (pattern: string, starts?: string) => {
    const { design } = loaded.view.at(wall)!.site;
    const [first, last, name] = design.types[0]!.fields;
    const fields = [first, last, { ...name, pattern }];
    const edit = { steps: setting(design, 'types/rower', { fields }) };
    return run('release', { edit, at: starts ?? null });
  };
  return { ...loaded, run, names, release };
}

test('entries are named, found and listed by what is computed', async () => {
  const s = await site();
  expect(s.issues).toEqual([]);
  expect(s.names()).toEqual(['Ann Zane', 'Bo Adair']);
  expect(s.view.render('/ann-zane', at('2026-07-02'))?.status).toBe(200);
  const named = s.connection.driver.prepare('SELECT name FROM revision ORDER BY entry').pluck();
  expect(named.all()).toEqual(['Ann Zane', 'Bo Adair']);
  const values = { first: 'Cy', last: 'Moy', name: 'written by hand' };
  const saved = s.run('saveEntry', { id: null, type: 'rower', values, seen: null });
  if (!saved.ok) throw new Error(JSON.stringify(saved.issues));
  const json = s.connection.driver.prepare('SELECT "values" FROM revision ORDER BY saved DESC');
  expect(json.pluck().get()).not.toContain('by hand');
  const plan = { entry: saved.value.id, action: 'publish', at: null, revision: null } as const;
  expect(s.run('planChange', plan).ok).toBe(true);
  expect(s.names()).toEqual(['Ann Zane', 'Bo Adair', 'Cy Moy']);
});

test('another word for an option orders lists anew; another key for a field does not', async () => {
  const fields = [
    { key: 'title', kind: 'text' },
    { key: 'side', kind: 'choice', options: ['port', 'starboard'] },
    { key: 'name', kind: 'computed', pattern: '{side} {title}' },
  ];
  const rower = { key: 'rower', address: '/{title}', fields };
  const entries = [
    { entry: { id: 'a', live: '2026-01-01/' }, title: 'Ann', side: 'port' },
    { entry: { id: 'b', live: '2026-01-01/' }, title: 'Bo', side: 'starboard' },
  ];
  const s = await site({ 'types/rower.json': rower, 'entries/rower.json': entries });
  expect(s.names()).toEqual(['Ann', 'Bo']);
  const option = 'types/rower/fields/side/options/port';
  const step = {
    do: 'set',
    part: option,
    property: 'label',
    was: 'port',
    now: 'Towards us',
  } as const;
  expect(s.run('release', { edit: { steps: [step] } })).toMatchObject({ ok: true });
  expect(s.names()).toEqual(['Bo', 'Ann']);
  const rename = {
    do: 'rename',
    part: 'types/rower/fields/side',
    was: 'side',
    now: 'bank',
  } as const;
  expect(s.run('release', { edit: { steps: [rename] } })).toMatchObject({ ok: true });
  expect(s.names()).toEqual(['Bo', 'Ann']);
  const rows = derivedRows(s.connection);
  rebuild(s.connection, s.view);
  expect(derivedRows(s.connection)).toEqual(rows);
});

test('another pattern orders lists anew, from its release on and not before', async () => {
  const s = await site();
  expect(s.release('{last}, {first}', '2026-08-01')).toMatchObject({ ok: true });
  expect(s.names(at('2026-07-31'))).toEqual(['Ann Zane', 'Bo Adair']);
  expect(s.names(at('2026-08-02'))).toEqual(['Adair, Bo', 'Zane, Ann']);
});

test('another pattern that holds at once leaves the past as it was', async () => {
  const s = await site();
  expect(s.release('{last}').ok).toBe(true);
  expect(s.names(at('2026-07-02'))).toEqual(['Ann Zane', 'Bo Adair']);
  expect(s.names()).toEqual(['Adair', 'Zane']);
});

test('a value written in a folder for a computed field is refused by file and line', async () => {
  const { issues } = await site({ 'entries/rower/c.json': { first: 'C', name: 'C D' } });
  expect(issues).toMatchObject([{ code: 'computed', path: 'entries/rower/c.json', line: 1 }]);
});
