import fc from 'fast-check';
import { describe, expect, test } from 'vitest';
import { applyEdit } from '@/core/design-edit/edit.ts';
import type { Step } from '@/core/design-edit/steps.ts';
import { siteAtPath } from '@/core/site/languages.ts';
import { listingPaths } from '@/core/site/pages.ts';
import { Validity } from '@/core/time/interval.ts';
import { runCommand } from '@/server/commands/run.ts';
import { COMMAND_LINE } from '@/server/permit.ts';
import { type Reach, type ReachInput, reachSoFar } from '@/server/queries/reach.ts';
import { languagesMade, tablesIn } from '@/server/store/language-tables.ts';
import { openEdits } from '@/server/store/bench.ts';
import { type TestSite, loadFiles } from '../helpers/folder.ts';
import { entry, note } from '../helpers/notes.ts';
import { choices, drawing, kindSteps, randomEdit } from '../helpers/random-edits.ts';
import { randomSite } from '../helpers/random-site.ts';
import { setting } from '../helpers/release.ts';

const NOW = Date.parse('2026-07-01T12:00:00Z');

/** The whole reach of a change. */
function reach({ view }: TestSite, input: Partial<ReachInput>): Reach {
  const asked = { at: NOW, steps: [], edits: [], drafts: [], ...input };
  const moves: number[] = [];
  for (;;) {
    const found = reachSoFar(view, COMMAND_LINE, asked)!;
    moves.push(found.counts.moves);
    if (!found.done) continue;
    // What is said to be "at least" so much is.
    for (const atLeast of moves) expect(atLeast).toBeLessThanOrEqual(found.counts.moves);
    return found;
  }
}

/** What cannot have its address, or will not, after an instant. */
function refusals({ connection }: TestSite, at: number): Set<string> {
  const languages = [undefined, ...languagesMade(connection)];
  const all = languages.flatMap((language) => {
    const sql = `SELECT '${language ?? ''} ' || entry || ' ' || at FROM ${tablesIn(language).refusal}
      WHERE at > ? AND code <> 'nothing-left'`;
    return connection.driver.prepare(sql).pluck().all(at) as string[];
  });
  return new Set(all);
}

interface Page {
  path: string;
  body: string;
}

/** Every page by what it is of, its path and HTML; and where redirects by hand lead. */
function pagesBy({ view }: TestSite, at: number, redirects: Iterable<string>): Map<string, Page> {
  const { site, reader } = view.at(at)!;
  // Values are told apart by what they are: two may have one name.
  const ofLists = site.languages.flatMap((one) =>
    listingPaths(one, reader.in(one), new Validity(at)).map(
      ({ path, key, value, number }): [string, string] => [
        path,
        `${site.listings.get(key)!.listing.id} ${value?.key} ${number}`,
      ],
    ),
  );
  const listNames = new Map(ofLists);
  const languageOf = (path: string): string => siteAtPath(site, path).design.edition?.id ?? '';
  const pages = new Map(
    view
      .pages(at)!
      .map(({ path, entry: id, listing }): [string, Page] => [
        `${languageOf(path)}:${id ?? (listing === null ? path : listNames.get(path)!)}`,
        { path, body: view.render(path, at)!.body },
      ]),
  );
  const standing = new Set([...pages.values()].map(({ path }) => path));
  for (const path of redirects) {
    const { status, body } = view.render(path, at)!;
    if (!standing.has(path) && status < 400) pages.set(`redirect ${path}`, { path, body });
  }
  return pages;
}

/** What two full renders differ in. */
function difference(before: Map<string, Page>, after: Map<string, Page>): Reach['counts'] {
  const counts = { appears: 0, vanishes: 0, moves: 0, differs: 0 };
  for (const name of new Set([...before.keys(), ...after.keys()])) {
    const [a, b] = [before.get(name), after.get(name)];
    if (!a || !b) counts[a ? 'vanishes' : 'appears'] += 1;
    else if (a.path !== b.path) counts.moves += 1;
    else if (a.body !== b.body) counts.differs += 1;
  }
  return counts;
}

const change = fc.oneof(
  fc.constantFrom<[string, Record<string, unknown>]>(
    ['types/variety', { address: '/{title}' }],
    ['types/variety', { address: '/s/{title}' }],
    ['types/variety', { address: '/{grower.title ?? "seeds"}/x/{title}' }],
    ['types/variety', { 'seo.title': '{title}!' }],
    ['types/variety', { template: null }],
    ['types/page', { address: '/pages/{title}' }],
    ['types/page', { address: null }],
    ['types/event', { address: '/{title}' }],
    ['types/part', { address: '/parts/{title}' }],
    ['types/grower', { address: '/g/{title}' }],
    ['listings/all', { sort: ['title'] }],
    ['listings/all', { pageSize: 1 }],
    ['listings/all', { address: '/everything' }],
    ['listings/all', { where: { field: 'stock', op: 'more-than', value: 1 } }],
    ['listings/tall', { address: null }],
    ['site', { name: 'Other' }],
    ['site', { front: null }],
    ['style', { css: 'p { color: red }' }],
  ),
);

/** Paths with redirects set by hand, before and after some steps. */
function redirectsOf({ view }: TestSite, steps: Step[], at: number): Set<string> {
  const { site } = view.at(at)!;
  const edited = applyEdit(site.design, { steps });
  const after = edited.ok ? edited.value.site.redirects.keys() : [];
  return new Set([...site.redirects.keys(), ...after]);
}

/** Whether the reach of steps is what releasing them does; null where they are refused. */
function isExact(site: TestSite, steps: Step[], bench: boolean): boolean | null {
  const { connection } = site;
  const run = (name: 'editDesign' | 'release', input: unknown, wallClock: number) =>
    runCommand(connection, name, COMMAND_LINE, input, { wallClock });
  if (bench && !run('editDesign', { steps }, NOW).ok) return null;
  const edits = openEdits(connection).map(({ id }) => id);
  const at = NOW + 100;
  const found = reach(site, bench ? { at, edits } : { at, steps });
  const redirects = redirectsOf(site, steps, at);
  const before = pagesBy(site, at, redirects);
  const refused = refusals(site, at);
  if (!run('release', bench ? { edits } : { edit: { steps } }, at).ok) return null;
  const real = difference(before, pagesBy(site, at, redirects));
  expect(found.counts).toEqual(real);
  const now = refusals(site, at);
  const begin = [...now].filter((r) => !refused.has(r)).length;
  const end = [...refused].filter((r) => !now.has(r)).length;
  expect(found.refused).toEqual({ begin, end });
  return Object.values(real).some((n) => n > 0);
}

test('the reach of any change is the difference of two full renders', async () => {
  let [compared, changed] = [0, 0];
  await fc.assert(
    fc.asyncProperty(randomSite, change, fc.boolean(), async (files, [path, set], bench) => {
      const site = await loadFiles(files, NOW - 1000);
      if (!site.result.ok) return;
      const { design } = site.view.at(NOW)!.site;
      const differs = isExact(site, setting(design, path, set), bench);
      if (differs !== null) compared += 1;
      if (differs) changed += 1;
    }),
    { numRuns: Number(process.env.LONG ?? 55) },
  );
  expect(compared).toBeGreaterThan(8);
  expect(changed).toBeGreaterThan(8);
});

test('so it is of edits of any part', async () => {
  let compared = 0;
  await fc.assert(
    fc.asyncProperty(randomSite, choices, async (files, numbers) => {
      const pick = drawing(numbers);
      for (let i = 0; i < 4; i++) {
        const site = await loadFiles(files, NOW - 1000);
        if (!site.result.ok) return;
        const { steps } = randomEdit(site.view.at(NOW)!.site.design, pick);
        if (isExact(site, steps, false) !== null) compared += 1;
      }
    }),
    { numRuns: Number(process.env.LONG ?? 40) },
  );
  expect(compared).toBeGreaterThan(8);
});

describe('the reach of a choice of lines of the bench', () => {
  const files = {
    'types/note.json': note({ address: '/{title}' }),
    'listings/all.json': { key: 'all', type: 'note', address: '/all', sort: ['title'] },
    'entries/note.json': [
      entry('a', 'First', ['2026-01-01/']),
      entry('b', 'Second', [], { saved: '2026-01-01' }),
    ],
  };

  test('says what appears with drafts, and which lists have others', async () => {
    const site = await loadFiles(files, NOW - 1000);
    const found = reach(site, { drafts: ['b'] });
    expect(found.counts).toMatchObject({ appears: 1, moves: 0 });
    expect(found.examples.appears[0]).toMatchObject({ from: null, to: '/second' });
    expect(found.listings).toEqual([{ label: 'All', totals: [1, 2] }]);
  });

  test('shows the first of each kind before and after', async () => {
    const site = await loadFiles(files, NOW - 1000);
    const steps = setting(site.view.at(NOW)!.site.design, 'types/note', {
      'seo.title': '{title}!',
    });
    const { counts, examples } = reach(site, { steps });
    expect(counts).toMatchObject({ differs: 1, moves: 0 });
    expect(examples.differs[0]).toMatchObject({ from: '/first', titles: ['First', 'First!'] });
    expect(examples.differs[0]!.html.map((h) => h!.includes('<title>First!'))).toEqual([
      false,
      true,
    ]);
  });

  test('pages of each value are as they will be where their field becomes another', async () => {
    const site = await loadFiles(
      {
        ...files,
        'types/grower.json': note({ key: 'grower' }),
        'types/note.json': {
          ...{ key: 'note', address: '/{title}' },
          fields: [
            { key: 'title', kind: 'text' },
            { key: 'about', kind: 'reference', types: ['grower'] },
          ],
        },
        'listings/by.json': { key: 'by', type: 'note', address: '/by', each: { by: 'about' } },
        'entries/grower.json': [entry('g', 'Ana', ['2026-01-01/'])],
        'entries/note.json': [entry('a', 'First', ['2026-01-01/'], {}, { about: 'g' })],
      },
      NOW - 1000,
    );
    expect(site.view.render('/by/ana', NOW)!.status).toBe(200);
    const { design } = site.view.at(NOW)!.site;
    const steps = kindSteps(design, 'types/note/fields/about', { kind: 'reference', many: true });
    expect(reach(site, { steps }).counts).toEqual({
      appears: 0,
      vanishes: 0,
      moves: 0,
      differs: 0,
    });
    expect(isExact(site, steps, false)).toBe(false);
  });

  test('says what clashes later, with the instant, and what does not any more', async () => {
    const type = {
      key: 'note',
      clash: 'refuse',
      fields: [{ key: 'title' }, { key: 'code' }].map((f) => ({ ...f, kind: 'text' })),
    };
    const entries = [
      entry('a', 'First', ['2026-01-01/'], {}, { code: 'x' }),
      entry('b', 'First', ['2026-12-01T08:00:00Z/'], { saved: '2026-01-01' }, { code: 'y' }),
    ];
    const one = { 'entries/note.json': entries };
    for (const [from, to, refused] of [
      ['/{title}/{code}', '/{title}', { begin: 1, end: 0 }],
      ['/{title}', '/{title}/{code}', { begin: 0, end: 1 }],
    ] as const) {
      const note = { ...type, address: from };
      const site = await loadFiles(
        { ...one, 'types/note.json': { ...note, clash: 'number' } },
        NOW,
      );
      const { design } = site.view.at(NOW)!.site;
      const first = { edit: { steps: setting(design, 'types/note', { clash: 'refuse' }) } };
      const wallClock = NOW + 10;
      const done = runCommand(site.connection, 'release', COMMAND_LINE, first, { wallClock });
      expect(done).toMatchObject({ ok: true });
      const at = NOW + 50;
      const steps = setting(site.view.at(at)!.site.design, 'types/note', { address: to });
      const found = reach(site, { at, steps });
      expect(found.refused).toEqual(refused);
      const words = found.issues.map(({ message }) => message).join();
      if (refused.begin) expect(words).toMatch(/^Dec 1, 2026.*: b: The address \/first is taken/);
      expect(isExact(site, steps, false)).toBe(true);
    }
  });

  test('says what could not have its address', async () => {
    const site = await loadFiles(files, NOW - 1000);
    const { design } = site.view.at(NOW)!.site;
    const steps = setting(design, 'types/note', { address: '/{title}/{title}', clash: 'refuse' });
    expect(reach(site, { steps }).issues).toEqual([]);
    const wrong = setting(design, 'types/note', { address: '/{titel}' });
    expect(reach(site, { steps: wrong }).issues).toMatchObject([{ code: 'unknown-name' }]);
  });
});
