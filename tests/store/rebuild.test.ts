import fc from 'fast-check';
import { expect, test } from 'vitest';
import { COMMANDS, type CommandName } from '@/server/commands/index.ts';
import { runCommand } from '@/server/commands/run.ts';
import type { Connection } from '@/server/db/connection.ts';
import { COMMAND_LINE } from '@/server/permit.ts';
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

const FIELDS = DESIGN['types/variety.json'] as { fields: { key: string }[] };

/** Entries whose marks do not say what their rows say. */
function wronglyMarked({ driver }: Connection): unknown[] {
  return driver
    .prepare(
      'SELECT id FROM entry AS e WHERE newest <> (SELECT max(number) FROM revision WHERE entry = e.id) OR unpublished <> (NOT EXISTS (SELECT 1 FROM live_interval AS l WHERE l.entry = e.id AND l.revision = e.newest))',
    )
    .all();
}

/** How often each command went through: one that never does tests nothing. */
const done = new Map<CommandName, number>();

test('after any writes, deriving everything anew gives the same rows, and what was past stays', async () => {
  await fc.assert(
    fc.asyncProperty(
      randomSite,
      fc.array(fc.tuple(step, minutes), { maxLength: 12 }),
      async (files, steps) => {
        const { connection, view, result } = await loadFiles(files);
        if (!result.ok) return;
        let wall = Date.parse('2026-07-01T12:00:00Z');
        const run = (name: CommandName, input: unknown): void => {
          const { ok } = runCommand(connection, name, COMMAND_LINE, input, { wallClock: wall });
          if (ok) done.set(name, (done.get(name) ?? 0) + 1);
        };
        const past = (): unknown =>
          connection.driver
            .prepare(
              'SELECT entry, starts, min(coalesce(ends, ?), ?) AS ends, revision FROM live_interval WHERE starts < ? ORDER BY entry, starts',
            )
            .all(wall, wall, wall);
        for (const [what, pause] of steps) {
          wall += pause * 60_000 + 1;
          const before = past();
          if (what.do === 'save') {
            const type = { v: 'variety', g: 'grower', p: 'page' }[what.entry[0]!]!;
            run('saveEntry', { id: what.entry, type, values: { title: what.title }, seen: null });
          } else if (what.do === 'cancel') {
            const plan = connection.driver
              .prepare('SELECT min(id) FROM planned_change WHERE at > ?')
              .pluck()
              .get(wall) as number | null;
            if (plan !== null) run('cancelPlan', { plan });
          } else if (what.do === 'delete') {
            run('deleteEntry', { entry: what.entry });
          } else if (what.do === 'restore') {
            const gone = connection.driver
              .prepare('SELECT id FROM entry WHERE deleted IS NOT NULL')
              .pluck()
              .get();
            run('restoreEntry', { entry: gone ?? what.entry });
          } else if (what.do === 'address' || what.do === 'fields') {
            const variety = view.at(wall)!.site.design.types.find((t) => t.key === 'variety')!;
            const set =
              what.do === 'address'
                ? { address: what.pattern }
                : { fields: FIELDS.fields.filter((f) => f.key !== what.without) };
            const { design } = view.at(wall)!.site;
            run('release', { edit: { steps: setting(design, `types/${variety.id}`, set) } });
          } else {
            const at =
              what.after === null ? null : new Date(wall + (what.after + 1) * 60_000).toISOString();
            run('planChange', { entry: what.entry, action: what.do, at, revision: null });
          }
          expect(past()).toEqual(before);
          expect(wronglyMarked(connection)).toEqual([]);
          const rows = derivedRows(connection);
          rebuild(connection, view);
          expect(derivedRows(connection)).toEqual(rows);
        }
        const rows = derivedRows(connection);
        dropIndexTables(connection);
        rebuild(connection, view);
        expect(derivedRows(connection)).toEqual(rows);
      },
    ),
    { numRuns: 60 },
  );
  for (const name of Object.keys(COMMANDS) as CommandName[])
    expect([name, done.get(name) ?? 0]).toEqual([name, expect.toSatisfy((n: number) => n > 0)]);
}, 240_000);
