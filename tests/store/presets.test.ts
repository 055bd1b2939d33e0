import { describe, expect, test } from 'vitest';
import { PRESETS } from '@/core/design/presets.ts';
import type { CommandInput, CommandName } from '@/server/commands/index.ts';
import { runCommand } from '@/server/commands/run.ts';
import { COMMAND_LINE } from '@/server/permit.ts';
import { entryDetail } from '@/server/queries/entry.ts';
import { entryOutcome } from '@/server/queries/entry-outcome.ts';
import { listingOutcome } from '@/server/queries/listing.ts';
import { type Files, at, loadFiles } from '../helpers/folder.ts';

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
  const { issues, html } = entryOutcome(s.view, COMMAND_LINE, asked, s.now(), 'draft')!;
  expect(issues).toEqual([]);
  expect(html).toContain('<p class="byline"><time');
});

/** Entries that say of lists what they like, and listings that filter, order, and go by a tag. */
function listedFiles(presets: object): Files {
  const note = (id: string, own?: boolean): object => ({
    entry: {
      id,
      created: '2026-01-01',
      live: '2026-03-02/',
      ...(own === undefined ? {} : { presets: { listed: own } }),
    },
    title: id,
    tags: ['dry'],
  });
  return {
    'subjects/tags.json': { key: 'tags', kind: 'tags', subjects: [{ key: 'dry', name: 'Dry' }] },
    'types/note.json': {
      key: 'note',
      address: '/n/{title}',
      presets,
      fields: [
        { key: 'title', kind: 'text' },
        { key: 'tags', kind: 'tags', set: 'tags' },
      ],
    },
    'listings/all.json': { key: 'all', type: 'note', address: '/all', sort: ['title'] },
    'listings/dry.json': {
      ...{ key: 'dry', type: 'note', address: '/dry', sort: ['-title'] },
      where: { field: 'tags', op: 'is', value: 'dry' },
    },
    'listings/few.json': {
      ...{ key: 'few', type: 'note', address: '/few' },
      where: { any: [{ field: 'title', op: 'is', value: 'out' }] },
    },
    'entries/note.json': [note('as'), note('in', true), note('out', false)],
  };
}

describe('who is seen in lists', () => {
  const shown = async (presets: object): Promise<string[]> => {
    const { view, issues } = await loadFiles(listedFiles(presets), at('2026-07-01'));
    expect(issues).toEqual([]);
    return ['/all', '/dry', '/few', '/'].map((path) => {
      const { body } = view.render(path, at('2026-07-01'))!;
      return [...body.matchAll(/href="\/n\/(\w+)"/g)].map(([, name]) => name).join(' ');
    });
  };

  test('is everyone, where the type says nothing of it', async () => {
    expect(await shown({})).toEqual(['as in out', 'out in as', 'out', 'as in out']);
  });

  test('is who is not kept out, where the type lists its entries', async () => {
    expect(await shown({ listed: true })).toEqual(['as in', 'in as', '', 'as in']);
  });

  test('is who is let in, where the type does not', async () => {
    expect(await shown({ listed: false })).toEqual(['in', 'in', '', 'in']);
  });

  test('has a page all the same, and is told why lists are without it', async () => {
    const { view } = await loadFiles(listedFiles({ listed: true }), at('2026-07-01'));
    const now = at('2026-07-02');
    expect(view.render('/n/out', now)!.status).toBe(200);
    const asked = { id: 'out', type: 'note', values: null };
    const outcome = entryOutcome(view, COMMAND_LINE, asked, now, 'published')!;
    expect(outcome).toMatchObject({ keptOut: true, listed: [] });
    const letIn = { title: 'out', [PRESETS]: { listed: true } };
    const then = entryOutcome(view, COMMAND_LINE, { ...asked, values: letIn }, now, 'draft')!;
    expect(then).toMatchObject({ keptOut: false });
    expect(then.listed.map(({ listing }) => listing)).toEqual(['all', 'few']);
    const looking = { at: now, past: false, seeing: 'published' as const };
    const { leftOut } = listingOutcome(
      view,
      COMMAND_LINE,
      { id: 'few', steps: [], find: '' },
      looking,
    )!;
    expect(leftOut.map(({ id, reasons }) => [id, reasons.map(({ words }) => words)])).toEqual([
      ['as', ['title is out']],
      ['in', ['title is out']],
      ['out', ['kept out of lists']],
    ]);
  });
});
