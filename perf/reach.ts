import assert from 'node:assert/strict';
import { cpSync, rmSync } from 'node:fs';
import { join } from 'node:path';
import { applyEdit } from '@/core/design-edit/edit.ts';
import type { Step } from '@/core/design-edit/steps.ts';
import { openDatabase } from '@/server/db/connection.ts';
import { COMMAND_LINE } from '@/server/permit.ts';
import { reachSoFar } from '@/server/queries/reach.ts';
import { SiteView } from '@/server/queries/site-view.ts';
import { derive } from '@/server/store/derive.ts';
import { settledInstant } from '@/server/store/write.ts';
import { type PerfRow, row } from './measure.ts';

const INPUT = {
  steps: [
    {
      do: 'set' as const,
      part: 'types/variety',
      property: 'address',
      was: '/varieties/{family.slug}/{title}',
      now: '/moved/{title}',
    },
  ],
  edits: [],
  drafts: [],
};

/** How soon the reach of another address pattern of 100,000 entries says something, and all. */
export function measureReach(data: string, cache: string): PerfRow[] {
  const copy = join(cache, 'reach');
  rmSync(copy, { recursive: true, force: true });
  cpSync(data, copy, { recursive: true });
  const connection = openDatabase(join(copy, 'site.db'));
  try {
    const view = new SiteView(connection);
    const { first, moved, whole } = reachOf(view);
    const derivation = derivationOf(view, INPUT.steps);
    const unchanged = derivationOf(view, []);
    console.log(
      `  reach: first counts after ${first.toFixed(0)} ms, all moves after ` +
        `${(moved / 1000).toFixed(1)} s, all pages after ${(whole / 1000).toFixed(1)} s; ` +
        `a derivation of all addresses by that pattern takes ` +
        `${(derivation / 1000).toFixed(1)} s, by the one they have ` +
        `${(unchanged / 1000).toFixed(1)} s`,
    );
    const ratio = Math.round((whole / derivation) * 100) / 100;
    const ms = Math.round(first);
    return [
      {
        name: 'reach of an address pattern of 100,000 entries, first counts',
        value: ms,
        unit: 'ms',
        target: '≤ 2000',
        met: ms <= 2000,
      },
      row('the whole reach / one derivation of all addresses by that pattern', ratio, '≤', 2),
    ];
  } finally {
    connection.close();
    rmSync(copy, { recursive: true, force: true });
  }
}

/** When the reach of another pattern first says something, knows all moves, and is done, ms. */
function reachOf(view: SiteView): { first: number; moved: number; whole: number } {
  const input = { at: Date.now(), ...INPUT };
  const from = performance.now();
  let [first, moved] = [0, 0];
  for (;;) {
    const reach = reachSoFar(view, COMMAND_LINE, input)!;
    const after = performance.now() - from;
    if (reach.counts.moves > 0) first ||= after;
    if (reach.counts.moves >= 100_000) moved ||= after;
    if (reach.done) return { first, moved, whole: after };
  }
}

/** How long it takes to derive the addresses of all entries with a change of the design, ms. */
function derivationOf(view: SiteView, steps: Step[]): number {
  const { connection } = view;
  const settled = settledInstant(connection);
  const edited = applyEdit(view.at(settled)!.site.design, { steps });
  assert.ok(edited.ok);
  const { site } = edited.value;
  const ids = connection.driver.prepare('SELECT id FROM entry').pluck().all() as string[];
  assert.ok(ids.length > 100_000);
  const from = performance.now();
  connection.driver.exec('BEGIN IMMEDIATE');
  derive(connection, { site, settled, touched: ids });
  const took = performance.now() - from;
  connection.driver.exec('ROLLBACK');
  return took;
}
