import { expect, test } from 'vitest';
import type { CommandInput, CommandName } from '@/server/commands/index.ts';
import { runCommand } from '@/server/commands/run.ts';
import { COMMAND_LINE } from '@/server/permit.ts';
import { settingsDetail } from '@/server/queries/settings.ts';
import { at, loadFiles } from '../helpers/folder.ts';
import { setting } from '../helpers/release.ts';

const FILES = {
  'types/club.json': {
    key: 'club',
    single: true,
    fields: [
      { key: 'phone', kind: 'text' },
      { key: 'chair', kind: 'reference', types: ['person'] },
    ],
  },
  'types/person.json': {
    key: 'person',
    address: '/people/{title}',
    fields: [{ key: 'title', kind: 'text' }],
    seo: { title: '{title}[ · {site.club.phone}][ · {site.club.chair.title}]' },
  },
  'entries/person.json': [
    { entry: { id: 'ann', live: '2026-01-01/' }, title: 'Ann' },
    { entry: { id: 'bo', live: '2026-01-01/2026-08-01' }, title: 'Bo' },
  ],
};
const CLUB = { entry: { id: 'c', live: '2026-03-01/' }, phone: '1', chair: 'bo' };

async function site(files: object = {}) {
  const loaded = await loadFiles({ ...FILES, ...files } as never, at('2026-07-01'));
  let wall = at('2026-07-02');
  return {
    ...loaded,
    run: <N extends CommandName>(name: N, input: CommandInput<N>) =>
      runCommand(loaded.connection, name, COMMAND_LINE, input, { wallClock: (wall += 1000) }),
    title: (instant = wall + 1) =>
      /<title>(.*)<\/title>/.exec(loaded.view.render('/people/ann', instant)!.body)?.[1],
    wall: () => wall,
  };
}

test('patterns everywhere read the one entry of a single type, as of each instant', async () => {
  const s = await site({ 'entries/club/c.json': CLUB });
  expect(s.issues).toEqual([]);
  expect(s.title(at('2026-02-01'))).toBe('Ann');
  expect(s.title(at('2026-07-03'))).toBe('Ann · 1 · Bo');
  expect(s.title(at('2026-08-02'))).toBe('Ann · 1');
  const { validUntil } = s.view.render('/people/ann', at('2026-02-01'))!;
  expect(validUntil).toBeLessThanOrEqual(at('2026-03-01'));
});

test('of a single type there is one entry: neither forms, folders nor restoring make another', async () => {
  const s = await site();
  const save = () =>
    s.run('saveEntry', { id: null, type: 'club', values: { phone: '2' }, seen: null });
  const first = save();
  if (!first.ok) throw new Error(JSON.stringify(first.issues));
  expect(save()).toMatchObject({ ok: false, issues: [{ code: 'single-type' }] });
  expect(s.run('deleteEntry', { entry: first.value.id }).ok).toBe(true);
  expect(save().ok).toBe(true);
  const back = s.run('restoreEntry', { entry: first.value.id });
  expect(back).toMatchObject({ ok: false, issues: [{ code: 'single-type' }] });
  const twice = await site({ 'entries/club.json': [CLUB, { ...CLUB, entry: { id: 'd' } }] });
  expect(twice.issues.map(({ code }) => code)).toEqual(['single-type']);
});

test('a type of several entries does not become single', async () => {
  const s = await site();
  const { design } = s.view.at(s.wall())!.site;
  const edit = (path: string, single: boolean) => ({
    edit: { steps: setting(design, path, { single }) },
  });
  expect(s.run('release', edit('types/person', true))).toMatchObject({
    ok: false,
    issues: [{ code: 'single-type', message: expect.stringContaining('2 entries') }],
  });
});

test('settings name the entries of single types, and those that are to be written', async () => {
  const looking = { at: at('2026-07-03'), past: false, seeing: 'published' as const };
  const without = await site();
  const own = { key: 'club', label: 'Club' };
  expect(settingsDetail(without.view, COMMAND_LINE, looking)!.own).toEqual([
    { ...own, entry: null },
  ]);
  const s = await site({ 'entries/club/c.json': CLUB });
  expect(settingsDetail(s.view, COMMAND_LINE, looking)!.own).toEqual([
    { ...own, entry: { id: 'c', name: '1' } },
  ]);
});
