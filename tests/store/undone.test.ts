import fc from 'fast-check';
import { expect, test } from 'vitest';
import type { CommandName } from '@/server/commands/index.ts';
import { runCommand } from '@/server/commands/run.ts';
import type { Actor } from '@/server/permit.ts';
import { openEdits } from '@/server/store/bench.ts';
import { at, loadFiles } from '../helpers/folder.ts';
import { choices, drawing, randomEdit } from '../helpers/random-edits.ts';
import { DESIGN } from '../helpers/random-site.ts';
import { derivedRows, rebuild } from '../helpers/snapshot.ts';

const ANN: Actor = { id: 'ann', name: 'Ann', role: 'builder' };
const BO: Actor = { id: 'bo', name: 'Bo', role: 'builder' };
const DAY_MS = 86_400_000;
const ENTRIES = {
  'entries/grower/g0.json': { entry: { id: 'g0', live: '2026-01-01/' }, title: 'Ana' },
  'entries/variety/v0.json': {
    entry: { id: 'v0', live: '2026-01-01/' },
    title: 'Pea',
    stock: 2,
    grower: 'g0',
  },
};

test('a year of edits and releases by two people is undone to the letter', async () => {
  let [edits, releases] = [0, 0];
  await fc.assert(
    fc.asyncProperty(choices, async (numbers) => {
      const pick = drawing(numbers);
      const { connection, view, issues } = await loadFiles(
        { ...DESIGN, ...ENTRIES },
        at('2026-01-02'),
      );
      expect(issues).toEqual([]);
      let wallClock = at('2026-01-03');
      const run = (name: CommandName, actor: Actor, input: unknown) =>
        runCommand(connection, name, actor, input, { wallClock: (wallClock += 1000) });
      const design = (): string => JSON.stringify(view.at(wallClock)!.site.design);
      const start = design();
      const made: number[] = [];
      for (let i = 0; i < 25; i++) {
        const actor = pick(2) === 0 ? ANN : BO;
        const working = view.working(wallClock)!.folded.design;
        if (run('editDesign', actor, randomEdit(working, pick)).ok) edits += 1;
        if (pick(4) > 0) continue;
        const open = openEdits(connection).map(({ id }) => id);
        const chosen = open.filter(() => pick(2) === 0);
        const done = run('release', actor, { edits: chosen });
        if (done.ok) made.push((done.value as { release: number }).release);
        wallClock += 30 * DAY_MS;
      }
      releases += made.length;
      for (const actor of [ANN, BO]) while (run('undoEdit', actor, {}).ok);
      expect(openEdits(connection)).toEqual([]);
      for (const release of made.toReversed())
        expect(run('undoRelease', ANN, { release })).toMatchObject({ ok: true });
      expect(design()).toBe(start);
      const rows = derivedRows(connection);
      rebuild(connection, view);
      expect(derivedRows(connection)).toEqual(rows);
    }),
    { numRuns: Number(process.env.LONG ?? 8) },
  );
  expect(edits).toBeGreaterThan(15);
  expect(releases).toBeGreaterThan(5);
});
