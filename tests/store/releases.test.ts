import sharp from 'sharp';
import { mkdirSync, writeFileSync } from 'node:fs';
import { join } from 'node:path';
import { describe, expect, test } from 'vitest';
import { loadSite } from '@/server/commands/load-site.ts';
import { runCommand } from '@/server/commands/run.ts';
import { StyleSheets } from '@/server/delivery/style-sheets.ts';
import { COMMAND_LINE } from '@/server/permit.ts';
import { readSite } from '@/server/files/read-site.ts';
import {
  type Files,
  SITE,
  type TestSite,
  at,
  loadFiles,
  temporaryFolder,
  writeFiles,
} from '../helpers/folder.ts';
import { entry, note } from '../helpers/notes.ts';
import { releaseSet, setting } from '../helpers/release.ts';

const LOADED = at('2026-07-01T12:00:00Z');
const RELEASED = at('2026-07-02T12:00:00Z');

const release = (
  site: TestSite,
  path: string,
  set: Record<string, unknown>,
  wallClock = RELEASED,
) => releaseSet(site, path, set, wallClock);

const FILES: Files = {
  'types/note.json': note({
    fields: [
      { key: 'title', kind: 'text' },
      { key: 'stock', kind: 'number' },
    ],
  }),
  'listings/all.json': {
    key: 'all',
    type: 'note',
    address: '/all',
    pageSize: 1,
    where: { field: 'stock', op: 'more-than', value: 0 },
    sort: ['-stock'],
  },
  'entries/note.json': [
    entry('a', 'A', ['2026-01-01/'], {}, { stock: 1 }),
    entry('b', 'B', ['2026-01-01/'], {}, { stock: 2 }),
    entry('c', 'C', ['2026-01-01/'], {}, { stock: 0 }),
  ],
};

describe('a release', () => {
  test('that changes how pages look moves their Last-Modified', async () => {
    const site = await loadFiles(FILES, LOADED);
    const changed = (instant: number) => site.view.render('/a', instant)!.changed;
    expect(changed(RELEASED)).toBe(LOADED);
    expect(release(site, 'types/note', { seo: { title: '{title}!' } }).ok).toBe(true);
    expect(changed(RELEASED + 1)).toBe(RELEASED);
    expect(changed(RELEASED - 1)).toBe(LOADED);
  });

  test('that drops an indexed field leaves the past as it was', async () => {
    const site = await loadFiles(FILES, LOADED);
    const listed = (instant: number) => {
      const page = site.view.render('/all', instant)!;
      return [page.status, page.body.match(/href="\/[abc]"/g)?.length ?? 0];
    };
    const before = listed(RELEASED - 1000);
    expect(release(site, 'listings/all', { where: null, sort: ['title'] }).ok).toBe(true);
    const fields = [{ key: 'title', kind: 'text' }];
    expect(release(site, 'types/note', { fields }, RELEASED + 1000).ok).toBe(true);
    expect(listed(RELEASED - 1000)).toEqual(before);
    expect(site.view.render('/all', RELEASED - 1000)!.body).toContain('href="/b"');
    expect(site.view.render('/all', RELEASED + 2000)!.body).toContain('href="/a"');
  });

  test('leaves the past at the addresses it had', async () => {
    const site = await loadFiles(FILES, LOADED);
    expect(release(site, 'types/note', { address: '/n/{title}' })).toMatchObject({
      ok: true,
      value: { moved: 3, examples: [{ from: '/a', to: '/n/a' }, {}, {}] },
    });
    expect(site.view.render('/a', RELEASED - 1)!.status).toBe(200);
    expect(site.view.render('/a', RELEASED)!.headers.location).toBe('/n/a');
    expect(site.view.render('/n/a', RELEASED - 1)!.status).toBe(404);
  });

  test('is taken back, and history stays', async () => {
    const site = await loadFiles(FILES, LOADED);
    const first = release(site, 'types/note', { address: '/n/{title}', description: 'D' });
    if (!first.ok) throw new Error('It was refused.');
    const undo = { release: first.value.release };
    const wallClock = RELEASED + 1000;
    expect(
      runCommand(site.connection, 'undoRelease', COMMAND_LINE, undo, { wallClock }),
    ).toMatchObject({ ok: true, value: { moved: 3 } });
    expect(site.view.render('/a', RELEASED + 2000)!.status).toBe(200);
    expect(site.view.at(RELEASED + 2000)!.site.design.types[0]!.description).toBe('');
  });

  test.each([
    ['types', { fields: [] }, 'wrong-form'],
    ['types', { naming: 'nothing' }, 'unknown-name'],
    ['types', { address: '/{titel}' }, 'unknown-name'],
    ['types', { clash: 'ignore' }, 'wrong-form'],
    ['types', { unheardOf: 1 }, 'wrong-form'],
    ['types', { fields: [{ key: 'title', kind: 'number' }] }, 'kind-changed'],
    ['types', { fields: [{ key: 'title', kind: 'text', many: true }] }, 'kind-changed'],
    ['listings', { pageSize: 0 }, 'wrong-form'],
    ['listings', { address: '/build' }, 'reserved-address'],
    ['listings', { type: 'other' }, 'unknown-name'],
  ] as const)('of %s %j is refused, and nothing is kept', async (part, set, code) => {
    const site = await loadFiles(FILES, LOADED);
    const path = part === 'types' ? 'types/note' : 'listings/all';
    const refused = release(site, path, set);
    expect(refused.ok).toBe(false);
    expect(refused.ok ? [] : refused.issues.map((i) => i.code)).toContain(code);
    const count = site.connection.driver.prepare('SELECT count(*) FROM design_version').pluck();
    expect(count.get()).toBe(1);
  });
});

describe('what stands around a page', () => {
  test('shows the first entries of a list, whatever page of that list it surrounds', async () => {
    const { view } = await loadFiles({
      ...FILES,
      'site.yaml': { ...SITE, frame: 'around' },
      'templates/around.json': {
        key: 'around',
        kind: 'frame',
        blocks: [
          { block: 'slot', slot: 'main' },
          {
            block: 'group',
            as: 'footer',
            blocks: [{ block: 'listing', listing: 'all', limit: 1 }],
          },
        ],
      },
    });
    const footer = (path: string): string =>
      /<footer.*<\/footer>/s.exec(view.render(path, LOADED)!.body)![0];
    expect(footer('/all/page-2')).toContain('href="/b"');
    expect(footer('/all/page-2')).toBe(footer('/a'));
  });

  test('of a redirect keeps the percent-encoding of its target', async () => {
    const { view } = await loadFiles({
      ...FILES,
      'redirects.yaml': [
        { from: '/coffee', to: '/caf%C3%A9' },
        { from: '/tea', to: '/thé?a=1#b' },
      ],
    });
    const location = (path: string) => view.render(path, LOADED)!.headers.location;
    expect(location('/coffee')).toBe('/caf%C3%A9');
    expect(location('/tea')).toBe('/th%C3%A9?a=1#b');
  });
});

describe('style sheets', () => {
  test('that no design has cost nothing: designs are read once, whoever asks', async () => {
    const { connection } = await loadFiles({ ...FILES, 'style.css': 'p { margin: 0 }' }, LOADED);
    const sheets = new StyleSheets(connection);
    let read = 0;
    const plain = JSON.parse;
    JSON.parse = (...args: Parameters<typeof plain>) => (read++, plain(...args));
    try {
      for (let i = 0; i < 20; i++) expect(sheets.get(`${i}`.padStart(16, '0'))).toBeNull();
    } finally {
      JSON.parse = plain;
    }
    expect(read).toBe(1);
  });

  test('of a planned design are found though a release before it gave it another', async () => {
    const site = await loadFiles({ ...FILES, 'style.css': 'p { margin: 0 }' }, LOADED);
    const sheets = new StyleSheets(site.connection);
    const planned = {
      edit: { steps: setting(site.view.at(LOADED)!.site.design, 'types/note', { plural: 'N' }) },
      at: '2026-09-01',
    };
    const run = (input: unknown, wallClock: number) =>
      runCommand(site.connection, 'release', COMMAND_LINE, input, { wallClock });
    expect(run(planned, RELEASED).ok).toBe(true);
    const key = (): string =>
      /\/style\/([0-9a-f]{16})\.css/.exec(site.view.render('/a', at('2026-09-02'))!.body)![1]!;
    expect(sheets.get(key())).toContain('margin');
    expect(releaseSet(site, 'style', { css: 'p { padding: 0 }' }, RELEASED + 1000).ok).toBe(true);
    expect(sheets.get(key())).toContain('padding');
  });

  test('of the design that was just released are found by the name its pages give', async () => {
    const site = await loadFiles({ ...FILES, 'style.css': 'p { margin: 0 }' }, LOADED);
    const sheets = new StyleSheets(site.connection);
    const name = (instant: number): string =>
      /\/style\/([0-9a-f]{16})\.css/.exec(site.view.render('/a', instant)!.body)![1]!;
    expect(sheets.get(name(LOADED))).toContain('margin');
    const folder = writeFiles(temporaryFolder(), {
      'site.yaml': SITE,
      ...FILES,
      'style.css': 'p { padding: 0 }',
    });
    const read = await readSite(folder, RELEASED);
    const loaded = loadSite(site.connection, site.data, COMMAND_LINE, read.site!, RELEASED);
    expect(loaded.ok).toBe(true);
    expect(sheets.get(name(RELEASED + 1))).toContain('padding');
  });
});

describe('a picture', () => {
  test('that its camera held upright is stored with the sides as it is seen', async () => {
    const turned = await sharp({
      create: { width: 40, height: 20, channels: 3, background: '#386641' },
    })
      .jpeg()
      .withMetadata({ orientation: 6 })
      .toBuffer();
    const folder = writeFiles(temporaryFolder(), { 'site.yaml': SITE, ...FILES });
    mkdirSync(join(folder, 'media'));
    writeFileSync(join(folder, 'media/turned.jpg'), turned);
    const { site, issues } = await readSite(folder, LOADED);
    expect(issues).toEqual([]);
    expect(site!.media).toMatchObject([{ id: 'turned.jpg', width: 20, height: 40 }]);
  });
});
