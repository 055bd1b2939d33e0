import { describe, expect, test } from 'vitest';
import type { SiteView } from '@/server/queries/site-view.ts';
import { type Files, at, loadFiles } from '../helpers/folder.ts';
import { answer, entry, note, page, paths } from '../helpers/notes.ts';

describe('pages within pages', () => {
  test('children move with their parent, keep their address when it retires, and nothing is left blank by an absent parent', async () => {
    const parent = {
      entry: {
        id: 'p',
        created: '2025-01-01',
        saved: '2026-02-01',
        revisions: [{ saved: '2025-01-01', values: { title: 'About' } }],
        live: ['2026-01-01/2026-04-01'],
        plans: [{ at: '2026-03-01', do: 'publish' }],
      },
      title: 'Who we are',
    };
    const { view } = await loadFiles({
      'types/page.json': page(),
      'entries/page/p.json': parent,
      'entries/page/c.json': entry('c', 'Team', ['2026-01-01/'], {}, { inside: 'p' }),
      'entries/page/d.json': entry('d', 'Ann', ['2026-01-01/'], {}, { inside: 'c' }),
    });
    expect(paths(view, '2026-02-01')).toEqual(['/', '/about', '/about/team', '/about/team/ann']);
    expect(paths(view, '2026-03-02')).toEqual([
      '/',
      '/who-we-are',
      '/who-we-are/team',
      '/who-we-are/team/ann',
    ]);
    expect(paths(view, '2026-04-02')).toEqual(['/', '/who-we-are/team', '/who-we-are/team/ann']);
    expect(answer(view, '/about/team/ann', '2026-04-02')).toBe('308 /who-we-are/team/ann');
  });

  test('a parent that is not live yet lends its unnumbered path', async () => {
    const { view } = await loadFiles({
      'types/page.json': page(),
      'entries/page/p.json': entry('p', 'Later', ['2026-06-01/']),
      'entries/page/c.json': entry('c', 'Now', ['2026-01-01/'], {}, { inside: 'p' }),
    });
    expect(paths(view, '2026-02-01')).toEqual(['/', '/later/now']);
  });

  test('what is chosen for "/" stands there only, lends nothing to its children, and its pattern’s path leads to "/"', async () => {
    const { view } = await loadFiles({
      'site.yaml': {
        name: 'S',
        url: 'https://s.example',
        zone: 'UTC',
        language: 'en',
        front: { entry: 'h' },
      },
      'types/page.json': page(),
      'entries/page/h.json': entry('h', 'Home', ['2026-01-01/2026-06-01']),
      'entries/page/c.json': entry('c', 'Team', ['2026-01-01/'], {}, { inside: 'h' }),
    });
    expect(paths(view, '2026-02-01')).toEqual(['/', '/team']);
    expect(answer(view, '/home', '2026-02-01')).toBe('308 /');
    expect(view.render('/', at('2026-02-01'))!.body).toContain(
      '<link rel="canonical" href="https://s.example/">',
    );
    expect(view.render('/', at('2026-06-02'))!.kind).toBe('front');
  });

  test('children move when their parent comes back to another address than it left', async () => {
    const parent = (live: string[]): object => entry('p', 'About', live);
    const { view } = await loadFiles({
      'types/page.json': page(),
      'entries/page/p.json': parent(['2026-01-01/2026-02-01', '2026-04-01/']),
      'entries/page/q.json': entry('q', 'About', ['2026-03-01/'], { created: '2025-02-01' }),
      'entries/page/c.json': entry('c', 'Team', ['2026-01-01/'], {}, { inside: 'p' }),
    });
    expect(paths(view, '2026-03-02')).toEqual(['/', '/about', '/about/team']);
    expect(paths(view, '2026-04-02')).toEqual(['/', '/about', '/about-2', '/about-2/team']);
    expect(answer(view, '/about/team', '2026-04-02')).toBe('308 /about-2/team');
  });

  test('a circle of pages keeps them from being published, with the reason', async () => {
    const { issues } = await loadFiles({
      'types/page.json': page(),
      'entries/page/a.json': entry('a', 'A', ['2026-01-01/'], {}, { inside: 'b' }),
      'entries/page/b.json': entry('b', 'B', [], {}, { inside: 'a' }),
    });
    expect(issues).toMatchObject([{ code: 'cycle', path: 'entries/page/a.json' }]);
  });
});

describe('publication', () => {
  const shown = (view: SiteView, instant: string): string | null =>
    view.render('/note', at(instant))?.meta?.title ?? null;
  const twice = (live: unknown, plans: unknown[] = []): Files => ({
    'types/note.json': note({ address: '/note', clash: 'refuse' }),
    'entries/note/a.json': {
      entry: {
        id: 'a',
        created: '2025-01-01',
        saved: '2026-03-01',
        revisions: [{ saved: '2025-01-01', values: { title: 'One' } }],
        live,
        plans,
      },
      title: 'Two',
    },
  });

  test('without a revision named a publication takes the newest saved by its instant, and saving alone changes nothing', async () => {
    const { view } = await loadFiles(twice(['2026-01-01/'], [{ at: '2026-05-01', do: 'publish' }]));
    expect(['2026-02-01', '2026-04-01', '2026-05-01'].map((i) => shown(view, i))).toEqual([
      'One',
      'One',
      'Two',
    ]);
  });

  test('one that names a revision takes that one', async () => {
    const { view } = await loadFiles(twice([{ from: '2026-04-01', to: null, revision: 1 }]));
    expect(shown(view, '2026-04-02')).toBe('One');
  });

  test('a publication inside a written interval keeps its end', async () => {
    const { view } = await loadFiles(
      twice(['2026-01-01/2026-06-01'], [{ at: '2026-05-01', do: 'publish' }]),
    );
    expect(['2026-05-02', '2026-06-01'].map((i) => view.render('/note', at(i))!.status)).toEqual([
      200, 410,
    ]);
  });

  test('a publication before any saved revision does nothing', async () => {
    const { view } = await loadFiles(twice([], [{ at: '2024-01-01', do: 'publish' }]));
    expect(view.render('/note', at('2026-06-01'))!.status).toBe(404);
  });

  test('entry.published is the first start for good; entry.updated the start of the revision shown', async () => {
    const { view } = await loadFiles({
      'types/note.json': note({
        address: '/n',
        seo: { title: '{date(entry.published, "yyyy-MM-dd")} {date(entry.updated, "yyyy-MM-dd")}' },
      }),
      'entries/note/a.json': {
        entry: {
          id: 'a',
          saved: '2026-03-01',
          created: '2025-01-01',
          revisions: [{ saved: '2025-01-01', values: {} }],
          live: ['2026-01-10/2026-02-10', '2026-02-20/'],
          plans: [{ at: '2026-04-01T12:00', do: 'publish' }],
        },
        title: 'T',
      },
    });
    expect(
      ['2026-02-01', '2026-03-01', '2026-05-01'].map((i) => view.render('/n', at(i))!.meta!.title),
    ).toEqual(['2026-01-10 2026-01-10', '2026-01-10 2026-02-20', '2026-01-10 2026-04-01']);
  });
});
