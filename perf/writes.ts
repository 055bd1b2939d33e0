import assert from 'node:assert/strict';
import { cpSync, rmSync } from 'node:fs';
import { spawnSync } from 'node:child_process';
import { join } from 'node:path';
import { fileURLToPath } from 'node:url';
import { loadSite } from '@/server/commands/load-site.ts';
import { runCommand } from '@/server/commands/run.ts';
import { type Connection, openDatabase } from '@/server/db/connection.ts';
import { PublicPages } from '@/server/delivery/public-pages.ts';
import { readSite } from '@/server/files/read-site.ts';
import { COMMAND_LINE } from '@/server/permit.ts';
import { entryOutcome } from '@/server/queries/entry-outcome.ts';
import { SiteView } from '@/server/queries/site-view.ts';
import { readValues } from '@/server/store/stored-values.ts';
import { settledInstant } from '@/server/store/write.ts';
import { type PerfRow, median, row } from './measure.ts';

const root = fileURLToPath(new URL('..', import.meta.url));
const DAY_MS = 86_400_000;

/** What saving, publishing and visitors cost, whatever else is planned on a site. */
export async function measureWrites(data: string, cache: string): Promise<PerfRow[]> {
  const [free, planned, small] = ['free', 'planned', 'small'].map((name) => join(cache, name));
  for (const copy of [free!, planned!]) {
    rmSync(copy, { recursive: true, force: true });
    cpSync(data, copy, { recursive: true });
  }
  await makeSmall(small!);
  const sites = [free!, planned!, small!].map((folder) => new Writing(folder));
  const [without, large, little] = sites as [Writing, Writing, Writing];
  large.plan(20_000);
  little.plan(200);
  try {
    const saves = inTurns(
      () => large.save(),
      () => without.save(),
    );
    const publications = inTurns(
      () => large.publish(),
      () => little.publish(),
    );
    return [
      large.outcomeRow(),
      labelReleased(large, little),
      row('save a draft, 20,000 planned changes elsewhere / none', saves, '≤', 1.2),
      row('publish one of 100,000 entries, 20,000 planned / of 1,000, 200', publications, '≤', 2),
      row(
        'unchanged pages kept while one entry a second is published',
        await kept(little),
        '≥',
        0.98,
      ),
    ];
  } finally {
    for (const site of sites) site.close();
    for (const folder of [free!, planned!, small!])
      rmSync(folder, { recursive: true, force: true });
  }
}

function labelReleased(large: Writing, little: Writing): PerfRow {
  const releases = inTurns(
    () => large.release(),
    () => little.release(),
  );
  return row('release another label, 100,000 entries / 1,000', releases, '≤', 1.5);
}

/** A site of 1,000 varieties. */
async function makeSmall(data: string): Promise<void> {
  rmSync(data, { recursive: true, force: true });
  const folder = `${data}-folder`;
  const args = [
    '--import',
    'tsx',
    'demo/generator/main.ts',
    '--varieties',
    '1000',
    '--out',
    folder,
  ];
  assert.equal(spawnSync(process.execPath, args, { cwd: root }).status, 0);
  const { site } = await readSite(folder, Date.now());
  const connection = openDatabase(join(data, 'site.db'));
  assert.ok(loadSite(connection, data, COMMAND_LINE, site!, Date.now()).ok);
  connection.close();
  rmSync(folder, { recursive: true, force: true });
}

/** Somebody at work on a site. */
class Writing {
  readonly connection: Connection;
  readonly view: SiteView;
  wall: number;
  private readonly ids: string[];
  private next = 0;

  constructor(data: string) {
    this.connection = openDatabase(join(data, 'site.db'));
    this.view = new SiteView(this.connection);
    this.wall = Math.max(Date.now(), settledInstant(this.connection) + 1);
    this.ids = this.connection.driver
      .prepare(`SELECT id FROM entry WHERE type = 'variety' ORDER BY id DESC`)
      .pluck()
      .all() as string[];
  }

  /** Plans a retirement for each of the last entries. */
  plan(count: number): void {
    for (let i = 0; i < count; i++) {
      const at = new Date(this.wall + DAY_MS + i * 60_000).toISOString();
      this.run('planChange', { entry: this.ids.pop()!, action: 'retire', at, revision: null });
    }
  }

  save(): void {
    const values = { title: `Saved ${this.next++}` };
    this.run('saveEntry', { id: null, type: 'variety', values, seen: null });
  }

  /** Releases another label of a field; nothing is built on it. */
  release(): void {
    const { design } = this.view.at(this.wall)!.site;
    const type = design.types.find(({ key }) => key === 'variety')!;
    const { id, label: was } = type.fields[0]!;
    const part = `types/${type.id}/fields/${id}`;
    const step = { do: 'set', part, property: 'label', was, now: `Title ${this.next++}` };
    this.run('release', { edit: { steps: [step] } });
  }

  /** How long the outcome of what stands in an entry's form is waited for, in ms. */
  outcomeRow(): PerfRow {
    const times = this.ids.slice(0, ROUNDS).map((id) => {
      const values = { title: `Written ${this.next++}` };
      const started = performance.now();
      entryOutcome(
        this.view,
        COMMAND_LINE,
        { id, type: 'variety', values },
        this.wall + 1,
        'published',
      );
      return performance.now() - started;
    });
    const value = Math.round(median(times));
    const name = 'outcome of an entry’s form, one of 100,000 (median)';
    return { name, value, unit: 'ms', target: '≤ 150', met: value <= 150 };
  }

  publish(): string {
    const entry = this.ids[this.next++ % this.ids.length]!;
    this.run('planChange', { entry, action: 'publish', at: null, revision: null });
    return entry;
  }

  run(name: string, input: unknown): void {
    this.wall += 10;
    const result = runCommand(this.connection, name as never, COMMAND_LINE, input, {
      wallClock: this.wall,
    }) as { ok: boolean };
    assert.ok(result.ok, JSON.stringify(result));
  }

  close(): void {
    this.connection.close();
  }
}

const ROUNDS = 60;

/** The median time of one thing done, against that of another done in turns with it. */
function inTurns(ours: () => unknown, peer: () => unknown): number {
  const times = { ours: [] as number[], peer: [] as number[] };
  for (let round = 0; round < ROUNDS; round++)
    for (const name of ['ours', 'peer'] as const) {
      const started = performance.now();
      (name === 'ours' ? ours : peer)();
      if (round > 4) times[name].push(performance.now() - started);
    }
  return median(times.ours) / median(times.peer);
}

const SECONDS = 60;
const ASKED_A_SECOND = 40;

/**
 * The share of unchanged pages that are kept, of those that visitors ask for at random, while an
 * entry is written anew and published each second.
 */
async function kept(site: Writing): Promise<number> {
  let now = site.wall;
  const paths = site.view.pages(now)!.map(({ path }) => path);
  const pages = new PublicPages(site.view, () => now);
  for (const path of paths) pages.find(path);
  const bodies = new Map(paths.map((path) => [path, site.view.render(path, now)!.body]));
  const newest = site.connection.driver.prepare(
    `SELECT number, "values" AS json FROM revision WHERE entry = ? ORDER BY number DESC LIMIT 1`,
  );
  const { language } = site.view.at(now)!.site.design.site;
  let [same, hits] = [0, 0];
  for (let second = 0; second < SECONDS; second++) {
    const entry = site.publish();
    const stored = newest.get(entry) as { number: number; json: string };
    const values = { ...readValues(stored.json, language), title: `Anew ${second}` };
    site.run('saveEntry', { id: entry, type: 'variety', values, seen: stored.number });
    site.run('planChange', { entry, action: 'publish', at: null, revision: null });
    site.wall += 1000;
    now = site.wall;
    await new Promise((resolve) => setImmediate(resolve)); // changes are heard of once a turn
    for (let i = 0; i < ASKED_A_SECOND; i++) {
      const path = paths[(second * 7919 + i * 104_729) % paths.length]!;
      const known = pages.known(path);
      const { body } = site.view.render(path, now)!;
      if (body === bodies.get(path)) {
        same += 1;
        if (known) hits += 1;
      }
      bodies.set(path, body);
      pages.find(path);
    }
  }
  return hits / same;
}
