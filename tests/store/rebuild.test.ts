import fc from 'fast-check';
import { expect, test } from 'vitest';
import type { DesignEdit } from '@/core/design-edit/edit.ts';
import { foldEdits } from '@/core/design-edit/fold.ts';
import type { Design } from '@/core/design/spec.ts';
import { COMMANDS, type CommandName } from '@/server/commands/index.ts';
import { runCommand } from '@/server/commands/run.ts';
import type { Connection } from '@/server/db/connection.ts';
import { COMMAND_LINE } from '@/server/permit.ts';
import { openEdits } from '@/server/store/bench.ts';
import { loadFiles } from '../helpers/folder.ts';
import { DESIGN, randomSite } from '../helpers/random-site.ts';
import { derivedRows, dropIndexTables, rebuild } from '../helpers/snapshot.ts';
import { setting } from '../helpers/release.ts';

const entry = fc.constantFrom('v0', 'v1', 'v2', 'g0', 'g1', 'p0', 'p1');
const minutes = fc.integer({ min: 0, max: 200_000 });
const step = fc.oneof(
  fc.record({
    do: fc.constant('save' as const),
    entry,
    title: fc.constantFrom('Pea', 'Bean', 'Moved', '★'),
  }),
  fc.record({
    do: fc.constantFrom('publish' as const, 'retire' as const),
    entry,
    after: fc.option(minutes),
  }),
  fc.record({ do: fc.constant('cancel' as const) }),
  fc.record({ do: fc.constantFrom('delete' as const), entry }),
  fc.record({ do: fc.constantFrom('restore' as const), entry }),
  fc.record({ do: fc.constant('fields' as const), without: fc.constantFrom('shade', 'none') }),
  fc.record({
    do: fc.constant('address' as const),
    pattern: fc.constantFrom(
      '/{title}',
      '/{grower.title ?? "seeds"}/{title}',
      '/x/{stock ?? 0}/{title}',
    ),
  }),
);

/** What puts edits on the bench, takes them off it, and releases them, at once or later. */
const bench = fc.oneof(
  fc.record({
    do: fc.constant('edit' as const),
    part: fc.constantFrom('types/variety', 'types/page', 'types/event', 'listings/all'),
    set: fc.constantFrom(
      { address: '/{title}' },
      { address: '/s/{title}' },
      { address: '/{grower.title ?? "seeds"}/{title}' },
      { clash: 'refuse' },
      { description: 'Other.' },
      { address: '/bean' },
      { sort: ['-stock'] },
    ),
  }),
  fc.record({
    do: fc.constant('release' as const),
    count: fc.integer({ min: 1, max: 3 }),
    draft: fc.option(entry),
    after: fc.option(minutes),
  }),
  fc.record({ do: fc.constantFrom('undo' as const, 'redo' as const, 'discard' as const) }),
  fc.record({ do: fc.constantFrom('rebase' as const, 'take back' as const) }),
);

const FIELDS = DESIGN['types/variety.json'] as { fields: { key: string }[] };

/** Entries whose marks do not say what their rows say. */
function wronglyMarked({ driver }: Connection): unknown[] {
  return driver
    .prepare(
      'SELECT id FROM entry AS e WHERE newest <> (SELECT max(number) FROM revision WHERE entry = e.id) OR unpublished <> (NOT EXISTS (SELECT 1 FROM live_interval AS l WHERE l.entry = e.id AND l.revision = e.newest))',
    )
    .all();
}

/** Every release's design is the one before it with its edits. */
function expectFolded({ driver }: Connection): void {
  const rows = driver
    .prepare<unknown[], { spec: string; edits: string | null }>(
      'SELECT spec, edits FROM design_version ORDER BY starts, id',
    )
    .all();
  rows.forEach(({ spec, edits }, i) => {
    if (edits === null) return;
    const before = JSON.parse(rows[i - 1]!.spec) as Design;
    const all = (JSON.parse(edits) as DesignEdit[]).map((edit, id) => ({ id, edit }));
    const { design, stuck } = foldEdits(before, all);
    expect(stuck).toEqual([]);
    expect(JSON.stringify(design)).toBe(spec);
  });
}

/** How often each command went through: one that never does tests nothing. */
const done = new Map<CommandName, number>();

test('after any writes, deriving everything anew gives the same rows, and what was past stays', async () => {
  await fc.assert(
    fc.asyncProperty(
      randomSite,
      fc.array(fc.tuple(fc.oneof(step, bench), minutes), { maxLength: 14 }),
      async (files, steps) => {
        const { connection, view, result } = await loadFiles(files);
        if (!result.ok) return;
        let wall = Date.parse('2026-07-01T12:00:00Z');
        const run = (name: CommandName, input: unknown): void => {
          const { ok } = runCommand(connection, name, COMMAND_LINE, input, { wallClock: wall });
          if (ok) done.set(name, (done.get(name) ?? 0) + 1);
        };
        const one = (sql: string): unknown => connection.driver.prepare(sql).pluck().get(wall);
        const past = (): unknown =>
          connection.driver
            .prepare(
              'SELECT entry, starts, min(coalesce(ends, ?), ?) AS ends, revision FROM live_interval WHERE starts < ? ORDER BY entry, starts',
            )
            .all(wall, wall, wall);
        for (const [what, pause] of steps) {
          wall += pause * 60_000 + 1;
          const before = past();
          const { design } = view.at(wall)!.site;
          const edits = openEdits(connection).map(({ id }) => id);
          const later = (after: number | null): string | null =>
            after === null ? null : new Date(wall + (after + 1) * 60_000).toISOString();
          switch (what.do) {
            case 'save': {
              const type = { v: 'variety', g: 'grower', p: 'page' }[what.entry[0]!]!;
              run('saveEntry', { id: what.entry, type, values: { title: what.title }, seen: null });
              break;
            }
            case 'cancel':
              run('cancelPlan', { plan: one('SELECT min(id) FROM planned_change WHERE at > ?') });
              break;
            case 'delete':
              run('deleteEntry', { entry: what.entry });
              break;
            case 'restore': {
              const gone = one('SELECT id FROM entry WHERE deleted <= ?') ?? what.entry;
              run('restoreEntry', { entry: gone });
              break;
            }
            case 'address':
            case 'fields': {
              const fields = FIELDS.fields.filter(
                (f) => what.do === 'fields' && f.key !== what.without,
              );
              const set = what.do === 'address' ? { address: what.pattern } : { fields };
              run('release', { edit: { steps: setting(design, 'types/variety', set) } });
              break;
            }
            case 'edit':
              run('editDesign', { steps: setting(design, what.part, what.set) });
              break;
            case 'release': {
              const drafts = what.draft === null ? [] : [{ entry: what.draft, revision: null }];
              const at = later(what.after);
              run('release', { edits: edits.slice(0, what.count), drafts, at });
              break;
            }
            case 'undo':
              run('undoEdit', {});
              break;
            case 'redo':
              run('undoEdit', {});
              run('redoEdit', {});
              break;
            case 'discard':
              run('discardEdits', { edits: edits.slice(0, 1) });
              break;
            case 'rebase':
              run('editDesign', { steps: setting(design, 'types/page', { plural: 'Leaves' }) });
              run('rebaseEdit', { edit: openEdits(connection).at(-1)?.id ?? 0 });
              break;
            case 'take back':
              run('undoRelease', { release: one('SELECT max(id) FROM design_version WHERE ?') });
              break;
            default:
              run('planChange', {
                entry: what.entry,
                action: what.do,
                at: later(what.after),
                revision: null,
              });
          }
          expect(past()).toEqual(before);
          expectFolded(connection);
          expect(wronglyMarked(connection)).toEqual([]);
          const rows = derivedRows(connection);
          rebuild(connection, view);
          expect(derivedRows(connection)).toEqual(rows);
        }
        const { design } = view.at(wall)!.site;
        run('editDesign', { steps: setting(design, 'types/part', { plural: 'Pieces' }) });
        for (const name of ['undoEdit', 'redoEdit'] as const) run(name, {});
        run('rebaseEdit', { edit: openEdits(connection).at(-1)!.id });
        run('discardEdits', { edits: [openEdits(connection).at(-1)!.id] });
        const rows = derivedRows(connection);
        dropIndexTables(connection);
        rebuild(connection, view);
        expect(derivedRows(connection)).toEqual(rows);
      },
    ),
    { numRuns: Number(process.env.LONG ?? 80) },
  );
  for (const name of Object.keys(COMMANDS) as CommandName[])
    expect([name, done.get(name) ?? 0]).toEqual([name, expect.toSatisfy((n: number) => n > 0)]);
}, 240_000);
