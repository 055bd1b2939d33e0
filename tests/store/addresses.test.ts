import { describe, expect, test } from 'vitest';
import { type Files, at, loadFiles } from '../helpers/folder.ts';
import { answer, entry, note, paths } from '../helpers/notes.ts';

describe('numbering', () => {
  const files: Files = {
    'types/note.json': note(),
    'entries/note/a.json': entry('a', 'Pea', ['2026-01-01/2026-03-01', '2026-05-01/']),
    'entries/note/b.json': entry('b', 'Pea', ['2026-02-01/']),
    'entries/note/c.json': entry('c', 'pea!', ['2026-04-01/']),
  };

  test('the first live keeps the address, the next is numbered, and a freed number goes to the next stretch', async () => {
    const { view } = await loadFiles(files);
    expect(paths(view, '2026-02-15')).toEqual(['/', '/pea', '/pea-2']);
    expect(view.render('/pea-2', at('2026-02-15'))!.entry).toBe('b');
    expect(view.render('/pea', at('2026-04-15'))!.entry).toBe('c');
    expect(view.render('/pea-2', at('2026-04-15'))!.entry).toBe('b');
    expect(view.render('/pea-3', at('2026-05-15'))!.entry).toBe('a');
  });

  test('at one instant endings come first, then claims by created, then id', async () => {
    const { view } = await loadFiles({
      'types/note.json': note(),
      'entries/note/old.json': entry('old', 'Pea', ['2026-01-01/2026-02-01']),
      'entries/note/z.json': entry('z', 'Pea', ['2026-02-01/'], { created: '2024-01-01' }),
      'entries/note/a.json': entry('a', 'Pea', ['2026-02-01/']),
    });
    expect(view.render('/pea', at('2026-02-01'))!.entry).toBe('z');
    expect(view.render('/pea-2', at('2026-02-01'))!.entry).toBe('a');
  });

  test('a stretch that is retired and published at one instant is not broken; its number stays', async () => {
    const { view } = await loadFiles({
      'types/note.json': note(),
      'entries/note/a.json': entry('a', 'Pea', ['2026-01-01/2026-02-01']),
      'entries/note/b.json': entry('b', 'Pea', ['2026-01-15/2026-03-01', '2026-03-01/']),
    });
    expect(view.render('/pea-2', at('2026-04-01'))!.entry).toBe('b');
  });

  test('the last path is dealt again when it is free and its base is unchanged', async () => {
    const { view } = await loadFiles({
      'types/note.json': note(),
      'entries/note/a.json': entry('a', 'Pea', ['2026-01-01/2026-04-01']),
      'entries/note/b.json': entry('b', 'Pea', ['2026-02-01/2026-03-01', '2026-05-01/']),
    });
    expect(view.render('/pea-2', at('2026-05-01'))!.entry).toBe('b');
  });

  test('reserved paths and listings’ pages count as taken; whole first segments only', async () => {
    const { view } = await loadFiles({
      'types/note.json': note(),
      'listings/all.json': { key: 'all', type: 'note', address: '/all' },
      'entries/note/a.json': entry('a', 'Build', ['2026-01-01/']),
      'entries/note/b.json': entry('b', 'Build log', ['2026-01-01/']),
      'entries/note/c.json': entry('c', 'All', ['2026-01-01/']),
    });
    expect(paths(view, '2026-01-02')).toEqual(['/', '/all', '/all-2', '/build-2', '/build-log']);
  });

  test('a title of which transliteration leaves nothing becomes the type and the start of the id', async () => {
    const { view } = await loadFiles({
      'types/note.json': note(),
      'entries/note/a.json': entry('starfish', '★ ★', ['2026-01-01/']),
    });
    expect(paths(view, '2026-01-02')).toEqual(['/', '/note-starfi']);
  });
});

describe('refusing', () => {
  const clash: Files = {
    'types/note.json': note({ clash: 'refuse' }),
    'entries/note/a.json': entry('a', 'Pea', ['2026-01-01/']),
  };

  test('a load with a clash is refused whole where the type says refuse, and names the file', async () => {
    const { issues, view } = await loadFiles({
      ...clash,
      'entries/note/b.json': entry('b', 'Pea', ['2026-09-01/']),
    });
    expect(issues).toMatchObject([{ code: 'clash', path: 'entries/note/b.json' }]);
    expect(view.at(at('2026-01-02'))).toBe(null);
  });

  test('a live entry whose new base is refused keeps its former path and shows its new revision', async () => {
    const revised = {
      entry: {
        id: 'b',
        saved: '2026-05-01',
        revisions: [{ saved: '2025-01-01', values: { title: 'Bean' } }],
        live: ['2026-02-01/'],
        plans: [{ at: '2026-06-01', do: 'publish' }],
      },
      title: 'Pea',
    };
    const { view, result } = await loadFiles({ ...clash, 'entries/note/b.json': revised });
    expect(result).toMatchObject({ ok: true, value: { findings: [{ code: 'clash' }] } });
    const shown = view.render('/bean', at('2026-06-02'))!;
    expect([shown.status, shown.meta!.title]).toEqual([200, 'Pea']);
  });

  test('a blank segment refuses publication', async () => {
    const { issues } = await loadFiles({
      'types/note.json': note(),
      'entries/note/a.json': entry('a', ' ', ['2026-01-01/']),
    });
    expect(issues).toMatchObject([{ code: 'blank-segment', path: 'entries/note/a.json' }]);
  });

  test('an address by hand is never numbered: it is refused', async () => {
    const { issues } = await loadFiles({
      'types/note.json': note(),
      'entries/note/a.json': entry('a', 'Pea', ['2026-01-01/']),
      'entries/note/b.json': entry('b', 'Bean', ['2026-02-01/'], { address: '/pea' }),
    });
    expect(issues).toMatchObject([{ code: 'clash', path: 'entries/note/b.json' }]);
  });
});

describe('moving', () => {
  test('a former address leads on with 308 while its entry is live, then answers 410, and 200 for whoever takes it', async () => {
    const moved = {
      entry: {
        id: 'a',
        created: '2025-01-01',
        saved: '2026-02-01',
        revisions: [{ saved: '2025-01-01', values: { title: 'Pea' } }],
        live: ['2026-01-01/2026-05-01'],
        plans: [{ at: '2026-02-01', do: 'publish' }],
      },
      title: 'Sugar pea',
    };
    const { view } = await loadFiles({
      'types/note.json': note(),
      'entries/note/a.json': moved,
      'entries/note/b.json': entry('b', 'Pea', ['2026-06-01/2026-07-01']),
    });
    expect(
      ['2025-12-01', '2026-01-02', '2026-02-02', '2026-05-02', '2026-06-02', '2026-07-02'].map(
        (i) => answer(view, '/pea', i),
      ),
    ).toEqual(['404', '200', '308 /sugar-pea', '410', '200', '410']);
  });

  test('a swap of two addresses at one instant does not chain', async () => {
    const swap = (id: string, from: string, to: string): object => ({
      entry: {
        id,
        created: '2025-01-01',
        saved: '2026-02-01',
        revisions: [{ saved: '2025-01-01', values: { title: from } }],
        live: ['2026-01-01/'],
        plans: [{ at: '2026-03-01', do: 'publish' }],
      },
      title: to,
    });
    const { view } = await loadFiles({
      'types/note.json': note(),
      'entries/note/a.json': swap('a', 'Left', 'Right'),
      'entries/note/b.json': swap('b', 'Right', 'Left'),
    });
    expect(['/left', '/right'].map((p) => view.render(p, at('2026-03-02'))!.entry)).toEqual([
      'b',
      'a',
    ]);
  });

  test('retired pages answer what their type says', async () => {
    const retired = (rule: unknown): Files => ({
      'types/note.json': note({ retired: rule }),
      'listings/all.json': { key: 'all', type: 'note', address: '/all' },
      'entries/note/a.json': entry('a', 'Pea', ['2026-01-01/2026-02-01']),
    });
    expect(answer((await loadFiles(retired({ path: '/over' }))).view, '/pea', '2026-03-01')).toBe(
      '308 /over',
    );
    expect(answer((await loadFiles(retired({ listing: 'all' }))).view, '/pea', '2026-03-01')).toBe(
      '308 /all',
    );
  });

  test('odd spellings lead to the normal form where that answers 200, and answer as it does otherwise', async () => {
    const { view } = await loadFiles({
      'types/note.json': note(),
      'listings/all.json': { key: 'all', type: 'note', address: '/all', pageSize: 1 },
      'entries/note/a.json': entry('a', 'Pea', ['2026-01-01/2026-02-01']),
      'entries/note/b.json': entry('b', 'Bean', ['2026-01-01/']),
    });
    expect(
      [
        '/PEA',
        '/pea/',
        '//pea',
        '/p%65a',
        '/pea%00',
        '/%ff',
        '/a/../pea',
        '/nothing/',
        '/all/page-1',
        '/all/page-2',
        '/all/page-02',
        '/all/page-3',
        '/all/page-0',
      ].map((p) => answer(view, p, '2026-01-02')),
    ).toEqual([
      '308 /pea',
      '308 /pea',
      '308 /pea',
      '308 /pea',
      '400',
      '400',
      '400',
      '404',
      '404',
      '200',
      '404',
      '404',
      '404',
    ]);
    expect(answer(view, '/PEA', '2026-03-01')).toBe('410');
  });

  test('a redirect by hand comes after current addresses and before former ones', async () => {
    const { view } = await loadFiles({
      'types/note.json': note(),
      'redirects.yaml':
        '- { from: /pea, to: /elsewhere, status: 302 }\n- { from: /old, to: "https://other.example/x" }\n',
      'entries/note/a.json': entry('a', 'Pea', ['2026-01-01/2026-02-01']),
    });
    expect(['2026-01-02', '2026-03-01'].map((i) => answer(view, '/pea', i))).toEqual([
      '200',
      '302 /elsewhere',
    ]);
    expect(answer(view, '/old', '2026-01-02')).toBe('308 https://other.example/x');
  });
});
