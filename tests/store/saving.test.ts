import { existsSync, readFileSync } from 'node:fs';
import { join } from 'node:path';
import { describe, expect, onTestFinished, test } from 'vitest';
import fc from 'fast-check';
import type { CommandInput, CommandName, CommandResult } from '@/server/commands/index.ts';
import { runCommand } from '@/server/commands/run.ts';
import { contentTable } from '@/server/queries/content.ts';
import { versions } from '@/server/queries/versions.ts';
import { loadSite } from '@/server/commands/load-site.ts';
import { openDatabase } from '@/server/db/connection.ts';
import { listFiles } from '@/server/files/read-folder.ts';
import { readSite } from '@/server/files/read-site.ts';
import { COMMAND_LINE } from '@/server/permit.ts';
import { SiteView } from '@/server/queries/site-view.ts';
import { savedFiles } from '@/server/saving/saved-files.ts';
import { saveToFolder } from '@/server/saving/to-folder.ts';
import { settledInstant } from '@/server/store/write.ts';
import { expectTheSame, loaded, saved } from '../helpers/comes-back.ts';
import { databaseFromBeforeTheBench } from '../helpers/earlier.ts';
import { SITE, type TestSite, loadFiles, temporaryFolder, writeFiles } from '../helpers/folder.ts';
import { setting } from '../helpers/release.ts';
import { randomWrites } from '../helpers/random-steps.ts';
import { LivedSite } from '../helpers/random-writes.ts';
import { randomSite } from '../helpers/random-site.ts';
import { derivedRows, rebuild } from '../helpers/snapshot.ts';

const DAY = 86_400_000;

test('a site that was written on comes back from its folder with the same rows and pages', async () => {
  let [count, planned] = [0, 0];
  await fc.assert(
    fc.asyncProperty(randomSite, randomWrites, async (files, steps) => {
      const { result, ...site } = await loadFiles(files);
      if (!result.ok) return;
      const lived = new LivedSite(site.connection, site.view, Date.parse('2026-07-01T12:00:00Z'));
      for (const [what, pause] of steps) {
        lived.wall += pause * 60_000 + 1;
        lived.write(what);
      }
      count += Object.keys(await expectTheSame(site)).length;
      planned += lived.done.get('release') ?? 0;
    }),
    { numRuns: Number(process.env.LONG ?? 25) },
  );
  expect(count).toBeGreaterThan(200);
  expect(planned).toBeGreaterThan(0);
});

test('the demo comes back the same', async () => {
  const data = temporaryFolder();
  const connection = openDatabase(join(data, 'site.db'));
  onTestFinished(() => connection.close());
  const now = Date.parse('2026-07-01T12:00:00Z');
  const { site } = await readSite('demo/site', now);
  expect(loadSite(connection, data, COMMAND_LINE, site!, now)).toMatchObject({ ok: true });
  const pages = await expectTheSame({ connection, data, view: new SiteView(connection) });
  expect(Object.keys(pages).length).toBeGreaterThan(200);
});

test('a database of an earlier version, with designs put there as a whole, comes back', async () => {
  const { connection, view, data } = databaseFromBeforeTheBench();
  const pages = await expectTheSame({ connection, view, data });
  expect(Object.keys(pages).length).toBeGreaterThan(30);
});

test('a site whose front page was purged comes back with the list that stands there instead', async () => {
  const site = await loadFiles({
    'site.yaml': { ...SITE, front: { entry: 'home' } },
    'types/note.json': {
      key: 'note',
      address: '/{title}',
      fields: [{ key: 'title', kind: 'text' }],
    },
    'entries/note.json': [
      { entry: { id: 'home', live: '2026-01-01/' }, title: 'Home' },
      { entry: { id: 'other', live: '2026-01-01/' }, title: 'Other' },
    ],
  });
  const wallClock = Date.parse('2026-07-02');
  const purged = runCommand(
    site.connection,
    'purgeEntry',
    COMMAND_LINE,
    { entry: 'home' },
    { wallClock },
  );
  expect(purged.ok).toBe(true);
  await expectTheSame(site);
  expect(site.view.render('/', wallClock + 1)?.body).toContain('Other');
});

test('a subject that was merged into another stands where it stood, in pages of before', async () => {
  const kinds = ['tall', 'early', 'late'].map((key) => ({ key, name: key }));
  const site = await loadFiles({
    'site.yaml': SITE,
    'subjects/traits.json': { key: 'traits', kind: 'tags', subjects: kinds },
    'types/bean.json': {
      key: 'bean',
      address: '/{title}',
      fields: [
        { key: 'title', kind: 'text' },
        { key: 'traits', kind: 'tags', set: 'traits' },
      ],
    },
    'listings/all.json': {
      ...{ key: 'all', type: 'bean', address: '/all' },
      visitor: { filters: ['traits'] },
    },
    'entries/bean.json': kinds.map(({ key }) => ({
      ...{ entry: { id: key, live: '2026-01-01/' }, title: key, traits: [key] },
    })),
  });
  const at = Date.parse('2026-07-02');
  const change = {
    set: 'traits',
    change: { do: 'merge', keys: ['tall', 'late'], into: 'late' },
  } as const;
  const merged = runCommand(
    ...([site.connection, 'changeSubjects', COMMAND_LINE, change] as const),
    { wallClock: at },
  );
  expect(merged).toMatchObject({ ok: true });
  const told = (page: string): string[] =>
    [...page.matchAll(/name="traits\[\]" value="(\w+)"/g)].map(([, key]) => key!);
  const pages = await expectTheSame(site);
  expect(told((pages[`${Date.parse('2026-01-01')} /all`] as { body: string }).body)).toEqual([
    'tall',
    'early',
    'late',
  ]);
});

const NOTE = {
  key: 'note',
  address: '/{title}',
  fields: [
    { key: 'title', kind: 'text' },
    { key: 'story', kind: 'richtext' },
    { key: 'tint', kind: 'choice', options: ['red', { key: 'blue', label: 'Sky' }] },
    { key: 'about', kind: 'reference', types: ['note'], many: true },
  ],
};

test('what the design does not say any more comes back: options, fields, types, names', async () => {
  const { connection, view, data } = await loadFiles({
    'types/note.json': { ...NOTE, address: '/{entry.id}' },
    'types/aside.json': { key: 'aside', address: '/a/{title}', fields: NOTE.fields.slice(0, 1) },
    'style.css': 'body::before { content: "é" }',
    'entries/note/n1.md': `---
entry: { id: n1, author: Edda, live: 2026-01-01/, revisions: [{ saved: 2026-01-01, values: { title: "Früh" } }], saved: 2026-02-01 }
title: 'A "title": of 𝄞 #1'
tint: blue
about: [n1]
---
Some *words*, \`code\` and | pipes

1. one
2. two`,
    'entries/aside/a1.json': { entry: { id: 'a1', live: '2026-01-01/' }, title: 'Aside' },
  });
  const site = new LivedSite(connection, view, Date.parse('2026-07-02T12:00:00Z'));
  const release = (part: string, set: Record<string, unknown>): void => {
    const { design } = view.at((site.wall += 60_000))!.site;
    site.run('release', { edit: { steps: setting(design, part, set as never) } });
  };
  const form = { title: 'After', story: null, tint: 'red', about: ['n1'] };
  site.run('saveEntry', { id: 'n1', type: 'note', values: form, seen: null });
  const onlyBlue = { ...NOTE.fields[2], options: ['blue'] };
  release('types/note', { fields: [NOTE.fields[0], NOTE.fields[1], onlyBlue, NOTE.fields[3]] });
  await expectTheSame({ connection, view, data });
  release('types/note', { fields: [NOTE.fields[0], NOTE.fields[1]], label: 'Memo' });
  site.run('deleteEntry', { entry: 'a1' });
  release('site', { name: 'Zurück' });
  const { design } = view.at(site.wall)!.site;
  const was = design.types.find(({ key }) => key === 'aside')!;
  const place = { within: '', list: 'types', after: null };
  site.run('release', {
    edit: {
      steps: [
        { do: 'remove', part: 'types/aside', was: was as never, ...place },
        { do: 'rename', part: 'types/note', was: 'note', now: 'memo' },
      ],
    },
  });
  expect(site.refused).toEqual([]);
  await expectTheSame({ connection, view, data });
});

test('is in ASCII, a line of text on a line of its own', async () => {
  const story = 'Grün — \u{1d11e}\n\nTwo "lines"\n';
  const { connection, view, data } = await loadFiles({
    'types/note.json': NOTE,
    'entries/note/n1.json': { title: 'Ü', story },
  });
  const folder = saved({ connection, view, data });
  for (const file of listFiles(folder).files)
    expect(readFileSync(join(folder, file), 'utf8'), file).toMatch(/^[\x00-\x7f]*$/);
  expect(readFileSync(join(folder, 'entries/note/n1.yaml'), 'utf8')).toContain(
    'story: "Gr\\u00fcn \\u2014 \\U0001d11e\\n\\\n  \\n\\\n  Two \\"lines\\"\\n"',
  );
});

describe('a folder that is saved to', () => {
  const site = (): Promise<TestSite> =>
    loadFiles({
      'types/note.json': NOTE,
      'entries/note/n1.json': { title: 'One', entry: { live: '2026-01-01/' } },
      'entries/note/n2.json': { title: 'Two' },
    });

  test('that holds something else is left alone', async () => {
    const folder = writeFiles(temporaryFolder(), { 'site.yaml': 'mine' });
    const stored = await site();
    expect(() => saved(stored, folder)).toThrow('was not saved here');
    expect(listFiles(folder).files).toEqual(['site.yaml']);
  });

  test('again has what changed written, and what is gone taken out', async () => {
    const stored = await site();
    const folder = saved(stored);
    writeFiles(folder, { 'README.md': 'Mine.', 'entries/note/old/n9.yaml': 'title: Gone' });
    const lived = new LivedSite(stored.connection, stored.view, Date.parse('2026-07-02T12:00:00Z'));
    const values = { title: 'Zwei' };
    lived.run('saveEntry', { id: 'note/n2', type: 'note', values, seen: null });
    const files = savedFiles(stored.connection, stored.data, COMMAND_LINE);
    expect(saveToFolder(files, folder)).toMatchObject({ written: 2, removed: 1 });
    expect(readFileSync(join(folder, 'README.md'), 'utf8')).toBe('Mine.');
    expect(existsSync(join(folder, 'entries/note/old'))).toBe(false);
  });

  test('and cut short does not load, and can be saved to again', async () => {
    const stored = await site();
    const folder = saved(stored);
    const cut = function* () {
      for (const file of savedFiles(stored.connection, stored.data, COMMAND_LINE)) {
        if (file.path.startsWith('entries/')) throw new Error('killed');
        yield file;
      }
    };
    expect(() => saveToFolder(cut(), folder)).toThrow('killed');
    const { issues } = await readSite(folder, Date.now());
    expect(issues[0]).toMatchObject({ code: 'history-missing' });
    saved(stored, folder);
    expect((await readSite(folder, Date.now())).issues).toEqual([]);
  });

  test('that is new appears only when it is whole', async () => {
    const stored = await site();
    const folder = join(temporaryFolder(), 'new');
    const cut = function* () {
      yield* [...savedFiles(stored.connection, stored.data, COMMAND_LINE)].slice(0, 3);
      throw new Error('killed');
    };
    expect(() => saveToFolder(cut(), folder)).toThrow('killed');
    expect(existsSync(folder)).toBe(false);
  });

  test('takes an entry that is put there by hand: live as it says, its address from then on', async () => {
    const stored = await site();
    const folder = saved(stored);
    const until = settledInstant(stored.connection);
    writeFiles(folder, {
      'entries/note/n3.yaml': '{ entry: { live: 2026-03-01/ }, title: One }',
    });
    const { view } = await loaded(folder, until + 1000);
    expect(view.render('/one', until)!.status).toBe(200);
    expect(view.render('/one-2', until - 1)!.status).toBe(404);
    expect(view.render('/one-2', until)!.status).toBe(200);
  });

  test.each([
    ['held by two', { held: [{ path: '/one', from: '2026-02-01T00:00:00Z' }] }, 'held it then'],
    [
      'held at no path of the site',
      { held: [{ path: '//x.example', from: '2026-02-01T00:00:00Z' }] },
      '//x.example:',
    ],
    ['held while not live', { held: [{ path: '/x', from: '2025-01-01T00:00:00Z' }] }, 'not live'],
    ['of no revision', { was: [{ from: '2026-02-01T00:00:00Z', revision: 7 }] }, 'no revision 7'],
    [
      'after the last change',
      { was: [{ from: '2027-02-01T00:00:00Z', revision: 1 }] },
      'ends before',
    ],
  ])('is refused for facts that cannot be: %s', async (_, facts, words) => {
    const stored = await site();
    const folder = saved(stored);
    const was = [{ from: '2026-01-15T00:00:00Z', revision: 1 }];
    const entry = { id: 'n3', saved: '2026-01-10', was, ...facts };
    writeFiles(folder, { 'entries/note/n3.yaml': { entry, title: 'Three' } });
    const now = settledInstant(stored.connection) + 1000;
    const { site: read, issues } = await readSite(folder, now);
    const result = read && loadSite(stored.connection, stored.data, COMMAND_LINE, read, now);
    expect([...issues, ...(result?.ok === false ? result.issues : [])]).toMatchObject([
      { path: 'entries/note/n3.yaml', message: expect.stringContaining(words) as string },
    ]);
  });
});

test('versions that are not kept any more leave their numbers, in the site and in its folder', async () => {
  const site = await loadFiles({
    'site.yaml': { ...SITE, retention: 30 },
    'types/note.yaml': {
      key: 'note',
      address: '/{title}',
      fields: [{ key: 'title', kind: 'text' }],
    },
    'types/log.yaml': { key: 'log', retention: 'ever', fields: [{ key: 'title', kind: 'text' }] },
  });
  const { connection, view } = site;
  let wall = Date.parse('2026-07-01T12:00:00Z');
  const run = <N extends CommandName>(name: N, input: CommandInput<N>): CommandResult<N> =>
    runCommand(connection, name, COMMAND_LINE, input, { wallClock: (wall += DAY) });
  const save = (id: string | null, type: string, title: string): string => {
    const result = run('saveEntry', { id, type, values: { title }, seen: null });
    return result.ok ? result.value.id : '';
  };
  const publish = (entry: string, at: string | null): void =>
    void run('planChange', { entry, action: 'publish', at, revision: null });
  const [note, log] = [save(null, 'note', 'One'), save(null, 'log', 'One')];
  publish(note, null);
  for (let i = 2; i <= 40; i++) for (const id of [note, log]) save(id, '', `Version ${i}`);
  const numbers = (id: string): number[] => versions(view, COMMAND_LINE, id).map((v) => v.number);
  expect(numbers(log)).toHaveLength(40);
  // A day passes with each save of either: the last thirty days hold fifteen of this one.
  expect(numbers(note)).toEqual([
    40, 39, 38, 37, 36, 35, 34, 33, 32, 31, 30, 29, 28, 27, 26, 25, 1,
  ]);
  expect(contentTable(view, COMMAND_LINE, wall - 40 * DAY, { type: 'note' }).total).toBe(1);
  const before = derivedRows(connection);
  rebuild(connection, view);
  expect(derivedRows(connection)).toEqual(before);
  await expectTheSame(site);
});
