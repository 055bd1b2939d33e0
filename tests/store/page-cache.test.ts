import fc from 'fast-check';
import { expect, test } from 'vitest';
import { runCommand } from '@/server/commands/run.ts';
import { PublicPages } from '@/server/delivery/public-pages.ts';
import { COMMAND_LINE } from '@/server/permit.ts';
import { type TestSite, loadFiles } from '../helpers/folder.ts';
import { entry as entryOf, note } from '../helpers/notes.ts';
import { choices, drawing, randomEdit } from '../helpers/random-edits.ts';
import { randomSite } from '../helpers/random-site.ts';
import { randomWrites } from '../helpers/random-steps.ts';
import { LivedSite } from '../helpers/random-writes.ts';
import { releaseSet } from '../helpers/release.ts';

/** Visitors of a site, and how often what they asked for was kept. */
class Visitors {
  readonly pages: PublicPages;
  now = 0;
  hits = 0;
  /** Pages that were made anew although they were the same as before. */
  needless = 0;
  private readonly bodies = new Map<string, string>();

  constructor(private readonly site: TestSite) {
    this.pages = new PublicPages(site.view, () => this.now);
  }

  /** Asks for a page: whatever is kept must be what is there. */
  ask(path: string): void {
    const fresh = this.site.view.render(path, this.now)!;
    const kept = this.pages.known(path);
    if (kept) {
      this.hits += 1;
      const { status, body, headers } = kept.page;
      expect({ status, body, location: headers.location }, path).toEqual({
        status: fresh.status,
        body: fresh.body,
        location: fresh.headers.location,
      });
      // It may end early, never late.
      expect(kept.page.validUntil ?? Infinity).toBeLessThanOrEqual(fresh.validUntil ?? Infinity);
      return;
    }
    const query = path.includes('?') ? path.slice(path.indexOf('?')) : '';
    this.pages.find(path.slice(0, path.length - query.length), query);
    if (this.bodies.get(path) === fresh.body && fresh.status !== 404) this.needless += 1;
    this.bodies.set(path, fresh.body);
  }
}

test('a page that is gone is made anew once somebody else stands at its path', async () => {
  const site = await loadFiles({
    'types/note.json': note({ address: '/{title}' }),
    'entries/note.json': [
      entryOf('a', 'First', ['2026-01-01/2026-02-01']),
      entryOf('b', 'First', [], { saved: '2026-01-01' }),
    ],
  });
  const visitors = new Visitors(site);
  visitors.now = Date.parse('2026-07-01T12:00:00Z');
  expect(visitors.pages.find('/first')!.page.status).toBe(410);
  const publish = { entry: 'b', action: 'publish', at: null, revision: null };
  const wallClock = visitors.now;
  expect(runCommand(site.connection, 'planChange', COMMAND_LINE, publish, { wallClock }).ok).toBe(
    true,
  );
  visitors.now += 1000;
  await new Promise((resolve) => setImmediate(resolve));
  expect(visitors.pages.find('/first')!.page.status).toBe(200);
});

/** Asks for all that anybody ever stood at, again and again while a site is lived on. */
async function askAll(site: TestSite, visitors: Visitors, wall: number): Promise<void> {
  // As between two requests: the counter is read once for all that come together.
  await new Promise((resolve) => setImmediate(resolve));
  visitors.now = wall;
  const held = site.connection.driver.prepare('SELECT DISTINCT path FROM address').pluck();
  const { listingAt } = site.view.at(wall)!.site;
  for (const path of new Set([
    '/',
    '/robots.txt',
    '/families/legumes',
    '/all/feed.atom',
    '/families/legumes/feed.json',
    '/families/legumes/beans',
    '/days/2026/07',
    '/mixed?family=legumes',
    '/mixed?grower=g0&order=most',
    '/mixed?traits=tall&q=pea',
    ...listingAt.keys(),
    ...(held.all() as string[]),
  ]))
    visitors.ask(path);
}

const START = Date.parse('2026-07-01T12:00:00Z');

test('a page changes only where something of its read set does, whatever is written', async () => {
  let [hits, needless] = [0, 0];
  await fc.assert(
    fc.asyncProperty(randomSite, randomWrites, async (files, writes) => {
      const site = await loadFiles(files);
      if (!site.result.ok) return;
      const lived = new LivedSite(site.connection, site.view, START);
      const visitors = new Visitors(site);
      for (const [what, pause] of writes) {
        await askAll(site, visitors, lived.wall);
        lived.wall += pause * 60_000;
        await askAll(site, visitors, lived.wall);
        lived.wall += 1;
        lived.write(what);
        await askAll(site, visitors, lived.wall);
      }
      hits += visitors.hits;
      needless += visitors.needless;
    }),
    { numRuns: Number(process.env.LONG ?? 40) },
  );
  expect(hits).toBeGreaterThan(1000);
  expect(needless / (hits + needless)).toBeLessThan(0.25);
});

test('so it is whatever is released of the design, at once or later, or taken back', async () => {
  let [hits, needless, released] = [0, 0, 0];
  await fc.assert(
    fc.asyncProperty(
      randomSite,
      choices,
      fc.array(fc.tuple(fc.constantFrom('now', 'later', 'back'), fc.nat(100_000)), {
        maxLength: 6,
      }),
      async (files, numbers, releases) => {
        const site = await loadFiles(files);
        if (!site.result.ok) return;
        const lived = new LivedSite(site.connection, site.view, START);
        const visitors = new Visitors(site);
        const pick = drawing(numbers);
        for (const [what, pause] of releases) {
          await askAll(site, visitors, lived.wall);
          lived.wall += 1;
          const later = new Date(lived.wall + 100_000_000).toISOString();
          const edit = randomEdit(site.view.at(lived.wall)!.site.design, pick);
          if (what === 'back') lived.write({ do: 'take back' });
          else lived.run('release', { edit, at: what === 'now' ? null : later });
          await askAll(site, visitors, lived.wall);
          lived.wall += pause * 6000;
          await askAll(site, visitors, lived.wall);
        }
        hits += visitors.hits;
        needless += visitors.needless;
        released += lived.done.get('release') ?? 0;
      },
    ),
    { numRuns: Number(process.env.LONG ?? 55) },
  );
  expect(released).toBeGreaterThan(8);
  expect(hits).toBeGreaterThan(500);
  expect(needless / (hits + needless)).toBeLessThan(0.35);
});

test('pages name who wrote them as they are called by now', async () => {
  const site = await loadFiles({
    'types/note.json': note({ address: '/{title}', seo: { title: '{title} by {entry.author}' } }),
    'entries/note.json': [entryOf('a', 'First', ['2026-01-01/']), entryOf('b', 'Else', [])],
  });
  const visitors = new Visitors(site);
  const title = async (): Promise<string> => {
    await new Promise((resolve) => setImmediate(resolve));
    visitors.ask('/first');
    return /<title>(.*)<\/title>/.exec(visitors.pages.find('/first')!.page.body)![1]!;
  };
  const ann = { ...COMMAND_LINE, id: 'ann', name: 'Ann' };
  const run = (name: 'changeEntries' | 'undoChange' | 'deleteEntry', input: object, by = ann) => {
    visitors.now += 1000;
    const result = runCommand(site.connection, name, by, input, { wallClock: visitors.now });
    expect(result).toMatchObject({ ok: true });
    return (result as { value: unknown }).value;
  };
  visitors.now = START;
  expect(await title()).toBe('First by');
  const [what, which] = [{ do: 'give', author: 'ann' }, { ids: ['a'] }];
  const { change } = run('changeEntries', { what, which }) as { change: number };
  expect(await title()).toBe('First by Ann');
  const renamed = { ...ann, name: 'Ann Lee' };
  run('deleteEntry', { entry: 'b' }, renamed);
  expect(await title()).toBe('First by Ann Lee');
  run('undoChange', { change }, renamed);
  expect(await title()).toBe('First by');
});

test('a release drops the pages that read what it changes, and no others', async () => {
  const site = await loadFiles({
    'types/note.json': note({ address: '/notes/{title}' }),
    'types/leaf.json': note({ key: 'leaf', address: '/leaves/{title}' }),
    'listings/all.json': { key: 'all', type: 'leaf', address: '/all', sort: ['title'] },
    'entries/note.json': [entryOf('a', 'First', ['2026-01-01/'])],
    'entries/leaf.json': [entryOf('b', 'Second', ['2026-01-01/'])],
  });
  expect(site.result.ok).toBe(true);
  const visitors = new Visitors(site);
  const kept = async (): Promise<string[]> => {
    await new Promise((resolve) => setImmediate(resolve));
    return PATHS.filter((path) => visitors.pages.known(path));
  };
  const PATHS = ['/', '/all', '/leaves/second', '/notes/first'];
  visitors.now = START;
  for (const path of PATHS) visitors.pages.find(path);
  expect(await kept()).toEqual(PATHS);
  expect(releaseSet(site, 'types/note', { 'seo.title': '{title}!' }, START).ok).toBe(true);
  visitors.now = START + 1000;
  expect(await kept()).toEqual(['/all', '/leaves/second']);
  const { headers } = visitors.pages.known('/leaves/second')!;
  expect(Date.parse(headers['last-modified']!)).toBe(START);
  expect(visitors.pages.known('/leaves/second')!.in('br').headers).toContain(
    headers['last-modified'],
  );
  for (const path of PATHS) visitors.pages.find(path);
  // It stands in the menu of every page, since there is no frame that says otherwise.
  expect(releaseSet(site, 'listings/all', { label: 'Leaves' }, START + 1000).ok).toBe(true);
  expect(await kept()).toEqual([]);
  visitors.now = START + 2000;
  for (const path of PATHS) visitors.pages.find(path);
  expect(releaseSet(site, 'site', { name: 'Other' }, START + 2000).ok).toBe(true);
  expect(await kept()).toEqual([]);
});
