import assert from 'node:assert/strict';
import { fork } from 'node:child_process';
import { cpSync, rmSync } from 'node:fs';
import { join } from 'node:path';
import { fileURLToPath } from 'node:url';
import { runCommand } from '@/server/commands/run.ts';
import { COMMAND_LINE } from '@/server/permit.ts';
import { type Connection, openDatabase } from '@/server/db/connection.ts';
import { SiteView } from '@/server/queries/site-view.ts';
import { type PerfRow, quantile } from './measure.ts';
import { start } from './http.ts';

const PORT = 4393;
const PATHS = ['/', '/varieties', '/sow-now', '/growers', '/swap-days', '/about-the-library'];

/**
 * How long visitors wait while every address of 100,000 entries moves in one transaction of
 * another process.
 */
export async function measureMoving(data: string, cache: string): Promise<PerfRow> {
  const copy = join(cache, 'moving');
  rmSync(copy, { recursive: true, force: true });
  cpSync(data, copy, { recursive: true });
  const server = await start(PORT, { kind: 'delivery', data: copy });
  const connection = openDatabase(join(copy, 'site.db'));
  try {
    await latencies(2);
    const waiting = latencies(45);
    await new Promise((resolve) => setTimeout(resolve, 2000));
    const view = new SiteView(connection);
    const from = Date.now();
    const moved = moveAll({ connection, view }, from);
    const seconds = ((Date.now() - from) / 1000).toFixed(0);
    const all = await waiting;
    console.log(
      `  ${moved.toLocaleString('en')} addresses moved in ${seconds} s; ${all.length.toLocaleString('en')} pages asked for, slowest ${all.at(-1)!.toFixed(0)} ms`,
    );
    const value = Math.round(quantile(all, 0.99) * 10) / 10;
    return {
      name: 'public page while 100,000 addresses move, 99th percentile',
      value,
      unit: 'ms',
      target: '≤ 25',
      met: value <= 25,
    };
  } finally {
    connection.close();
    server.process.kill();
    rmSync(copy, { recursive: true, force: true });
  }
}

/** Moves every address of the varieties; how many that were. */
function moveAll(
  { connection, view }: { connection: Connection; view: SiteView },
  from: number,
): number {
  const was = view.at(from)!.site.types.get('variety')!.address!;
  const set = { do: 'set', part: 'types/variety', property: 'address', was, now: '/moved/{title}' };
  const input = { edit: { steps: [set] } };
  const result = runCommand(connection, 'release', COMMAND_LINE, input, { wallClock: from });
  assert.ok(result.ok);
  const count = connection.driver.prepare('SELECT count(*) FROM address WHERE starts >= ?');
  const moved = count.pluck().get(from) as number;
  assert.ok(moved >= 100_000, `only ${moved} addresses moved`);
  return moved;
}

function latencies(seconds: number): Promise<number[]> {
  const child = fork(fileURLToPath(new URL('./latency-client.ts', import.meta.url)), [], {
    execArgv: ['--import', 'tsx'],
  });
  child.send({ port: PORT, seconds, paths: PATHS });
  return new Promise((resolve, reject) => {
    child.once('message', (all) => {
      child.kill();
      resolve(all as number[]);
    });
    child.once('exit', (code) => reject(new Error(`The client ended with ${code}.`)));
  });
}
