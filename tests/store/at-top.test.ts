import { expect, test } from 'vitest';
import type { CommandInput, CommandName } from '@/server/commands/index.ts';
import { runCommand } from '@/server/commands/run.ts';
import { COMMAND_LINE } from '@/server/permit.ts';
import { newEntry } from '@/server/queries/entry.ts';
import { at, loadFiles } from '../helpers/folder.ts';
import { setting } from '../helpers/release.ts';

const FIELDS = [
  { key: 'title', kind: 'text' },
  { key: 'inside', kind: 'reference', types: ['page'], sitsWithin: true, atTop: 2 },
  { key: 'keeper', kind: 'reference', types: ['person'] },
];
const files = (...pages: object[]) => ({
  'types/page.json': { key: 'page', address: '[{within.path}]/{title}', fields: FIELDS },
  'types/person.json': { key: 'person', fields: [{ key: 'title', kind: 'text' }] },
  'entries/page.json': pages,
});
const page = (id: string, inside?: string) => ({
  entry: { id, live: '2026-01-01/' },
  title: id,
  ...(inside === undefined ? {} : { inside }),
});

async function site(...pages: object[]) {
  const loaded = await loadFiles(files(...pages), at('2026-07-01'));
  let wall = at('2026-07-02');
  const run = <N extends CommandName>(name: N, input: CommandInput<N>) => {
    const options = { wallClock: (wall += 1000) };
    const done = runCommand(loaded.connection, name, COMMAND_LINE, input, options);
    return done.ok ? 'done' : done.issues.map(({ code }) => code).join();
  };
  const save = (id: string | null, title: string, inside: string | null) =>
    run('saveEntry', { id, type: 'page', values: { title, inside }, seen: null });
  return { ...loaded, run, save, now: () => wall + 1 };
}

test('no more entries sit within nothing than may', async () => {
  const s = await site(page('home'), page('about'), page('team', 'about'));
  expect(s.save(null, 'Contact', null)).toBe('crowded-top');
  expect(s.save(null, 'Contact', 'home')).toBe('done');
  expect(s.save('team', 'Team', null)).toBe('crowded-top');
  expect(s.save('home', 'Home, again', null)).toBe('done');
  expect(s.run('deleteEntry', { entry: 'about' })).toBe('done');
  expect(s.save('team', 'Team', null)).toBe('done');
  expect(s.run('restoreEntry', { entry: 'about' })).toBe('crowded-top');
});

test('a folder with more is refused by file, and so is a release that allows fewer', async () => {
  const { issues } = await site(page('a'), page('b'), page('c'));
  expect(issues).toMatchObject([{ code: 'crowded-top', path: 'entries/page.json' }]);
  const s = await site(page('a'), page('b'), page('c', 'a'));
  expect(s.issues).toEqual([]);
  const { design } = s.view.at(s.now())!.site;
  const { fields } = design.types.find(({ key }) => key === 'page')!;
  const allow = (atTop: number) =>
    s.run('release', {
      edit: {
        steps: setting(design, 'types/page', {
          fields: fields.map((f) => (f.key === 'inside' ? { ...f, atTop } : f)),
        }),
      },
    });
  expect(allow(1)).toBe('crowded-top');
  expect(allow(5)).toBe('done');
});

test('a form says who is at the top, and of what there is nothing to lead to', async () => {
  const s = await site(page('home'), page('about'));
  const notes = (key: string) =>
    newEntry(s.view, COMMAND_LINE, 'page', s.now())!.type.fields.find((f) => f.key === key)!.notes;
  expect(notes('inside')).toEqual([
    {
      words: '2 may be at the top, and are: “about”, “home”. Choose what it sits within.',
      setting: 'inside',
    },
  ]);
  expect(notes('keeper')).toEqual([
    { words: 'There is no Person yet.', write: { key: 'person', label: 'Person' } },
  ]);
});
