import { describe, expect, test } from 'vitest';
import { prospectOf } from '@/server/queries/preview.ts';
import { runCommand } from '@/server/commands/run.ts';
import { COMMAND_LINE } from '@/server/permit.ts';
import { type Files, SITE, at, loadFiles } from '../helpers/folder.ts';
import { answer, entry, note, page, paths } from '../helpers/notes.ts';

const inside = (id: string) => ({ inside: id });

describe('a page built on another', () => {
  test('does not move when the page it sits within, chosen for "/", goes live', async () => {
    const { view } = await loadFiles({
      'site.yaml': { ...SITE, front: { entry: 'h' } },
      'types/page.json': page(),
      'entries/page/h.json': entry('h', 'Home', ['2026-03-01/']),
      'entries/page/c.json': entry('c', 'Team', ['2026-01-01/'], {}, inside('h')),
    });
    expect(paths(view, '2026-02-01')).toEqual(['/', '/team']);
    expect(paths(view, '2026-04-01')).toEqual(['/', '/team']);
    expect(answer(view, '/home/team', '2026-04-01')).toBe('404');
  });

  test('reads of several publications at one instant what they come to together', async () => {
    const parent = {
      entry: {
        id: 'p',
        created: '2025-01-01',
        saved: '2025-03-01',
        revisions: [
          { saved: '2025-01-01', values: { title: 'First' } },
          { saved: '2025-02-01', values: { title: 'Second' } },
        ],
        plans: [
          { at: '2026-06-01', do: 'publish', revision: 1 },
          { at: '2026-06-01', do: 'publish', revision: 2 },
        ],
      },
      title: 'Third',
    };
    const { view } = await loadFiles({
      'types/page.json': page(),
      'entries/page/p.json': parent,
      'entries/page/c.json': entry('c', 'Team', ['2026-01-01/'], {}, inside('p')),
    });
    expect(paths(view, '2026-02-01')).toEqual(['/', '/second/team']);
    expect(paths(view, '2026-07-01')).toEqual(['/', '/second', '/second/team']);
  });

  test('is built on the address by hand of one that is not live yet', async () => {
    const { view } = await loadFiles({
      'types/page.json': page(),
      'entries/page/p.json': entry('p', 'Later', ['2026-06-01/'], { address: '/by-hand' }),
      'entries/page/c.json': entry('c', 'Team', ['2026-01-01/'], {}, inside('p')),
    });
    expect(paths(view, '2026-02-01')).toEqual(['/', '/by-hand/team']);
    expect(paths(view, '2026-07-01')).toEqual(['/', '/by-hand', '/by-hand/team']);
  });
});

test('a page keeps its path when the one it sits within, with an address by hand, goes live beside another claim', async () => {
  const { view } = await loadFiles({
    'types/page.json': page(),
    'entries/page/p.json': entry('p', 'Home', ['2026-03-01/'], { address: '/by-hand' }),
    'entries/page/a.json': entry('a', 'About', ['2026-03-01/'], {}, inside('p')),
    'entries/page/b.json': entry('b', 'About', ['2026-01-01/'], {}, inside('p')),
  });
  expect(view.render('/by-hand/about', at('2026-02-01'))!.entry).toBe('b');
  expect(view.render('/by-hand/about', at('2026-03-02'))!.entry).toBe('b');
  expect(view.render('/by-hand/about-2', at('2026-03-02'))!.entry).toBe('a');
});

describe('a live page whose address somebody else takes', () => {
  test('by hand is not loaded: both are named', async () => {
    const revised = {
      entry: {
        id: 'b',
        created: '2025-02-01',
        saved: '2026-02-01',
        revisions: [{ saved: '2025-01-01', values: { title: 'Bean' } }],
        live: ['2026-01-01/'],
        plans: [{ at: '2026-03-01', do: 'publish' }],
      },
      title: 'Pea',
    };
    const { issues } = await loadFiles({
      'types/note.json': note({ clash: 'refuse' }),
      'entries/note/a.json': entry('a', 'Other', ['2026-01-01/'], { address: '/pea' }),
      'entries/note/b.json': revised,
    });
    expect(issues).toMatchObject([{ code: 'clash', path: 'entries/note/b.json' }]);
    expect(issues[0]!.message).toContain('"a" has it');
  });

  test.each(['number', 'refuse'])(
    'by a plan does not go offline, where clashes are to %s',
    async (clash) => {
      const renamed = {
        entry: {
          id: 'b',
          created: '2025-02-01',
          saved: '2026-02-01',
          revisions: [{ saved: '2025-01-01', values: { title: 'X' } }],
          live: ['2026-01-01/'],
          plans: [{ at: '2027-01-01', do: 'publish' }],
        },
        title: 'Y',
      };
      const { connection, view } = await loadFiles(
        {
          'types/note.json': note({ clash }),
          'entries/note/a.json': entry('a', 'X', [], { created: '2024-01-01' }),
          'entries/note/b.json': renamed,
          'entries/note/c.json': entry('c', 'Y', ['2025-06-01/']),
        },
        at('2026-06-01'),
      );
      const input = { entry: 'a', action: 'publish', at: '2027-01-01T00:00', revision: null };
      const wallClock = at('2026-06-02');
      const { ok } = runCommand(connection, 'planChange', COMMAND_LINE, input, { wallClock });
      const where = (id: string) =>
        paths(view, '2027-02-01').find((path) => view.render(path, at('2027-02-01'))!.entry === id);
      expect([ok, where('a'), where('b'), where('c')]).toEqual(
        clash === 'number' ? [true, '/x', '/y-2', '/y'] : [false, undefined, '/x', '/y'],
      );
    },
  );
});

describe('what leads on to a listing', () => {
  const files: Files = {
    'site.yaml': { ...SITE, front: { listing: 'all' } },
    'types/note.json': note(),
    'listings/all.json': { key: 'all', type: 'note', address: '/all', pageSize: 1 },
    'entries/note.json': [entry('a', 'A', ['2026-01-01/']), entry('b', 'B', ['2026-01-01/'])],
  };

  test('that is chosen for "/" is among all answers, and leads to pages that are there', async () => {
    const { view } = await loadFiles(files);
    const others = view
      .formerPaths(at('2026-02-01'))
      .map(({ path, page: answered }) => `${path} ${answered.status}`);
    expect(others).toContain('/all 308');
    expect(answer(view, '/all', '2026-02-01')).toBe('308 /');
    expect(answer(view, '/all/page-2', '2026-02-01')).toBe('308 /page-2');
    expect(answer(view, '/all/page-9', '2026-02-01')).toBe('404');
    expect(answer(view, '/page-9', '2026-02-01')).toBe('404');
  });
});

describe('an address by hand', () => {
  test('gives a page to an entry whose type makes none, and none once it ends', async () => {
    const { view } = await loadFiles({
      'types/note.json': note({ address: undefined }),
      'entries/note/a.json': entry('a', 'A', ['2026-01-01/'], {
        address: { path: '/here', from: '2026-02-01', to: '2026-05-01' },
      }),
    });
    expect(['2026-01-15', '2026-03-01', '2026-06-01'].map((i) => answer(view, '/here', i))).toEqual(
      ['404', '200', '410'],
    );
  });

  test('that ends where the pattern gives the same goes on without a new deal', async () => {
    const { view, connection } = await loadFiles({
      'types/note.json': note(),
      'entries/note/a.json': entry('a', 'Pea', ['2026-01-01/'], {
        address: { path: '/pea', from: '2026-02-01', to: '2026-05-01' },
      }),
    });
    expect(answer(view, '/pea', '2026-06-01')).toBe('200');
    const rows = connection.driver.prepare('SELECT path FROM address').pluck().all();
    expect(new Set(rows)).toEqual(new Set(['/pea']));
  });
});

describe('a title of which nothing is left', () => {
  test('gets an address with a finding', async () => {
    const { result, view } = await loadFiles({
      'types/note.json': note(),
      'entries/note/a.json': entry('starfish', '★', ['2026-01-01/']),
    });
    expect(result).toMatchObject({ ok: true, value: { findings: [{ code: 'nothing-left' }] } });
    expect(answer(view, '/note-starfi', '2026-02-01')).toBe('200');
  });
});

describe('a trace of an address in no normal form', () => {
  test('has one step that decides: the first', async () => {
    const { view } = await loadFiles({
      'types/note.json': note(),
      'entries/note/a.json': entry('a', 'Pea', ['2026-01-01/']),
    });
    const { steps } = view.trace('/PEA/', at('2026-02-01'))!;
    expect(steps.filter((s) => s.matched).map((s) => s.step)).toEqual(['normal form']);
  });
});

describe('lengths', () => {
  test('a segment made from values is cut at a hyphen, to 120 characters', async () => {
    const { view } = await loadFiles({
      'types/note.json': note(),
      'entries/note/a.json': entry('a', 'word '.repeat(600), ['2026-01-01/']),
    });
    const [, path] = paths(view, '2026-02-01');
    expect(path).toMatch(/^\/word(-word)+$/);
    expect(path!.length).toBeLessThanOrEqual(121);
    expect(path!.length).toBeGreaterThan(115);
  });

  test('an address of over 1,024 bytes is an issue', async () => {
    const { issues } = await loadFiles({
      'types/note.json': note({ address: `/${Array(10).fill('{title}').join('/')}` }),
      'entries/note/a.json': entry('a', 'word '.repeat(600), ['2026-01-01/']),
    });
    expect(issues).toMatchObject([{ code: 'too-long', path: 'entries/note/a.json' }]);
  });
});

describe('before it is published, an entry', () => {
  const files: Files = {
    'types/note.json': note(),
    'entries/note/a.json': entry('a', 'Pea', ['2026-01-01/']),
    'entries/note/b.json': entry('b', 'Pea', []),
  };
  const NOW = at('2026-07-02');

  test('whose address is taken shows the number it would get, with the pieces it is made of', async () => {
    const { view } = await loadFiles(files);
    const { site } = view.at(NOW)!;
    const type = site.types.get('note')!;
    const draft = { id: 'b', type, values: { title: 'Pea' }, author: '' };
    expect(prospectOf(view, site, draft, NOW)).toMatchObject({
      path: '/pea-2',
      pieces: [
        { text: '/', expression: null },
        { text: 'pea', expression: 'title' },
        { text: '-2', expression: null },
      ],
      refusal: null,
      from: null,
    });
  });

  test('that is live and renamed shows where it moves from and to, and how many move with it', async () => {
    const { view } = await loadFiles({
      'types/page.json': page(),
      'entries/page/p.json': entry('p', 'About', ['2026-01-01/']),
      'entries/page/c.json': entry('c', 'Team', ['2026-01-01/'], {}, inside('p')),
    });
    const { site } = view.at(NOW)!;
    const type = site.types.get('page')!;
    const draft = { id: 'p', type, values: { title: 'Who we are' }, author: '' };
    expect(prospectOf(view, site, draft, NOW)).toMatchObject({
      from: '/about',
      path: '/who-we-are',
      moved: new Map([['c', '/who-we-are/team']]),
    });
    const same = { ...draft, values: { title: 'About' } };
    expect(prospectOf(view, site, same, NOW)).toMatchObject({ path: '/about', moved: new Map() });
  });

  test('that could have no address says why', async () => {
    const { view } = await loadFiles({ ...files, 'types/note.json': note({ clash: 'refuse' }) });
    const { site } = view.at(NOW)!;
    const type = site.types.get('note')!;
    const draft = { id: 'b', type, values: { title: 'Pea' }, author: '' };
    expect(prospectOf(view, site, draft, NOW).refusal).toMatchObject({ code: 'clash' });
    const blank = { ...draft, values: { title: ' ' } };
    expect(prospectOf(view, site, blank, NOW).refusal).toMatchObject({ code: 'blank-segment' });
  });
});
