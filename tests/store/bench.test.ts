import { describe, expect, test } from 'vitest';
import type { Result } from '@/core/issue.ts';
import type { CommandInput, CommandName } from '@/server/commands/index.ts';
import { runCommand } from '@/server/commands/run.ts';
import type { Actor } from '@/server/permit.ts';
import { readClock } from '@/server/queries/clock.ts';
import { listingOutcome } from '@/server/queries/listing.ts';
import { openEdits } from '@/server/store/bench.ts';
import { type Files, at, loadFiles } from '../helpers/folder.ts';
import { entry, note } from '../helpers/notes.ts';
import { setting } from '../helpers/release.ts';

const ANN: Actor = { id: 'ann', name: 'Ann', role: 'builder' };
const BO: Actor = { id: 'bo', name: 'Ann', role: 'builder' };
const LATER = at('2026-07-02');
const PLANNED = '2026-08-01T08:00';
const PASSED = at('2026-08-01T08:00:00Z');

const FILES: Files = {
  'types/note.json': note({ fields: [{ key: 'title', kind: 'text' }] }),
  'entries/note.json': [
    entry('a', 'First', ['2026-01-01/']),
    entry('b', 'Second', ['2026-01-01/2026-09-01']),
    entry('c', 'Draft', [], { saved: '2026-01-01' }),
  ],
};

/** A loaded site, commands on it at growing instants, and what it answers then. */
async function site(files: Files = FILES) {
  const { connection, view } = await loadFiles(files, at('2026-07-01'));
  let wallClock = LATER;
  const run = <N extends CommandName>(name: N, input: CommandInput<N>, actor = ANN) =>
    runCommand(connection, name, actor, input, { wallClock: (wallClock += 1000) });
  const design = (instant = wallClock + 1) => view.at(instant)!.site.design;
  const edit = (path: string, set: Record<string, unknown>, actor = ANN, opened = design()) =>
    run('editDesign', { steps: setting(opened, path, set) }, actor);
  const open = () => openEdits(connection).map(({ id }) => id);
  return {
    connection,
    view,
    run,
    design,
    edit,
    open,
    status: (path: string, instant = wallClock + 1) => view.render(path, instant)!.status,
    title: (path: string, instant = wallClock + 1) =>
      /<title>(.*)<\/title>/.exec(view.render(path, instant)!.body)?.[1],
  };
}

function value<T>(result: Result<T>): T {
  if (!result.ok) throw new Error(JSON.stringify(result.issues));
  return result.value;
}
const codes = (result: Result<unknown>): string[] =>
  result.ok ? [] : result.issues.map(({ code }) => code);

const TITLE = { 'seo.title': '{title}!' };

describe('the bench', () => {
  test('holds edits that nobody else sees until they are released', async () => {
    const s = await site();
    const { id, sentence } = value(s.edit('types/note', TITLE));
    expect(sentence).toBe('Note: title rule “{title}!”');
    expect(s.title('/first')).toBe('First');
    value(s.run('release', { edits: [id] }));
    expect(s.title('/first')).toBe('First!');
    expect(s.open()).toEqual([]);
  });

  test('lets whoever made edits take them back one by one, and do them again', async () => {
    const s = await site();
    value(s.edit('types/note', TITLE));
    value(s.edit('types/note', { description: 'Words.' }, BO));
    value(s.edit('types/note', { plural: 'Papers' }));
    expect(value(s.run('undoEdit', {})).sentences).toEqual([
      'Note: plural “Papers”, was “Note entries”',
    ]);
    expect(value(s.run('undoEdit', {})).edits).toEqual([1]);
    expect(codes(s.run('undoEdit', {}))).toEqual(['nothing-there']);
    expect(s.open()).toEqual([2]);
    value(s.run('redoEdit', {}));
    expect(s.open()).toEqual([1, 2]);
    value(s.run('redoEdit', {}));
    expect(codes(s.run('redoEdit', {}))).toEqual(['nothing-there']);
    expect(s.open()).toEqual([1, 2, 3]);
  });

  test('forgets what was undone once its person makes another edit', async () => {
    const s = await site();
    value(s.edit('types/note', TITLE));
    value(s.run('undoEdit', {}));
    value(s.edit('types/note', { description: 'Words.' }, BO));
    value(s.run('redoEdit', {}));
    value(s.run('undoEdit', {}));
    value(s.edit('types/note', { plural: 'Papers' }));
    expect(codes(s.run('redoEdit', {}))).toEqual(['nothing-there']);
  });

  test('takes what is built on an edit off together with it, and says so first', async () => {
    const s = await site();
    value(
      s.run('editDesign', {
        steps: [
          {
            do: 'add',
            part: { id: 'frost', key: 'frost', kind: 'date', label: 'Frost date' },
            within: 'types/note',
            list: 'fields',
            after: 'title',
          },
        ],
      }),
    );
    const working = { ...s.design() };
    value(
      s.run(
        'editDesign',
        { steps: setting(working, 'types/note', { 'seo.description': 'Before {frost}' }) },
        BO,
      ),
    );
    const { edits, sentences } = value(s.run('undoEdit', { dry: true }));
    expect([edits, s.open()]).toEqual([
      [1, 2],
      [1, 2],
    ]);
    expect(sentences).toEqual([
      'Note: field Frost date added',
      'Note: description rule “Before {frost}”',
    ]);
    const released = value(s.run('release', { edits: [2], dry: true }));
    expect(released.needs).toEqual(['Note: field Frost date added']);
    const thrown = value(s.run('discardEdits', { edits: [1] })).edits;
    expect([thrown, s.open()]).toEqual([[1, 2], []]);
    expect(codes(s.run('redoEdit', {}))).toEqual(['nothing-there']);
    expect(codes(s.run('redoEdit', { edits: [2] }))).not.toEqual([]);
    value(s.run('redoEdit', { edits: thrown }));
    expect(s.open()).toEqual([1, 2]);
    value(s.run('release', { edits: [1] }));
    expect(codes(s.run('redoEdit', { edits: [1] }))).toEqual(['nothing-there']);
  });

  test('refuses what overlaps with an edit of somebody else, with both values', async () => {
    const s = await site();
    const opened = s.design();
    value(s.edit('types/note', TITLE, ANN, opened));
    expect(value(s.edit('types/note', { 'seo.description': 'Of {title}' }, BO, opened)).id).toBe(2);
    expect(s.edit('types/note', { 'seo.title': '{title}?' }, BO, opened)).toMatchObject({
      ok: false,
      issues: [{ code: 'changed-since', values: { yours: '“{title}?”', theirs: '“{title}!”' } }],
    });
  });

  test('says what a release overtook, and keeps it on top where that is wanted', async () => {
    const s = await site();
    value(s.edit('types/note', TITLE));
    const theirs = setting(s.design(), 'types/note', { 'seo.title': '{title}?' });
    expect(codes(s.run('release', { edit: { steps: theirs } }, BO))).toEqual(['changed-since']);
    value(s.run('undoEdit', {}));
    value(s.run('release', { edit: { steps: theirs } }, BO));
    expect(codes(s.run('redoEdit', {}))).toEqual(['changed-since']);
  });

  test('lets a person be renamed, and tells two of one name apart', async () => {
    const s = await site();
    value(s.edit('types/note', TITLE));
    value(s.edit('types/note', { description: 'Words.' }, BO));
    expect(openEdits(s.connection).map(({ person }) => person)).toEqual(['ann', 'bo']);
    value(s.run('undoEdit', {}, { ...ANN, name: 'Ann Other' }));
    expect(s.open()).toEqual([2]);
  });
});

describe('a planned release', () => {
  test('comes at its instant: design, publications and addresses', async () => {
    const s = await site();
    const { id } = value(s.edit('types/note', { address: '/n/{title}', ...TITLE }));
    const drafts = [{ entry: 'c', revision: null }];
    const { at: starts, drafts: count } = value(
      s.run('release', { edits: [id], drafts, at: PLANNED }),
    );
    expect([starts, count, s.open()]).toEqual([PASSED - 3_600_000, 1, []]);
    expect([s.status('/first'), s.status('/n/first')]).toEqual([200, 404]);
    expect(s.status('/first', starts - 1)).toBe(200);
    expect(s.view.render('/first', starts)!.headers.location).toBe('/n/first');
    expect([s.status('/n/first', starts), s.status('/n/draft', starts)]).toEqual([200, 200]);
    expect(s.title('/n/first', starts)).toBe('First!');
    expect(s.view.render('/first', LATER + 60_000)!.validUntil).toBe(starts);
  });

  test('is cancelled before it comes: its edits stand on the bench again', async () => {
    const s = await site();
    const { id } = value(s.edit('types/note', { address: '/n/{title}' }));
    const drafts = [{ entry: 'c', revision: null }];
    const { release, at: starts } = value(s.run('release', { edits: [id], drafts, at: PLANNED }));
    value(s.run('undoRelease', { release }));
    expect(s.open()).toEqual([id]);
    expect([s.status('/first', starts), s.status('/n/first', starts)]).toEqual([200, 404]);
    expect(s.status('/draft', starts)).toBe(404);
  });

  test('keeps what is released before it, where that does not overlap', async () => {
    const s = await site();
    const { id } = value(s.edit('types/note', TITLE));
    const { at: starts } = value(s.run('release', { edits: [id], at: PLANNED }));
    value(
      s.run('release', { edit: { steps: setting(s.design(), 'types/note', { plural: 'P' }) } }),
    );
    expect(s.design(starts).types[0]).toMatchObject({ plural: 'P', seo: { title: '{title}!' } });
    const other = setting(s.design(), 'types/note', { 'seo.title': 'Other' });
    const refused = s.run('release', { edit: { steps: other } });
    expect(codes(refused)).toEqual(['planned-release', 'changed-since']);
    expect(refused.ok ? '' : refused.issues[0]!.message).toMatch(
      /Ann planned for Aug 1, 2026.*title rule “\{title\}!”/,
    );
  });

  test('leaves an entry that comes meanwhile, and cannot move, at its path', async () => {
    const s = await site();
    const { id } = value(s.edit('types/note', { address: '/n/{title}', clash: 'refuse' }));
    const { at: starts } = value(s.run('release', { edits: [id], at: PLANNED }));
    const saved = value(
      s.run('saveEntry', { id: null, type: 'note', values: { title: 'First' }, seen: null }),
    );
    const publish = { entry: saved.id, action: 'publish' as const, at: null, revision: null };
    value(s.run('planChange', publish));
    expect([s.status('/n/first', starts), s.status('/first-2', starts)]).toEqual([200, 200]);
  });
});

describe('a release taken back', () => {
  test('brings back the design and the revisions live before', async () => {
    const s = await site();
    const before = JSON.stringify(s.design());
    value(s.run('saveEntry', { id: 'a', type: 'note', values: { title: 'Anew' }, seen: 1 }));
    const { id } = value(s.edit('types/note', TITLE));
    const drafts = ['a', 'c'].map((e) => ({ entry: e, revision: null }));
    const { release } = value(s.run('release', { edits: [id], drafts }));
    expect([s.title('/anew'), s.status('/draft')]).toEqual(['Anew!', 200]);
    expect(value(s.run('undoRelease', { release }))).toMatchObject({ kept: [], moved: 1 });
    expect([s.title('/first'), s.status('/draft')]).toEqual(['First', 410]);
    expect(JSON.stringify(s.design())).toBe(before);
  });

  test('leaves what was published anew since', async () => {
    const s = await site();
    const drafts = [{ entry: 'c', revision: null }];
    const { release } = value(s.run('release', { drafts }));
    value(s.run('saveEntry', { id: 'c', type: 'note', values: { title: 'Newer' }, seen: 1 }));
    value(s.run('planChange', { entry: 'c', action: 'publish', at: null, revision: null }));
    expect(value(s.run('undoRelease', { release })).kept).toEqual(['c']);
    expect(s.status('/newer')).toBe(200);
  });

  test('is refused where somebody has changed the same since', async () => {
    const s = await site();
    const { id } = value(s.edit('types/note', TITLE));
    const { release } = value(s.run('release', { edits: [id] }));
    const other = setting(s.design(), 'types/note', { 'seo.title': 'Other' });
    value(s.run('release', { edit: { steps: other } }));
    expect(codes(s.run('undoRelease', { release }))).toEqual(['changed-since']);
    expect(codes(s.run('undoRelease', { release: 1 }))).toEqual(['whole-design']);
  });
});

test('a type goes only where it has no entries', async () => {
  const s = await site();
  const [type] = s.design().types;
  const remove = {
    do: 'remove' as const,
    part: 'types/note',
    was: type as never,
    within: '',
    list: 'types',
    after: null,
  };
  const refused = s.run('release', { edit: { steps: [remove] } });
  expect(codes(refused)).toEqual(['type-in-use']);
  for (const e of ['a', 'b', 'c']) value(s.run('deleteEntry', { entry: e }));
  expect(s.run('release', { edit: { steps: [remove] } }).ok).toBe(true);
});

test('a listing over a field that is only on the bench is shown, with the field blank', async () => {
  const s = await site({
    ...FILES,
    'listings/all.json': { key: 'all', type: 'note', address: '/all', sort: ['title'] },
  });
  const field = { id: 'frost', key: 'frost', kind: 'date', label: 'Frost date' };
  const place = { within: 'types/note', list: 'fields', after: 'title' };
  value(s.run('editDesign', { steps: [{ do: 'add', part: field, ...place }] }));
  const where = { field: 'frost', op: 'not-blank' };
  const looking = { at: LATER + 60_000, past: false, seeing: 'published' as const };
  const shown = (set: Record<string, unknown>) => {
    const steps = setting(s.view.working(looking.at)!.site.design, 'listings/all', set);
    return listingOutcome(s.view, ANN, { id: 'all', steps, find: '' }, looking)!;
  };
  expect(shown({ sort: ['frost', 'title'] })).toMatchObject({ issues: [], total: 2 });
  expect(shown({ where })).toMatchObject({ issues: [], total: 0 });
  expect(shown({ where: { ...where, op: 'blank' } })).toMatchObject({ issues: [], total: 2 });
});

test('seeing with the whole bench says where it moves too many pages to be shown so', async () => {
  const rows = Array.from({ length: 2100 }, (_, i) => `n${i},Note ${i},2026-01-01/`).join('\n');
  const { connection, view } = await loadFiles({
    'types/note.json': note({ address: '/{title}' }),
    'entries/note.csv': `entry.id,title,entry.live\n${rows}\n`,
  });
  const problem = (): string | null => readClock(view, { seeing: 'bench' }).problem;
  expect(problem()).toBeNull();
  const { design } = view.at(Date.now())!.site;
  const steps = setting(design, 'types/note', { address: '/n/{title}' });
  const wallClock = Date.now();
  expect(runCommand(connection, 'editDesign', ANN, { steps }, { wallClock }).ok).toBe(true);
  expect(problem()).toContain('more than 2,000 pages');
  expect(readClock(view, {}).problem).toBeNull();
});
