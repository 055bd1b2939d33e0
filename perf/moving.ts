import assert from 'node:assert/strict';
import { fork } from 'node:child_process';
import { cpSync, rmSync } from 'node:fs';
import { join } from 'node:path';
import { fileURLToPath } from 'node:url';
import { startServer } from '../tests/helpers/run.ts';
import { type Session, signIn } from '../tests/helpers/session.ts';
import { type PerfRow, quantile } from './measure.ts';

const PORT = 4393;
const PATHS = ['/', '/varieties', '/sow-now', '/growers', '/swap-days', '/about-the-library'];

/**
 * How long visitors, and somebody who saves drafts, wait while every address of 100,000 entries
 * moves by a release in the same process.
 */
export async function measureMoving(data: string, cache: string): Promise<PerfRow[]> {
  const copy = join(cache, 'moving');
  rmSync(copy, { recursive: true, force: true });
  cpSync(data, copy, { recursive: true });
  const server = await startServer(copy, { builder: true, port: PORT });
  try {
    const session = await signIn(server);
    await latencies(2);
    const waiting = latencies(50);
    await new Promise((resolve) => setTimeout(resolve, 2000));
    const { seconds, waits } = await moveAll(session);
    const all = await waiting;
    console.log(
      `  moved in ${seconds} s; ${all.length.toLocaleString('en')} pages asked for, slowest ` +
        `${all.at(-1)!.toFixed(0)} ms; ${waits.length} drafts saved, half within ` +
        `${quantile(waits, 0.5).toFixed(0)} ms`,
    );
    return [
      wait('public page while 100,000 addresses move, 99th percentile', quantile(all, 0.99), 25),
      wait('saving a draft meanwhile, slowest', waits.at(-1)!, 1000),
    ];
  } finally {
    await server.stop();
    rmSync(copy, { recursive: true, force: true });
  }
}

function wait(name: string, ms: number, target: number): PerfRow {
  const value = Math.round(ms * 10) / 10;
  return { name, value, unit: 'ms', target: `≤ ${target}`, met: value <= target };
}

/** Moves every address of the varieties by a release, and saves drafts until that is done. */
async function moveAll(session: Session): Promise<{ seconds: string; waits: number[] }> {
  const was = '/varieties/{family.slug}/{title}';
  const set = { do: 'set', part: 'types/variety', property: 'address', was, now: '/moved/{title}' };
  const from = Date.now();
  let done = false;
  const released = session
    .command('release', { edit: { steps: [set] } }, 'moving')
    .finally(() => (done = true));
  const waits: number[] = [];
  while (!done) {
    const values = { title: `Draft ${waits.length}`, family: 'beans' };
    const asked = performance.now();
    const saved = await session.command('saveEntry', {
      id: null,
      type: 'variety',
      values,
      seen: null,
    });
    waits.push(performance.now() - asked);
    assert.ok(saved.ok);
    await new Promise((resolve) => setTimeout(resolve, 250));
  }
  const result = await released;
  assert.ok(result.ok);
  assert.ok((result.value as { moved: number }).moved >= 100_000);
  const seconds = ((Date.now() - from) / 1000).toFixed(0);
  return { seconds, waits: waits.sort((a, b) => a - b) };
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
