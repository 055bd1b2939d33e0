import fc from 'fast-check';
import { expect, test } from 'vitest';
import type { DesignEdit } from '@/core/design-edit/edit.ts';
import { foldEdits } from '@/core/design-edit/fold.ts';
import type { Design } from '@/core/design/spec.ts';
import { COMMANDS, type CommandName } from '@/server/commands/index.ts';
import type { Connection } from '@/server/db/connection.ts';
import { openEdits } from '@/server/store/bench.ts';
import { loadFiles } from '../helpers/folder.ts';
import { randomSite } from '../helpers/random-site.ts';
import { SELDOM, randomWrites } from '../helpers/random-steps.ts';
import { LivedSite } from '../helpers/random-writes.ts';
import { derivedRows, dropIndexTables, rebuild } from '../helpers/snapshot.ts';
import { setting } from '../helpers/release.ts';

/** Entries whose marks do not say what their rows say. */
function wronglyMarked({ driver }: Connection): unknown[] {
  return driver
    .prepare(
      'SELECT id FROM entry AS e WHERE newest <> (SELECT max(number) FROM revision WHERE entry = e.id) OR unpublished <> (NOT EXISTS (SELECT 1 FROM live_interval AS l WHERE l.entry = e.id AND e.newest IN (l.revision, l.shared_revision)))',
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
const done = new Map<string, number>();

test('after any writes, deriving everything anew gives the same rows, and what was past stays', async () => {
  await fc.assert(
    fc.asyncProperty(randomSite, randomWrites, async (files, steps) => {
      const { connection, view, result } = await loadFiles(files);
      if (!result.ok) return;
      const site = new LivedSite(connection, view, Date.parse('2026-07-01T12:00:00Z'));
      let purged: string | null = null;
      const past = (): unknown =>
        connection.driver
          .prepare(
            'SELECT entry, starts, min(coalesce(ends, ?), ?) AS ends, revision FROM live_interval WHERE starts < ? AND entry IS NOT ? ORDER BY entry, starts',
          )
          .all(site.wall, site.wall, site.wall, purged);
      for (const [what, pause] of steps) {
        site.wall += pause * 60_000 + 1;
        purged = what.do === 'purge' ? what.entry : null;
        const before = past();
        site.write(what);
        expect(past()).toEqual(before);
        expectFolded(connection);
        expect(wronglyMarked(connection)).toEqual([]);
        const rows = derivedRows(connection);
        rebuild(connection, view);
        expect(derivedRows(connection)).toEqual(rows);
      }
      for (const what of SELDOM) {
        site.wall += 60_000;
        site.write(what);
      }
      const { design } = view.at(site.wall)!.site;
      site.run('editDesign', { steps: setting(design, 'types/part', { plural: 'Pieces' }) });
      for (const name of ['undoEdit', 'redoEdit'] as const) site.run(name, {});
      site.run('rebaseEdit', { edit: openEdits(connection).at(-1)!.id });
      site.run('discardEdits', { edits: [openEdits(connection).at(-1)!.id] });
      for (const [name, n] of site.done) done.set(name, (done.get(name) ?? 0) + n);
      const rows = derivedRows(connection);
      dropIndexTables(connection);
      rebuild(connection, view);
      expect(derivedRows(connection)).toEqual(rows);
    }),
    { numRuns: Number(process.env.LONG ?? 55) },
  );
  // All of them but what is done where there is no site yet.
  const names = (Object.keys(COMMANDS) as CommandName[]).filter((n) => !COMMANDS[n].beforeSite);
  for (const name of names)
    expect([name, done.get(name) ?? 0]).toEqual([name, expect.toSatisfy((n: number) => n > 0)]);
});
