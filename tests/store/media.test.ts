import { existsSync, readFileSync } from 'node:fs';
import { join } from 'node:path';
import { expect, test } from 'vitest';
import { mediaFilters } from '@/core/content/media-filters.ts';
import type { CommandInput, CommandName } from '@/server/commands/index.ts';
import { runCommand } from '@/server/commands/run.ts';
import { PublicPages } from '@/server/delivery/public-pages.ts';
import { COMMAND_LINE } from '@/server/permit.ts';
import { mediaFound, mediumDetail } from '@/server/queries/media.ts';
import { savedFiles } from '@/server/saving/saved-files.ts';
import { saveToFolder } from '@/server/saving/to-folder.ts';
import { drawing, keptDrawing } from '../helpers/drawings.ts';
import { type TestSite, loadFiles, temporaryFolder } from '../helpers/folder.ts';
import { entry } from '../helpers/notes.ts';

const WALL = Date.parse('2026-07-01T12:00:00Z');
const NOTE = {
  key: 'note',
  address: '/{title}',
  template: 'note',
  fields: [
    { key: 'title', kind: 'text' },
    { key: 'photo', kind: 'media' },
    { key: 'body', kind: 'richtext' },
    {
      key: 'rows',
      kind: 'group',
      many: true,
      fields: [{ key: 'shown', kind: 'media', many: true }],
    },
  ],
};
const live = ['2026-01-01/'];

async function site(): Promise<TestSite & { run: typeof run; wall: number }> {
  const loaded = await loadFiles({
    'types/note.json': NOTE,
    'templates/note.json': {
      ...{ key: 'note', kind: 'page', type: 'note' },
      blocks: [
        { block: 'picture', field: 'photo', caption: true },
        { block: 'richText', field: 'body' },
      ],
    },
    'media/pea.svg': drawing('green'),
    'media/bean.svg': drawing('brown'),
    'media/oat.svg': drawing('yellow'),
    'media/alt.yaml': { 'pea.svg': 'A pea' },
    'entries/note.json': [
      { ...entry('a', 'A', live), photo: 'pea.svg' },
      { ...entry('b', 'B', live), body: 'See ![](media/bean.svg)' },
      { ...entry('c', 'C', live), rows: [{ shown: ['bean.svg'] }] },
    ],
  });
  expect(loaded.issues).toEqual([]);
  let wall = WALL;
  function run<N extends CommandName>(name: N, input: CommandInput<N>) {
    wall += 60_000;
    return runCommand(loaded.connection, name, COMMAND_LINE, input, { wallClock: wall });
  }
  return {
    ...loaded,
    run,
    get wall() {
      return wall;
    },
  };
}

const body = (s: TestSite, path: string, at: number): string => s.view.render(path, at)!.body;
const found = (s: TestSite, about: object, at: number | null = null): string[] =>
  mediaFound(s.view, COMMAND_LINE, {
    ...{ at, from: 0, filters: mediaFilters.parse({ sort: 'name', ...about }) },
  }).lines.map(({ id }) => id);

test('a file that is replaced is another from then on; pages of the past show what was', async () => {
  const s = await site();
  const file = keptDrawing(s.data, 'red', 60);
  const [before, was] = [s.wall, body(s, '/a', s.wall)];
  expect(s.run('replaceMedium', { id: 'pea.svg', file }).ok).toBe(true);
  expect(body(s, '/a', s.wall)).toContain(`/media/${file.hash}/pea.svg`);
  expect(body(s, '/a', s.wall)).toContain('alt="A pea"');
  expect(body(s, '/a', before)).toBe(was);
  expect(s.run('replaceMedium', { id: 'pea.svg', file })).toMatchObject({
    issues: [{ code: 'same-file' }],
  });
  const leaflet = { ...file, hash: 'f'.repeat(64), mime: 'application/pdf', width: 0, height: 0 };
  expect(s.run('replaceMedium', { id: 'pea.svg', file: leaflet })).toMatchObject({
    issues: [{ code: 'other-sort' }],
  });
});

test('what is said of a picture changes on its pages, is undone, and stays said in the past', async () => {
  const s = await site();
  const before = s.wall;
  const said = { alt: 'Peas in a pod', caption: 'Late', credit: 'Ines', focusX: 5 };
  const changed = s.run('changeMedium', { id: 'pea.svg', ...said });
  expect(body(s, '/a', s.wall)).toContain('alt="Peas in a pod"');
  expect(body(s, '/a', s.wall)).toContain('<figcaption>Late <small class="credit">Ines</small>');
  expect(body(s, '/a', before)).toContain('alt="A pea"');
  const starts = changed.ok ? changed.value.before! : 0;
  expect(s.run('restoreMedium', { id: 'pea.svg', starts }).ok).toBe(true);
  expect(body(s, '/a', s.wall)).toContain('alt="A pea"');
  expect(mediumDetail(s.view, COMMAND_LINE, 'pea.svg', null)!.versions).toHaveLength(3);
  expect(s.run('changeMedium', { id: 'pea.svg', alt: 'A pea' })).toMatchObject({
    value: { before: null },
  });
});

test('a picture that is deleted is shown nowhere from then on, and comes back', async () => {
  const s = await site();
  const before = s.wall;
  const deleted = s.run('deleteMedium', { id: 'pea.svg' });
  expect(body(s, '/a', s.wall)).not.toContain('<img');
  expect(body(s, '/a', before)).toContain('<img');
  expect(found(s, {})).toEqual(['bean.svg', 'oat.svg']);
  expect(found(s, {}, before)).toEqual(['bean.svg', 'oat.svg', 'pea.svg']);
  expect(s.run('deleteMedium', { id: 'pea.svg' })).toMatchObject({
    issues: [{ code: 'unknown-medium' }],
  });
  // What an entry says of it may stay, so that the words around it can be mended.
  const values = { title: 'A', photo: 'pea.svg' };
  expect(s.run('saveEntry', { id: 'a', type: 'note', values, seen: null }).ok).toBe(true);
  const starts = deleted.ok ? deleted.value.before : 0;
  expect(s.run('restoreMedium', { id: 'pea.svg', starts }).ok).toBe(true);
  expect(body(s, '/a', s.wall)).toContain('<img');
});

test('a new file has a name of its own, in plain letters, that none ever had', async () => {
  const s = await site();
  const add = (name: string, colour: string) => {
    const done = s.run('addMedium', { name, file: keptDrawing(s.data, colour) });
    return done.ok ? done.value : null;
  };
  expect(add('C:\\Photos\\Übersicht 2026 (neu).PNG', 'red')).toEqual({
    ...{ id: 'ubersicht-2026-neu.svg', isNew: true },
  });
  s.run('deleteMedium', { id: 'pea.svg' });
  expect(add('PEA.svg', 'blue')).toMatchObject({ id: 'pea-2.svg' });
  expect(add('../../etc/passwd', 'white')).toMatchObject({ id: 'passwd.svg' });
  expect(add('★', 'black')).toMatchObject({ id: 'file.svg' });
  expect(add('again.svg', 'red')).toEqual({ id: 'ubersicht-2026-neu.svg', isNew: false });
});

test('who shows a medium is known: in fields, in texts and in groups, and by nobody', async () => {
  const s = await site();
  const users = (id: string): string[] =>
    mediumDetail(s.view, COMMAND_LINE, id, null)!.use.entries.map((e) => e.id);
  expect(users('pea.svg')).toEqual(['a']);
  expect(users('bean.svg')).toEqual(['b', 'c']);
  expect(found(s, { lacking: 'use' })).toEqual(['oat.svg']);
  s.run('saveEntry', { id: 'a', type: 'note', values: { title: 'A' }, seen: null });
  // It is live still in its former version.
  expect(users('pea.svg')).toEqual(['a']);
  s.run('planChange', { entry: 'a', action: 'publish', at: null, revision: null });
  expect(users('pea.svg')).toEqual([]);
  expect(found(s, { lacking: 'use' })).toEqual(['oat.svg', 'pea.svg']);
});

test('media are found by name and words, by what they are and lack', async () => {
  const s = await site();
  s.run('changeMedium', { id: 'bean.svg', caption: 'Brûlée am See' });
  s.run('changeMedium', { id: 'oat.svg', decorative: true });
  expect(found(s, { words: 'BRULEE bean' })).toEqual(['bean.svg']);
  expect(found(s, { words: '%' })).toEqual([]);
  expect(found(s, { lacking: 'alt' })).toEqual(['bean.svg']);
  expect(found(s, { formats: ['pdf'] })).toEqual([]);
  expect(found(s, { formats: ['svg'], maxKilobytes: 1 })).toHaveLength(3);
});

test('a change makes those pages anew that show the picture, and no others', async () => {
  const s = await site();
  const pages = new PublicPages(s.view, () => s.wall);
  const turn = (): Promise<void> => new Promise((resolve) => setImmediate(resolve));
  for (const path of ['/a', '/b', '/c']) pages.find(path);
  await turn();
  expect(['/a', '/b', '/c'].map((path) => pages.known(path) !== null)).toEqual([true, true, true]);
  s.run('changeMedium', { id: 'pea.svg', alt: 'Other' });
  await turn();
  pages.find('/a');
  expect(pages.known('/a')!.page.body).toContain('alt="Other"');
  await turn();
  s.run('changeMedium', { id: 'bean.svg', alt: 'A bean' });
  await turn();
  expect(['/a', '/b'].map((path) => Boolean(pages.known(path)))).toEqual([true, false]);
});

test('a saved folder has what media were, with their files', async () => {
  const s = await site();
  const file = keptDrawing(s.data, 'red', 60);
  const was = s.view.connection.driver
    .prepare(`SELECT hash FROM media WHERE id = 'pea.svg'`)
    .pluck()
    .get() as string;
  s.run('replaceMedium', { id: 'pea.svg', file });
  s.run('changeMedium', { id: 'bean.svg', decorative: true, focusY: 90 });
  s.run('deleteMedium', { id: 'oat.svg' });
  const folder = join(temporaryFolder(), 'saved');
  saveToFolder(savedFiles(s.connection, s.data, COMMAND_LINE), folder);
  expect(readFileSync(join(folder, 'media/pea.svg'), 'utf8')).toBe(drawing('red', 60));
  expect(readFileSync(join(folder, `history/${was}.svg`), 'utf8')).toBe(drawing('green'));
  expect(existsSync(join(folder, 'media/oat.svg'))).toBe(false);
  const history = readFileSync(join(folder, 'history.yaml'), 'utf8');
  expect(history).toMatch(/id: bean\.svg\n\s+file: media\/bean\.svg\n/);
  expect(readFileSync(join(folder, 'media/alt.yaml'), 'utf8')).toBe(
    'bean.svg:\n  decorative: true\n  focus:\n    - 50\n    - 90\npea.svg: A pea\n',
  );
});
