import { existsSync } from 'node:fs';
import { join } from 'node:path';
import fc from 'fast-check';
import { expect, test } from 'vitest';
import type { Result } from '@/core/issue.ts';
import type { CommandName } from '@/server/commands/index.ts';
import { runCommand } from '@/server/commands/run.ts';
import { type Connection, openDatabase } from '@/server/db/connection.ts';
import { COMMAND_LINE } from '@/server/permit.ts';
import { applyPlan } from '@/server/planning/apply-plan.ts';
import { copyDatabase } from '@/server/planning/copy-database.ts';
import { dropPlan, planWrite } from '@/server/planning/plan-write.ts';
import { openEdits } from '@/server/store/bench.ts';
import { loadFiles, temporaryFolder } from '../helpers/folder.ts';
import { randomWrites } from '../helpers/random-steps.ts';
import { LivedSite } from '../helpers/random-writes.ts';
import { DESIGN, randomSite } from '../helpers/random-site.ts';
import { setting } from '../helpers/release.ts';
import { derivedRows, rebuild } from '../helpers/snapshot.ts';

const START = Date.parse('2026-07-01T12:00:00Z');

const { fields } = DESIGN['types/variety.json'] as { fields: object[] };
const MORE_FIELDS = [...fields, { key: 'extra', kind: 'number' }];

/** Does a command as one above a thousand entries is done: on a copy first. */
function planned(
  connection: Connection,
  name: CommandName,
  input: unknown,
  { wall, meanwhile }: { wall: number; meanwhile?: () => void },
): Result<unknown> {
  const file = join(temporaryFolder(), 'plan.db');
  const toPlan = { name, actor: COMMAND_LINE, input, wallClock: wall };
  try {
    const plan = planWrite(connection, file, toPlan, () => undefined);
    meanwhile?.();
    return plan.ok ? applyPlan(connection, plan.value, wall + 20) : plan;
  } finally {
    dropPlan(file);
    expect(existsSync(file)).toBe(false);
  }
}

/** All that a release writes, but for instants of the write itself and counters. */
function rowsOf(connection: Connection): Record<string, unknown> {
  const all = (sql: string): unknown[] => connection.driver.prepare(sql).all();
  return {
    ...derivedRows(connection),
    indexes: all(
      `SELECT name, sql FROM sqlite_master WHERE type <> 'trigger' AND sql IS NOT NULL
         AND name NOT LIKE 'sqlite%' ORDER BY name`,
    ),
    designs: all('SELECT * FROM design_version ORDER BY id'),
    edits: all('SELECT * FROM design_edit ORDER BY id'),
    plans: all('SELECT * FROM planned_change ORDER BY id'),
    meta: all('SELECT * FROM meta ORDER BY key'),
    revisions: all('SELECT entry, number, saved, "values" FROM revision ORDER BY entry, number'),
    changes: all('SELECT DISTINCT key FROM public_change ORDER BY key'),
  };
}

test('a write that is planned on a copy leaves the rows that it leaves when done at once', async () => {
  let [same, drafts] = [0, 0];
  const release = fc.record({
    address: fc.constantFrom('/{title}', '/s/{title}', '/{grower.title ?? "seeds"}/{title}'),
    field: fc.boolean(),
    later: fc.option(fc.integer({ min: 1, max: 90_000 })),
    draft: fc.boolean(),
    undo: fc.boolean(),
    meanwhile: fc.boolean(),
  });
  await fc.assert(
    fc.asyncProperty(randomSite, randomWrites, release, async (files, steps, asked) => {
      const { connection, view, result, data } = await loadFiles(files);
      if (!result.ok) return;
      const lived = new LivedSite(connection, view, START);
      for (const [what, pause] of steps.slice(0, 6)) {
        lived.wall += pause * 60_000 + 1;
        lived.write(what);
      }
      lived.wall += 60_000;
      const { design } = view.at(lived.wall)!.site;
      // A field more has the type's tables made anew.
      const set = { address: asked.address, ...(asked.field ? { fields: MORE_FIELDS } : {}) };
      lived.run('editDesign', { steps: setting(design, 'types/variety', set) });
      const last = connection.driver.prepare('SELECT max(id) FROM design_version').pluck().get();
      const at = asked.later && new Date(lived.wall + asked.later * 60_000).toISOString();
      const input = asked.undo
        ? { release: last }
        : {
            edits: openEdits(connection).map(({ id }) => id),
            drafts: asked.draft ? [{ entry: 'v0', revision: null }] : [],
            at,
          };
      const name = asked.undo ? 'undoRelease' : 'release';
      const wall = lived.wall + 1000;
      const other = join(data, 'other.db');
      copyDatabase(connection, other);
      const twin = openDatabase(other);
      const draft = (on: Connection) => (): void => {
        if (!asked.meanwhile) return;
        const save = { id: 'v1', type: 'variety', values: { title: 'Draft' }, seen: null };
        const done = runCommand(on, 'saveEntry', COMMAND_LINE, save, { wallClock: wall + 10 });
        if (done.ok) drafts += 1;
      };
      let done: Result<unknown>;
      try {
        done = planned(connection, name, input, { wall, meanwhile: draft(connection) });
      } catch (error) {
        // A draft that moves what is planned, or the clock that passed something.
        expect(String(error)).toContain('meanwhile');
        return;
      }
      draft(twin)();
      const direct = runCommand(twin, name, COMMAND_LINE, input, { wallClock: wall + 20 });
      expect(done).toEqual(direct);
      if (done.ok) expect(rowsOf(connection)).toEqual(rowsOf(twin));
      if (done.ok) same += 1;
      const rows = derivedRows(connection);
      rebuild(connection, view);
      expect(derivedRows(connection)).toEqual(rows);
      twin.close();
    }),
    { numRuns: Number(process.env.LONG ?? 40) },
  );
  expect(same).toBeGreaterThan(8);
  expect(drafts).toBeGreaterThan(5);
});
