import { join } from 'node:path';
import { describe, expect, onTestFinished, test } from 'vitest';
import { Traffic } from '@/server/db/traffic.ts';
import { addressClashes } from '@/server/queries/address-clashes.ts';
import { ADDRESSES_AT_ONCE, addressRows } from '@/server/queries/addresses.ts';
import { addressTree } from '@/server/queries/address-tree.ts';
import { lostPaths } from '@/server/queries/lost-paths.ts';
import { redirectLines } from '@/server/queries/redirects.ts';
import type { Seeing } from '@/server/queries/clock.ts';
import { tryAddress } from '@/server/queries/try-address.ts';
import { temporaryFolder } from '../helpers/folder.ts';
import { entry } from '../helpers/notes.ts';
import { site as german } from '../helpers/german-site.ts';
import { ANN, FILES, NOW, done, running, site } from '../helpers/seeds.ts';

const LOOKING = { at: NOW, seeing: 'published' } as const;
const EVERY = { search: '', kind: null, type: null };
const tried = async (given: string, files = FILES) =>
  tryAddress((await site(files)).view, ANN, given, NOW, 'published')!;

describe('the rows of all addresses', () => {
  test('are given by a hundred, from any place on, each once', async () => {
    const many = Array.from({ length: 230 }, (_, i) =>
      entry(`m${i}`, `Many ${i}`, ['2026-01-01/']),
    );
    const { view } = await site({ ...FILES, 'entries/seed/many.json': many });
    const { total, counts } = addressRows(view, ANN, LOOKING, EVERY);
    const paths: string[] = [];
    for (let from = 0; from < total; from += ADDRESSES_AT_ONCE)
      paths.push(...addressRows(view, ANN, LOOKING, EVERY, from).rows.map((row) => row.path));
    expect([total, new Set(paths).size]).toEqual([paths.length, total]);
    expect(counts).toMatchObject({ page: 234, list: 2, redirect: 1, coming: 1, former: 1 });
    const pages = addressRows(view, ANN, LOOKING, { ...EVERY, type: 'grower' });
    expect(pages.rows.map(({ path }) => path)).toEqual(['/growers/ines']);
  });
});

describe('the tree of paths', () => {
  test('has what stands at each place and how much below it, as lists and drafts have it too', async () => {
    const { view } = await site();
    expect(addressTree(view, ANN, LOOKING, '').nodes).toEqual([
      { path: '/growers', segment: 'growers', isPage: false, below: 1 },
      { path: '/in-stock', segment: 'in-stock', isPage: true, below: 0 },
      { path: '/seeds', segment: 'seeds', isPage: false, below: 3 },
    ]);
    const below = (seeing: 'published' | 'draft'): string[] =>
      addressTree(view, ANN, { at: NOW, seeing }, '/seeds').nodes.map(({ segment }) => segment);
    expect(below('published')).toEqual(['bean', 'ecole', 'pea-early']);
  });
});

describe('an address that is tried', () => {
  test.each([
    ['/seeds/ecle', [['/seeds/ecole', '1 letter otherwise']]],
    ['/old/pea-early', [['/seeds/pea-early', 'the same last part']]],
    ['/a/b/c/pea-erly', [['/seeds/pea-early', 'a last part like it']]],
    ['/in-stok', [['/in-stock', '1 letter otherwise']]],
    ['/nothing/of/that/sort', []],
  ])('where nothing is says what is near: %s', async (given, near) => {
    const { status, near: found } = await tried(given);
    expect([status, found.map(({ path, words }) => [path, words])]).toEqual([404, near]);
  });

  test('near to what was one says until when', async () => {
    const { near } = await tried('/seeds/losd');
    expect(near).toEqual([{ path: '/seeds/lost', words: 'an address until 1 Feb 2026, 00:00' }]);
  });

  test('by another method is refused, by HEAD has no body', async () => {
    const post = await tried('post https://test.example/seeds/ecole');
    expect([post.status, post.path, post.steps.at(-1)!.step]).toEqual([
      405,
      '/seeds/ecole',
      'method',
    ]);
    const head = await tried('HEAD /seeds/ecole');
    expect([head.status, head.html]).toEqual([200, null]);
  });

  test('says what links there and what it links to', async () => {
    const { links } = await tried('/growers/ines');
    expect(links).toMatchObject({
      here: [{ id: 'pea', name: 'Pea, early', path: '/seeds/pea-early' }],
      ...{ hereTotal: 1, out: [], outTotal: 0 },
    });
    const pea = await tried('/seeds/pea-early');
    expect(pea.links).toMatchObject({ out: [{ id: 'ines' }], here: [] });
  });
});

describe('an address that is tried with parameters', () => {
  const visitor = { filters: ['friend'], search: ['title'], orders: [] };
  const all = { key: 'all', label: 'All', type: 'seed', address: '/all', sort: ['title'], visitor };
  const files = { ...FILES, 'listings/all.json': all };
  const answer = async (given: string) => {
    const { status, asked, path, html, steps } = await tried(given, files);
    const said = steps.find(({ step }) => step === 'parameters')?.words ?? null;
    const entries = [...(html ?? '').matchAll(/href="\/seeds\/([^"]+)"/g)].map(([, name]) => name);
    return { status, asked, path, said, entries: [...new Set(entries)] };
  };

  test('shows the list as its visitors have it, and says by what', async () => {
    expect(await answer('/all')).toMatchObject({
      ...{ said: null, entries: ['bean', 'ecole', 'pea-early'] },
    });
    expect(await answer('/all?friend=ines&utm=x#top')).toEqual({
      status: 200,
      asked: '/all?friend=ines&utm=x',
      path: '/all',
      said: 'The list is narrowed, searched or ordered by friend=ines. Passed over: utm=x.',
      entries: ['pea-early'],
    });
    const { said } = await answer('/all?friend[]=ines&friend[]=nobody');
    expect(said).toMatch(/by friend=ines\. Passed over: friend\[\]=nobody\.$/);
    const whole = await answer('https://test.example/all?q=pea');
    expect([whole.asked, whole.entries]).toEqual(['/all?q=pea', ['pea-early']]);
  });

  test('that nothing there reads says so', async () => {
    const said = 'What stands behind “?” is passed over: nothing on this page reads it.';
    expect(await answer('/all?friend=nobody')).toMatchObject({ status: 200, said });
    expect(await answer('/seeds/bean?friend=ines')).toMatchObject({ status: 200, said });
    expect(await answer('/nowhere?friend=ines')).toMatchObject({ status: 404, said });
  });

  test('says of a page that it has not that the list ends before', async () => {
    const { status, steps } = await tried('/all/page-9?friend=ines', files);
    expect([status, steps.at(-1)!.words]).toEqual([404, 'The list ends before that page.']);
  });

  test('is tried in its language, as somebody’s draft has it', async () => {
    const held = await german();
    const { view } = held;
    const said = { entry: 'pea', language: 'de', values: { title: 'Zuckererbse' }, seen: 1 };
    done(running(held)('saveWords', said));
    const paths = (seeing: Seeing) =>
      ['/de/sorten/erbse', '/de/sorten/zuckererbse'].map((path) => {
        const { status, location } = tryAddress(view, ANN, path, NOW + 600_000, seeing)!;
        return location ?? status;
      });
    expect(paths('published')).toEqual([200, 404]);
    expect(paths('draft')).toEqual(['/de/sorten/zuckererbse', 200]);
  });
});

test('clashes are told over all of time: those numbered, and those that will have no address', async () => {
  const { view } = await site({
    ...FILES,
    'entries/seed/twice.json': [entry('again', 'Ecole', ['2026-07-02/'])],
  });
  expect(addressClashes(view, ANN)).toMatchObject({
    refused: [],
    numbered: [{ entry: 'again', path: '/seeds/ecole-2', base: '/seeds/ecole' }],
    numberedTotal: 1,
  });
});

describe('redirects that are wanted', () => {
  const csv = [
    'From,To,Status,Below',
    '/old/pea,/seeds/pea-early,301,',
    '/seeds/ecole,/in-stock,,',
    '/gone,"https://elsewhere.example/a,b",,yes',
    '/in-stock,/seeds/ecole,,',
  ].join('\n');

  test('are tried as CSV, line by line, and put on the bench as one edit', async () => {
    const held = await site();
    const trial = redirectLines(held.view, ANN, { csv }, NOW);
    if ('problem' in trial) throw new Error(trial.problem);
    expect(trial.lines.map(({ outcome, words }) => `${outcome} ${words}`)).toEqual([
      'new ',
      'refused “École” stands there.',
      'new ',
      'refused A listing stands at /in-stock.',
    ]);
    const run = running(held);
    done(run('editDesign', { steps: trial.steps }));
    done(run('release', { edits: [1], drafts: [] }));
    const answer = (path: string) => held.view.render(path, NOW + 300_000)!;
    expect([answer('/old/pea').status, answer('/old/pea').headers['location']]).toEqual([
      301,
      '/seeds/pea-early',
    ]);
    expect(answer('/gone/by').headers['location']).toBe('https://elsewhere.example/a,b/by');
  });

  test.each([
    ['from;to\n/a;/b', 'The first line names the columns'],
    ['from,to\n"/a,/b', 'This is no CSV'],
    [`from,to\n${'/a,/b\n'.repeat(1001)}`, 'At most 1000 redirects'],
  ])('as CSV that is none are refused with the reason', async (text, words) => {
    const { view } = await site();
    expect(redirectLines(view, ANN, { csv: text }, NOW)).toEqual({
      problem: expect.stringContaining(words) as string,
    });
  });
});

describe('what visitors ask for in vain', () => {
  const traffic = (): Traffic => {
    const made = new Traffic(join(temporaryFolder(), 'ops.db'), () => '2026-07-01');
    onTestFinished(() => made.close());
    return made;
  };

  test('is counted by path, the last first, until it is left', () => {
    const noted = traffic();
    noted.noteLost('/a', 1);
    noted.noteLost('/b', 2);
    noted.noteLost('/a', 3);
    noted.flush();
    noted.noteLost('/a', 4);
    expect(noted.lostLately(9)).toEqual({
      paths: [
        { path: '/a', count: 3, first: 1, last: 4 },
        { path: '/b', count: 1, first: 2, last: 2 },
      ],
      total: 2,
    });
    noted.forget('/a');
    expect(noted.lostLately(9).paths.map(({ path }) => path)).toEqual(['/b']);
  });

  test('is kept of so many paths, whatever is asked for', () => {
    const noted = traffic();
    for (let i = 0; i < 5000; i++) noted.noteLost(`/x${i}`, i);
    noted.noteLost(`/${'y'.repeat(400)}`, 9999);
    const { total, paths } = noted.lostLately(1);
    expect([total, paths[0]!.path]).toEqual([2000, '/x4999']);
  });

  test('is told with what is near, where nothing stands there by now', async () => {
    const { view } = await site();
    const paths = ['/nothing/near/it', '/seeds/ecolle', '/seeds/ecole', '/out'].map((path) => ({
      ...{ path, count: 1, first: 1, last: 1 },
    }));
    const lines = lostPaths(view, ANN, paths, NOW);
    expect(lines.map(({ path, near }) => [path, near[0]?.path])).toEqual([
      ['/seeds/ecolle', '/seeds/ecole'],
      ['/nothing/near/it', undefined],
    ]);
  });
});

test('redirects are counted by day', () => {
  let day = '2026-07-01';
  const noted = new Traffic(join(temporaryFolder(), 'ops.db'), () => day);
  onTestFinished(() => noted.close());
  noted.noteLed('r1');
  noted.noteLed('r1');
  noted.flush();
  day = '2026-07-02';
  noted.noteLed('r1');
  noted.noteLed('r2');
  expect([...noted.hits()]).toEqual([
    [
      'r1',
      {
        total: 3,
        days: [
          { day, count: 1 },
          { day: '2026-07-01', count: 2 },
        ],
      },
    ],
    ['r2', { total: 1, days: [{ day, count: 1 }] }],
  ]);
});
