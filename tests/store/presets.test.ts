import { expect, test } from 'vitest';
import { PRESETS } from '@/core/design/presets.ts';
import type { CommandInput, CommandName } from '@/server/commands/index.ts';
import { runCommand } from '@/server/commands/run.ts';
import { COMMAND_LINE } from '@/server/permit.ts';
import { entryDetail } from '@/server/queries/entry.ts';
import { entryOutcome } from '@/server/queries/entry-outcome.ts';
import { at, loadFiles } from '../helpers/folder.ts';

const FILES = {
  'types/log.json': {
    key: 'log',
    address: '/{title}',
    presets: { author: true, date: 'published' },
    seo: { title: '{title}[ by {entry.shownAuthor}]' },
    fields: [{ key: 'title', kind: 'text' }],
  },
  'types/aside.json': {
    key: 'aside',
    address: '/asides/{title}',
    seo: { sitemap: false },
    fields: [{ key: 'title', kind: 'text' }],
  },
  'entries/log.json': [
    { entry: { id: 'a', author: 'Ann', live: '2026-03-02/' }, title: 'A' },
    {
      entry: { id: 'b', author: 'Bo', live: '2026-03-02/', presets: { author: false } },
      title: 'B',
    },
    {
      entry: { id: 'c', author: 'Cy', live: '2026-03-02/', presets: { index: false } },
      title: 'C',
    },
  ],
  'entries/aside.json': [
    { entry: { id: 'x', live: '2026-03-02/', presets: { sitemap: true } }, title: 'X' },
    { entry: { id: 'y', live: '2026-03-02/' }, title: 'Y' },
  ],
};

async function site() {
  const loaded = await loadFiles(FILES, at('2026-07-01'));
  expect(loaded.issues).toEqual([]);
  let wall = at('2026-07-02');
  const run = <N extends CommandName>(name: N, input: CommandInput<N>) =>
    runCommand(loaded.connection, name, COMMAND_LINE, input, { wallClock: (wall += 1000) });
  const body = (path: string) => loaded.view.render(path, wall + 1)!.body;
  return {
    ...loaded,
    run,
    body,
    now: () => wall + 1,
    byline: (path: string) =>
      /<p class="byline">(.*?)<\/p>/.exec(body(path))?.[1]?.replaceAll(/<[^>]*>/g, '') ?? null,
    save: (id: string, values: object) =>
      run('saveEntry', { id, type: 'log', values: { title: id, ...values }, seen: null }),
    publish: (entry: string) =>
      run('planChange', { entry, action: 'publish', at: null, revision: null }),
  };
}

test('entries show what their type presets, but for what they have otherwise', async () => {
  const s = await site();
  expect(s.byline('/a')).toBe('Ann · Mar 2, 2026');
  expect(s.byline('/b')).toBe('Mar 2, 2026');
  expect(s.byline('/asides/x')).toBe(null);
  expect(/<title>(.*)<\/title>/.exec(s.body('/a'))![1]).toBe('A by Ann');
  expect(/<title>(.*)<\/title>/.exec(s.body('/b'))![1]).toBe('B');
});

test('search engines are told of an entry as it says itself', async () => {
  const s = await site();
  expect(s.body('/a')).not.toContain('noindex');
  expect(s.body('/c')).toContain('<meta name="robots" content="noindex">');
  const paths = [...s.body('/sitemap.xml').matchAll(/<loc>https?:\/\/[^/]+([^<]*)/g)];
  expect(paths.map(([, path]) => path)).toEqual(['/', '/a', '/asides/x', '/b']);
});

test('what is otherwise is saved with a version, kept by others, and goes back', async () => {
  const s = await site();
  const own = (): unknown =>
    entryDetail(s.view, COMMAND_LINE, 'a', s.now(), s.now())!.values[PRESETS];
  expect(own()).toBe(null);
  expect(s.save('a', { [PRESETS]: { date: 'none', author: false } }).ok).toBe(true);
  expect(s.byline('/a')).toBe('Ann · Mar 2, 2026');
  s.publish('a');
  expect(s.byline('/a')).toBe(null);
  expect(s.save('a', {}).ok).toBe(true); // from a form that says nothing of it
  expect(own()).toEqual({ date: 'none', author: false });
  expect(s.save('a', { [PRESETS]: null }).ok).toBe(true);
  expect(own()).toBe(null);
  s.publish('a');
  expect(s.byline('/a')).toBe('Ann · Mar 2, 2026');
  expect(s.save('a', { [PRESETS]: { smell: 'sweet' } })).toMatchObject({
    ok: false,
    issues: [{ code: 'wrong-form' }],
  });
});

test('the page that results is seen before it is saved', async () => {
  const s = await site();
  const values = { title: 'A', [PRESETS]: { author: false } };
  const asked = { id: 'a', type: 'log', values };
  const { issues } = entryOutcome(s.view, COMMAND_LINE, asked, s.now(), 'draft')!;
  expect(issues).toEqual([]);
});
