import { mkdirSync, rmSync, writeFileSync } from 'node:fs';
import { join } from 'node:path';
import sharp from 'sharp';
import { describe, expect, test } from 'vitest';
import { guessMapping } from '@/core/intake/guess.ts';
import { type Mapping, mappingSpec } from '@/core/intake/mapping.ts';
import { runCommand } from '@/server/commands/run.ts';
import { COMMAND_LINE } from '@/server/permit.ts';
import { keepStaged } from '@/server/uploads/keep-staged.ts';
import { stageFile, stageFolder } from '@/server/uploads/stage-folder.ts';
import {
  type Files,
  type TestSite,
  loadFiles,
  temporaryFolder,
  writeFiles,
} from '../helpers/folder.ts';
import { derivedRows, rebuild } from '../helpers/snapshot.ts';

const DESIGN: Files = {
  'types/post.json': {
    key: 'post',
    address: '/{title}',
    fields: [
      { key: 'title', kind: 'text', required: true },
      { key: 'story', kind: 'richtext' },
      { key: 'cover', kind: 'media' },
      { key: 'tags', kind: 'tags', set: 'tags' },
      { key: 'family', kind: 'category', set: 'family' },
      { key: 'stock', kind: 'number' },
      { key: 'sow', kind: 'date' },
      { key: 'next', kind: 'reference', types: ['post'] },
    ],
  },
  'subjects/tags.json': { key: 'tags', kind: 'tags', subjects: [{ key: 'frost', name: 'Frost' }] },
  'subjects/family.json': {
    ...{ key: 'family', kind: 'tree' },
    subjects: [{ key: 'legumes', name: 'Legumes' }],
  },
};

/** A site, and a folder from elsewhere that is brought into it again and again. */
async function bringing(files: Record<string, string>) {
  const site = await loadFiles(DESIGN);
  const folder = join(temporaryFolder(), 'blog');
  mkdirSync(folder);
  writeFiles(folder, files);
  let wall = Date.parse('2026-07-01T12:00:00Z');
  let source: string | null = null;
  const bring = async (change: Partial<Mapping> = {}, dry = false) => {
    const place = temporaryFolder();
    const staged = await stageFolder(folder, place);
    const { site: compiled } = site.view.at(wall)!;
    const guess = guessMapping(staged.seen, compiled.typesByKey.get('post')!);
    const mapping = mappingSpec.parse({ ...guess, ...change });
    if (!dry) await keepStaged(stageFile(place), site.data);
    wall += 60_000;
    const input = { stage: stageFile(place), source, name: 'Blog', mapping, dry };
    const result = runCommand(site.connection, 'bringIn', COMMAND_LINE, input, { wallClock: wall });
    if (result.ok && !dry) source = result.value.source;
    return { staged, mapping, done: result.ok ? result.value : null, result };
  };
  const run = (name: 'saveEntry' | 'deleteEntry' | 'undoChange', input: object) =>
    runCommand(site.connection, name, COMMAND_LINE, input, { wallClock: (wall += 60_000) });
  return { site, folder, bring, run, at: () => wall };
}

const values = ({ connection }: TestSite, name: string): Record<string, never> => {
  const sql = `SELECT "values" FROM revision WHERE name = ? ORDER BY number DESC LIMIT 1`;
  const stored = JSON.parse(connection.driver.prepare(sql).pluck().get(name) as string) as Record<
    string,
    { languages?: Record<string, unknown> }
  >;
  return Object.fromEntries(
    Object.entries(stored).map(([id, value]) => [id, value?.languages?.en ?? value]),
  ) as never;
};
const count = ({ connection }: TestSite, table: string): unknown =>
  connection.driver.prepare(`SELECT count(*) FROM ${table}`).pluck().get();

const BLOG = {
  'posts/frost.md': `---\ntitle: "The first frost"\nauthor: { name: "Ines Moor" }\ndate: 2019-11-02 08:00:00 +0100\ntags: [Frost, weather]\n---\nSee [the second](second.md#x) and [lost](gone.md).\n\n![A basket](/images/basket.png)\n`,
  'posts/second.md': `+++\ntitle = "Second"\ntags = ["weather"]\n+++\n# Not its name\n\nBack to [first](./frost.md).\n`,
  'posts/third.markdown': '# Third\n\nWords.\n',
  'posts/fourth.md': '{\n  "title": "Fourth",\n  "draft": true\n}\n\nText.\n',
};

async function blog() {
  const all = await bringing(BLOG);
  mkdirSync(join(all.folder, 'static/images'), { recursive: true });
  await sharp({ create: { width: 40, height: 20, channels: 3, background: 'red' } })
    .png()
    .toFile(join(all.folder, 'static/images/basket.png'));
  return all;
}

describe('a folder of Markdown', () => {
  test('becomes entries; what stands between files leads to what came of them', async () => {
    const { site, bring } = await blog();
    const { done } = await bring();
    expect(done).toMatchObject({
      created: 4,
      refused: [],
      media: 1,
      subjects: 1,
      lost: { count: 1 },
    });
    expect(done!.lost.first[0]).toMatchObject({ path: 'posts/frost.md', line: 7 });
    const story = JSON.stringify(values(site, 'The first frost').story);
    const second = site.connection.driver
      .prepare(`SELECT entry FROM revision WHERE name = 'Second'`)
      .pluck()
      .get();
    expect(story).toContain(`"entry":"${second}"`);
    expect(story).toContain('"src":"basket.png"');
    expect(values(site, 'The first frost').tags).toEqual(['frost', 'weather']);
    const author = `SELECT e.author FROM entry AS e JOIN revision AS r ON r.entry = e.id WHERE r.name = ?`;
    const by = site.connection.driver.prepare(author).pluck();
    expect([by.get('The first frost'), by.get('Third')]).toEqual(['Ines Moor', 'command-line']);
    // A heading that names nothing stays; one that names the entry is not said again.
    expect(JSON.stringify(values(site, 'Second').story)).toContain('Not its name');
    expect(JSON.stringify(values(site, 'Third').story)).not.toContain('Third');
    const rows = derivedRows(site.connection);
    rebuild(site.connection, site.view);
    expect(derivedRows(site.connection)).toEqual(rows);
  });

  test('tried only leaves no trace', async () => {
    const { site, bring } = await blog();
    const before = ['entry', 'revision', 'subject', 'media', 'source'].map((t) => count(site, t));
    expect((await bring({}, true)).done).toMatchObject({ created: 4, media: 1 });
    expect(['entry', 'revision', 'subject', 'media', 'source'].map((t) => count(site, t))).toEqual(
      before,
    );
  });

  test('brought again brings what is new and changed, and tells what is gone', async () => {
    const { site, folder, bring, at } = await blog();
    await bring({ publish: 'not-drafts' });
    expect((await bring({ publish: 'not-drafts' })).done).toMatchObject({
      ...{ created: 0, changed: 0, same: 4, gone: { count: 0 } },
    });
    expect(site.view.render('/posts/third', at())!.status).toBe(200);
    expect(site.view.render('/posts/fourth', at())!.status).toBe(404);
    writeFiles(folder, {
      'posts/fifth.md': '# Fifth\n',
      'posts/second.md': '# Second\n\nOther.\n',
    });
    rmSync(join(folder, 'posts/third.markdown'));
    expect((await bring({ publish: 'not-drafts' })).done).toMatchObject({
      ...{ created: 1, changed: 1, same: 2, gone: { count: 1, retired: 0 } },
    });
    expect((await bring({ publish: 'not-drafts', gone: 'retire' })).done).toMatchObject({
      gone: { count: 1, retired: 1 },
    });
    expect(site.view.render('/posts/third', at())!.status).toBe(410);
  });

  test('is taken back: what was made goes, what was changed is as before, and comes again', async () => {
    const { site, bring, run, at, folder } = await blog();
    const page = (path: string): string => site.view.render(path, at())?.body ?? '';
    const first = await bring({ publish: 'yes' });
    expect(run('undoChange', { change: first.done!.change })).toMatchObject({
      ok: true,
      value: { done: 4, same: 0 },
    });
    expect(site.view.render('/posts/second', at())?.status).toBe(410);
    const again = await bring({ publish: 'yes' });
    expect(again.done).toMatchObject({ created: 4, changed: 0 });
    writeFiles(folder, { 'posts/second.md': '+++\ntitle = "Second"\n+++\nOther words.\n' });
    rmSync(join(folder, 'posts/third.markdown'));
    const changed = await bring({ publish: 'yes', gone: 'retire' });
    expect(changed.done).toMatchObject({ changed: 1, gone: { retired: 1 } });
    expect(page('/posts/second')).toContain('Other words');
    expect(site.view.render('/posts/third', at())?.status).toBe(410);
    const live = derivedRows(site.connection);
    expect(run('undoChange', { change: changed.done!.change })).toMatchObject({
      ok: true,
      value: { done: 2, same: 0 },
    });
    expect(page('/posts/second')).toContain('Back to');
    expect(site.view.render('/posts/third', at())?.status).toBe(200);
    expect(derivedRows(site.connection)).not.toEqual(live);
    expect(run('undoChange', { change: changed.done!.change })).toMatchObject({ ok: false });
    expect((await bring({ publish: 'yes' })).done).toMatchObject({ changed: 1, created: 0 });
    expect(page('/posts/second')).toContain('Other words');
  });

  test('is taken back but for what was changed here since', async () => {
    const { site, bring, run, at } = await blog();
    const { done } = await bring({ publish: 'no' });
    const sql = "SELECT entry FROM revision WHERE name = 'Second'";
    const id = site.connection.driver.prepare(sql).pluck().get();
    const saved = { id, type: 'post', values: { title: 'Mine' }, seen: null };
    expect(run('saveEntry', saved)).toMatchObject({ ok: true });
    expect(run('undoChange', { change: done!.change })).toMatchObject({
      value: { done: 3, same: 1 },
    });
    expect(count(site, 'entry WHERE deleted IS NULL')).toBe(1);
    const before = derivedRows(site.connection);
    rebuild(site.connection, site.view);
    expect(derivedRows(site.connection)).toEqual(before);
    expect(site.view.render('/posts/second', at())?.status).toBe(404);
  });

  test('drafts that were brought anew are taken back as if they had never been', async () => {
    const { site, bring, run, folder } = await blog();
    await bring({ publish: 'no' });
    const revisions = count(site, 'revision');
    const files = { 'posts/second.md': '+++\ntitle = "Second"\n+++\nOther words.\n' };
    writeFiles(folder, files);
    const { done } = await bring({ publish: 'no' });
    expect(done).toMatchObject({ changed: 1 });
    run('undoChange', { change: done!.change });
    expect(count(site, 'revision')).toBe(revisions);
    expect((await bring({ publish: 'no' })).done).toMatchObject({ changed: 1, same: 3 });
  });

  test('does not take the place of what was changed or deleted here', async () => {
    const { site, folder, bring, run } = await blog();
    await bring();
    const idOf = (name: string): string =>
      site.connection.driver
        .prepare('SELECT entry FROM revision WHERE name = ?')
        .pluck()
        .get(name) as string;
    run('saveEntry', { id: idOf('Third'), type: 'post', values: { title: 'Mine' }, seen: null });
    run('deleteEntry', { entry: idOf('Fourth') });
    writeFiles(folder, { 'posts/third.markdown': '# Theirs\n', 'posts/fourth.md': '# Again\n' });
    const { done } = await bring();
    expect(done!.refused.map(({ message }) => message).sort()).toEqual([
      'It was changed here since it was brought in, and where it comes from too.',
      'This entry has been deleted.',
    ]);
    expect(done).toMatchObject({ created: 0, changed: 0, same: 2 });
  });
});

describe('a table', () => {
  const table = async (content: string | Buffer, name = 'seeds.csv') => {
    const all = await bringing({});
    writeFileSync(join(all.folder, name), content);
    return all;
  };

  test.each<[string, Buffer]>([
    [
      'with semicolons in Windows-1252',
      Buffer.from('Title;Stock;Sow\nBl\xe4u;"1.200,0";1.3.2026\n', 'latin1'),
    ],
    ['in UTF-16', Buffer.from('\ufeffTitle\tStock\tSow\r\nBläu\t1200\t2026-03-01\r\n', 'utf16le')],
    ['in UTF-8 with a mark', Buffer.from('\ufeffTitle,Stock,Sow\n"Bläu","1,200","1 March 2026"\n')],
  ])('%s is read', async (_, content) => {
    const { site, bring } = await table(content);
    expect((await bring()).done).toMatchObject({ created: 1, refused: [] });
    expect(values(site, 'Bläu')).toMatchObject({ stock: 1200, sow: '2026-03-01' });
  });

  test('leaves out the rows that are none, each with its line and reason', async () => {
    const { bring } = await table(
      'title,stock,next\nPea,12,Bean\nBean,many,\nOat,1,2,3\n,4,\nRye,1,Nobody\n',
    );
    const { done, staged } = await bring();
    expect(staged.issues).toMatchObject([
      { line: 4, message: 'The row has 4 cells, and the first line names 3 columns.' },
    ]);
    expect(done!.created).toBe(1);
    expect(done!.refused.map(({ message, places }) => [message, places])).toEqual([
      ['Stock is a number, and something else stands there.', ['seeds.csv:3 “many”']],
      ['Title names the entry, and it is blank.', ['seeds.csv:5 “title”']],
      [
        'Next is an entry that is there, and something else stands there.',
        ['seeds.csv:6 “Nobody”'],
      ],
    ]);
  });

  test('whose first line names a column twice, or none, is refused', async () => {
    for (const [content, words] of [
      ['a,a\n1,2\n', 'The column “a” stands twice.'],
      [',\n1,2\n', 'The first line names no columns.'],
    ] as const) {
      const { bring } = await table(content);
      const { staged } = await bring();
      expect(staged.issues.map(({ message }) => message)).toEqual([words]);
    }
  });

  test('is known by its ids, in whatever order; the second of one id is left out', async () => {
    const { folder, bring } = await table('id,title\n1,Pea\n2,Bean\n1,Twice\n');
    const { done } = await bring();
    expect(done).toMatchObject({ created: 2, refused: [{ count: 1, places: ['seeds.csv:4'] }] });
    writeFileSync(join(folder, 'seeds.csv'), 'id,title\n2,Bean\n3,Oat\n1,Peas\n');
    expect((await bring()).done).toMatchObject({ created: 1, changed: 1, same: 1 });
  });

  test('makes the categories that it names, one below another', async () => {
    const { site, bring } = await table('title,family\nPea,Legumes > Peas\nOat,Grains\n');
    expect((await bring()).done).toMatchObject({ created: 2, subjects: 2 });
    const tree = site.connection.driver
      .prepare(`SELECT name, parent FROM subject WHERE "set" = 'family' ORDER BY name`)
      .raw()
      .all();
    expect(tree).toEqual([
      ['Grains', null],
      ['Legumes', null],
      ['Peas', 'legumes'],
    ]);
  });
});

test.each<[string, string]>([
  ['a.json', '[{"title":"One"},{"title":"Two"}]'],
  ['a.json', '{"posts":[{"title":"One"},{"title":"Two"}],"more":1}'],
  ['a.yaml', '- title: One\n- title: Two\n'],
  ['a.ndjson', '{"title":"One"}\n{"title":"Two"}\n'],
])('objects of %s become entries: %s', async (name, content) => {
  const { bring } = await bringing({ [name]: content });
  expect((await bring()).done).toMatchObject({ created: 2, refused: [] });
});

test.each<[string, string, RegExp]>([
  ['a.md', '---\ntitle: x\nno end\n', /does not end/],
  ['a.md', '+++\ntitle = \n+++\n', /not TOML/],
  ['a.md', '---\ntitle: [\n---\n', /not YAML/],
  ['a.json', '"words"', /no keys with values/],
  ['a.ndjson', '{"title":"One"}\nwords\n', /no keys with values/],
])('what cannot be read is told by its file: %s %j', async (name, content, words) => {
  const { bring } = await bringing({ [name]: content });
  const { staged } = await bring();
  expect(staged.issues.map(({ path }) => path)).toEqual([name]);
  expect(staged.issues[0]!.message).toMatch(words);
});

test('a mapping to what is not there is refused, and nothing is kept', async () => {
  const { site, bring } = await bringing({ 'a.csv': 'title\nOne\n' });
  const { result } = await bring({ fields: { title: 'heading' } });
  expect(result).toMatchObject({ issues: [{ code: 'wrong-mapping' }] });
  expect(count(site, 'source')).toBe(0);
});
