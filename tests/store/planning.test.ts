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
import { contentTable } from '@/server/queries/content.ts';
import { Stage } from '@/server/db/stage.ts';
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
    entries: all('SELECT * FROM entry ORDER BY id'),
    edges: all('SELECT * FROM reference_edge ORDER BY target, field, entry, revision'),
    many: all('SELECT what, done, undone FROM bulk_change ORDER BY id'),
    revisions: all('SELECT entry, number, saved, "values" FROM revision ORDER BY entry, number'),
    changes: all('SELECT DISTINCT key FROM public_change ORDER BY key'),
  };
}

test('a write that is planned on a copy leaves the rows that it leaves when done at once', async () => {
  let drafts = 0;
  const same = new Map<string, number>();
  const release = fc.record({
    address: fc.constantFrom('/{title}', '/s/{title}', '/{grower.title ?? "seeds"}/{title}'),
    field: fc.boolean(),
    later: fc.option(fc.integer({ min: 1, max: 90_000 })),
    draft: fc.boolean(),
    do: fc.constantFrom('release', 'undoRelease', 'changeEntries'),
    many: fc.constantFrom(
      { do: 'publish', at: null },
      { do: 'retire', at: null },
      { do: 'setValue', field: 'title', value: 'Many' },
      { do: 'addSubject', field: 'traits', key: 'tall' },
      { do: 'remove' },
    ),
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
      const edits = openEdits(connection).map(({ id }) => id);
      if (asked.do === 'undoRelease') lived.run('release', { edits, drafts: [], at: null });
      const last = connection.driver.prepare('SELECT max(id) FROM design_version').pluck().get();
      const at = asked.later && new Date(lived.wall + asked.later * 60_000).toISOString();
      const name = asked.do as CommandName;
      const input = {
        undoRelease: { release: last },
        changeEntries: { what: asked.many, which: { ids: ['v0', 'v2', 'g0', 's0'] } },
        release: {
          edits,
          drafts: asked.draft ? [{ entry: 'v0', revision: null }] : [],
          at,
        },
      }[asked.do];
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
      if (done.ok) same.set(name, (same.get(name) ?? 0) + 1);
      const rows = derivedRows(connection);
      rebuild(connection, view);
      expect(derivedRows(connection)).toEqual(rows);
      twin.close();
    }),
    { numRuns: Number(process.env.LONG ?? 30) },
  );
  for (const name of ['release', 'undoRelease', 'changeEntries'])
    expect([name, same.get(name) ?? 0]).toEqual([name, expect.toSatisfy((n: number) => n > 0)]);
  expect(drafts).toBeGreaterThan(5);
});

test('what is made while others are brought in is there beside them, found by its own values', async () => {
  const site = await loadFiles({
    'types/note.yaml': {
      key: 'note',
      address: '/{title}',
      fields: [
        { key: 'title', kind: 'text' },
        { key: 'stock', kind: 'number' },
      ],
    },
  });
  const { connection, view } = site;
  const file = join(temporaryFolder(), 'stage.db');
  const stage = new Stage(file);
  for (let i = 0; i < 3; i++)
    stage.add({
      ...{ source: `t.csv#${i}`, line: i + 2, body: null },
      values: { title: `Brought ${i}`, stock: String(i) },
    });
  stage.close();
  const fields = { title: 'title', stock: 'stock' };
  const mapping = { type: 'note', fields, publish: 'yes', gone: 'stay' };
  const input = { stage: file, source: null, name: 'Table', mapping };
  const meanwhile = (): void => {
    for (const stock of [7, 8]) {
      const made = {
        id: null,
        type: 'note',
        values: { title: `Made ${stock}`, stock },
        seen: null,
      };
      const wallClock = START + 10 + stock;
      expect(runCommand(connection, 'saveEntry', COMMAND_LINE, made, { wallClock }).ok).toBe(true);
    }
  };
  expect(planned(connection, 'bringIn', input, { wall: START, meanwhile }).ok).toBe(true);
  const named = (filters: object): string[] =>
    contentTable(view, COMMAND_LINE, START + 1000, {
      type: 'note',
      sort: '@name',
      ...filters,
    }).rows.map(({ name }) => name);
  const all = ['Brought 0', 'Brought 1', 'Brought 2', 'Made 7', 'Made 8'];
  expect(named({})).toEqual(all);
  for (const stock of [0, 1, 2, 7, 8])
    expect(named({ where: { field: 'stock', op: 'is', value: stock } })).toHaveLength(1);
  expect(named({ search: 'made' })).toEqual(['Made 7', 'Made 8']);
  expect(named({ state: 'live' })).toEqual(all.slice(0, 3));
  const rows = derivedRows(connection);
  rebuild(connection, view);
  expect(derivedRows(connection)).toEqual(rows);
});
